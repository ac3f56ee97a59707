import { useCallback, useEffect, useState } from 'react';

/** Cards that are made at once; more as their end comes into sight. */
const PAGE = 48;

/** How many of a long list are shown, and what stands at their end. What `of` names begins anew when it changes. */
export function useMore(of: string): [shown: number, end: (element: HTMLElement | null) => void] {
  const [shown, setShown] = useState(PAGE);
  const [end, setEnd] = useState<HTMLElement | null>(null);
  useEffect(() => setShown(PAGE), [of]);
  useEffect(() => {
    if (!end) return;
    const observer = new IntersectionObserver(
      (entries) => entries.some((e) => e.isIntersecting) && setShown((n) => n + PAGE),
      { rootMargin: '800px' },
    );
    observer.observe(end);
    return () => observer.disconnect();
    // Anew after each page: what is still in sight tells nothing by itself.
  }, [end, shown]);
  return [shown, useCallback((element) => setEnd(element), [])];
}
