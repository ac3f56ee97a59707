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
      // The field that asked closes first, and gives the focus back.
      press: (opens: string) =>
        setTimeout(() => {
          const element = document.querySelector<HTMLElement>(`[data-opens="${opens}"]`);
          if (element instanceof HTMLInputElement) element.select();
          else element?.click();
        }),
      fetchFile: (path: string) => {
        const link = document.createElement('a');
        link.href = path;
        link.download = '';
        link.click();
      },
      toggleDusk: () => setTheme(resolvedTheme === 'dark' ? 'light' : 'dark'),
    }),
    [router, resolvedTheme, setTheme],
  );
}
