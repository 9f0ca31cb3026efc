import { type RefObject, useEffect, useState } from 'react';

/** How wide an element is, px; null before it was measured. */
export function useWidth(place: RefObject<HTMLElement | null>): number | null {
  const [width, setWidth] = useState<number | null>(null);
  useEffect(() => {
    const element = place.current;
    if (!element || typeof ResizeObserver === 'undefined') return;
    const watch = new ResizeObserver(() => setWidth(element.clientWidth || null));
    watch.observe(element);
    setWidth(element.clientWidth || null);
    return () => watch.disconnect();
  }, [place]);
  return width;
}
