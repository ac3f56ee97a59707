import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { whenWords } from './when-words';

beforeEach(() => vi.useFakeTimers({ now: new Date(2026, 5, 15, 18, 30) }));
afterEach(() => vi.useRealTimers());

it('says the time of day, and the day where it is another', () => {
  expect(whenWords(new Date(2026, 5, 15, 9, 5).toISOString())).toBe('09:05');
  expect(whenWords(new Date(2026, 5, 14, 23, 59).toISOString())).toBe('14 Jun, 23:59');
  expect(whenWords(new Date(2025, 5, 15, 9, 5).toISOString())).toBe('15 Jun 2025, 09:05');
});
