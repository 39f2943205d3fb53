/** The width of an element of the page, followed as it changes. */
import { useEffect, useState, type RefObject } from 'react';

/** @returns CSS px, 0 until it is known. */
export function useWidth(host: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const element = host.current;
    if (!element) return undefined;
    const watch = new ResizeObserver(() => {
      setWidth(element.clientWidth);
    });
    watch.observe(element);
    return () => {
      watch.disconnect();
    };
  }, [host]);
  return width;
}
