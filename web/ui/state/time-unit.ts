import type { TimeUnit } from '@maypole/core/declare/lasting';
import { create } from 'zustand';
import { keepText, keptText } from './browser-store';

const KEY = 'maypole-times';

/** Unit in which durations are shown everywhere. */
export const useTimeUnit = create<{ readonly unit: TimeUnit }>()(() => ({
  unit: keptText(KEY) === '%' ? '%' : 'frames',
}));

export function setTimeUnit(unit: TimeUnit): void {
  useTimeUnit.setState({ unit });
  keepText(KEY, unit);
}
