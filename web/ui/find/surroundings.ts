import { useTheme } from 'next-themes';
import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import type { Surroundings } from './acts';

/** What actions need of the page. */
export function useSurroundings(): Surroundings {
  const router = useRouter();
  const { resolvedTheme, setTheme } = useTheme();
  return useMemo(
    () => ({
      go: (path: string) => router.push(path),
      origin: () => window.location.origin,
      press: (opens: string) => document.querySelector<HTMLElement>(`[data-opens="${opens}"]`)?.click(),
      toggleDusk: () => setTheme(resolvedTheme === 'dark' ? 'light' : 'dark'),
    }),
    [router, resolvedTheme, setTheme],
  );
}
