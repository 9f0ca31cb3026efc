import { ChevronRight } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';

/**
 * One line that opens at a touch. What has become complete closes by itself when one goes on elsewhere; what
 * is not stays as it was left.
 * @param says what is in it, in a few words, on the line
 * @param isComplete nothing of it is still to be recorded
 */
export function Fold({
  title,
  says,
  isComplete,
  startsOpen = false,
  children,
}: {
  title: string;
  says: string;
  isComplete?: boolean;
  startsOpen?: boolean;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(startsOpen);
  const place = useRef<HTMLElement>(null);
  const before = useRef(isComplete);
  const closing = useRef(false);
  useEffect(() => {
    if (isComplete && before.current === false) {
      // A field that is being typed in is not closed over: "2" becomes "2.5".
      if (isOf(place.current, document.activeElement)) closing.current = true;
      else setOpen(false);
    }
    before.current = isComplete;
  }, [isComplete]);
  const pressed = useRef(false);
  useEffect(() => {
    const down = () => {
      pressed.current = true;
    };
    const up = () => {
      pressed.current = false;
    };
    window.addEventListener('pointerdown', down, true);
    window.addEventListener('pointerup', up, true);
    return () => {
      window.removeEventListener('pointerdown', down, true);
      window.removeEventListener('pointerup', up, true);
    };
  }, []);
  const left = (to: EventTarget | null) => {
    if (!closing.current || isOf(place.current, to as Element | null)) return;
    closing.current = false;
    const close = () => setOpen(false);
    // What is just being pressed below must not move away from under the finger.
    if (pressed.current)
      window.addEventListener('click', () => setTimeout(close), { capture: true, once: true });
    else close();
  };
  return (
    <section
      ref={place}
      aria-label={title}
      onBlur={(event) => left(event.relatedTarget)}
      className="rounded-lg border border-edge bg-sheet"
    >
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="flex min-h-11 w-full items-center gap-2 px-3 text-left"
      >
        <ChevronRight
          aria-hidden
          className={
            open ? 'size-5 shrink-0 rotate-90 transition-transform' : 'size-5 shrink-0 transition-transform'
          }
        />
        <span className="font-semibold whitespace-nowrap">{title}</span>
        <span className="min-w-0 flex-1 truncate text-right text-soft">{says}</span>
      </button>
      {open && <div className="border-t border-rule p-3">{children}</div>}
    </section>
  );
}

/** In it, or in a list, menu or dialog that came from it and stands elsewhere in the page. */
const isOf = (place: HTMLElement | null, element: Element | null) =>
  place?.contains(element) || element?.closest('[role=listbox], [role=menu], [role=dialog]') != null;
