import { type ReactNode, useEffect, useRef, useState } from 'react';

/**
 * A part of the page that scrolls by itself where it is too small for what is in it. The keyboard comes to it
 * then, and only then: the arrows have nothing to do where all is in sight.
 */
export function Scrolls({
  label,
  as: Part = 'section',
  className,
  children,
}: {
  label: string;
  as?: 'section' | 'aside';
  className: string;
  children: ReactNode;
}) {
  const place = useRef<HTMLElement>(null);
  const content = useRef<HTMLDivElement>(null);
  const [overflows, setOverflows] = useState(false);
  useEffect(() => {
    const outer = place.current;
    const inner = content.current;
    if (!outer || !inner) return;
    const measure = () =>
      setOverflows(outer.scrollHeight > outer.clientHeight || outer.scrollWidth > outer.clientWidth);
    const watch = new ResizeObserver(measure);
    watch.observe(outer);
    watch.observe(inner);
    measure();
    return () => watch.disconnect();
  }, []);
  return (
    <Part ref={place} aria-label={label} className={className} {...(overflows ? { tabIndex: 0 } : {})}>
      <div ref={content}>{children}</div>
    </Part>
  );
}
