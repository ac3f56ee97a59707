import { startTransition, useCallback, useEffect, useState } from 'react';

/** Cards rendered at first, enough for a usual window; cards per batch; and how far ahead of the end. */
const [FIRST, ROWS, AHEAD] = [16, 12, '2000px'];

/** How many items of a long list to render, and a ref for its end. Restarts when `of` changes. */
export function useMore(of: string): [shown: number, end: (element: HTMLElement | null) => void] {
  const [shown, setShown] = useState(FIRST);
  const [end, setEnd] = useState<HTMLElement | null>(null);
  useEffect(() => setShown(FIRST), [of]);
  useEffect(() => {
    if (!end) return;
    const observer = new IntersectionObserver(
      // Scrolling and typing take priority.
      (entries) => entries.some((e) => e.isIntersecting) && startTransition(() => setShown((n) => n + ROWS)),
      { rootMargin: AHEAD },
    );
    observer.observe(end);
    return () => observer.disconnect();
    // Observed anew after each batch: an element that stays visible triggers nothing.
  }, [end, shown]);
  return [shown, useCallback((element) => setEnd(element), [])];
}
