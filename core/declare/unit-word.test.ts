import { expect, it } from 'vitest';
import { unitWord } from './unit-word';

it.each([
  ['turns', 1, 'turn'],
  ['turns', -1, 'turn'],
  ['turns', 0.5, 'turns'],
  ['frames', 2, 'frames'],
  ['copies', 1, 'copy'],
  ['m', 1, 'm'],
  ['', 1, ''],
])('%s of %d is said %s', (unit, value, word) => expect(unitWord(unit, value)).toBe(word));
