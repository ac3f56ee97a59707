import { startTransition, useCallback, useEffect, useState } from 'react';

/** Cards that are made at first, as many as fill a usual window; more by the row, long before their end comes into sight. */
const [FIRST, ROWS, AHEAD] = [16, 12, '2000px'];

/** How many of a long list are shown, and what stands at their end. What `of` names begins anew when it changes. */
export function useMore(of: string): [shown: number, end: (element: HTMLElement | null) => void] {
  const [shown, setShown] = useState(FIRST);
  const [end, setEnd] = useState<HTMLElement | null>(null);
  useEffect(() => setShown(FIRST), [of]);
  useEffect(() => {
    if (!end) return;
    const observer = new IntersectionObserver(
      // Scrolling and typing go before them.
      (entries) => entries.some((e) => e.isIntersecting) && startTransition(() => setShown((n) => n + ROWS)),
      { rootMargin: AHEAD },
    );
    observer.observe(end);
    return () => observer.disconnect();
    // Anew after each page: what is still in sight tells nothing by itself.
  }, [end, shown]);
  return [shown, useCallback((element) => setEnd(element), [])];
}
