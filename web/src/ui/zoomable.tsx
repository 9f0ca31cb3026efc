import Panzoom, { type PanzoomObject } from '@panzoom/panzoom';
import { Maximize2, ZoomIn, ZoomOut } from 'lucide-react';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { Button } from './button.js';

/** How far a drawing can be drawn out. */
const LARGEST = 5;

/**
 * A drawing that is drawn larger with two fingers, Ctrl and the wheel or the buttons, and then moved under
 * the finger. As it comes it stands whole and the page scrolls over it.
 */
export function Zoomable({ children }: { children: ReactNode }) {
  const drawing = useRef<HTMLDivElement>(null);
  const zoom = useRef<PanzoomObject>(null);
  const [scale, setScale] = useState(1);
  useEffect(() => {
    const element = drawing.current;
    if (!element) return;
    const made = Panzoom(element, {
      minScale: 1,
      maxScale: LARGEST,
      panOnlyWhenZoomed: true,
      cursor: '',
      touchAction: 'pan-x pan-y',
    });
    zoom.current = made;
    const changed = (event: Event) => {
      const { scale: now } = (event as CustomEvent<{ scale: number }>).detail;
      setScale(now);
      // Moved by one finger while it is larger than its place, and no more by the page.
      made.setOptions({ touchAction: now > 1 ? 'none' : 'pan-x pan-y' });
    };
    const wheeled = (event: WheelEvent) => {
      if (event.ctrlKey) made.zoomWithWheel(event);
    };
    element.addEventListener('panzoomchange', changed);
    element.addEventListener('wheel', wheeled, { passive: false });
    return () => {
      element.removeEventListener('panzoomchange', changed);
      element.removeEventListener('wheel', wheeled);
      made.destroy();
    };
  }, []);
  return (
    <div className="relative">
      <div className="overflow-hidden">
        <div ref={drawing}>{children}</div>
      </div>
      <div className="absolute right-0 bottom-0 flex gap-1 rounded-md bg-sheet print:hidden">
        {scale > 1 && (
          <>
            <Button kind="quiet" icon={Maximize2} iconOnly onClick={() => zoom.current?.reset()}>
              The drawing whole
            </Button>
            <Button kind="quiet" icon={ZoomOut} iconOnly onClick={() => zoom.current?.zoomOut()}>
              The drawing smaller
            </Button>
          </>
        )}
        <Button
          kind="quiet"
          icon={ZoomIn}
          iconOnly
          disabled={scale >= LARGEST}
          onClick={() => zoom.current?.zoomIn()}
        >
          The drawing larger
        </Button>
      </div>
    </div>
  );
}
