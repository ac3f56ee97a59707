import type { TimeUnit } from '@maypole/core/declare/lasting';
import { create } from 'zustand';

const KEY = 'maypole-times';

function kept(): TimeUnit {
  try {
    return localStorage.getItem(KEY) === '%' ? '%' : 'frames';
  } catch {
    return 'frames';
  }
}

/** What lengths of time are shown in, wherever they stand. */
export const useTimeUnit = create<{ readonly unit: TimeUnit }>()(() => ({
  unit: typeof localStorage === 'undefined' ? 'frames' : kept(),
}));

export function setTimeUnit(unit: TimeUnit): void {
  useTimeUnit.setState({ unit });
  try {
    localStorage.setItem(KEY, unit);
  } catch {
    // Where nothing can be kept, it lasts as long as the page.
  }
}
