import { expect, it } from 'vitest';
import { explained, words, wordsIn } from './words';

const found = (text: string) => wordsIn(text).map((w) => w.word);

it('finds the words that are explained, in any form, once', () => {
  expect(found('Seam closed')).toEqual(['Seam', 'Closed']);
  expect(found('Add ribbon, or two ribbons')).toEqual(['Ribbon']);
  expect(found('Switch to true light')).toEqual(['True light']);
  expect(found('Turn each copy by 24 sub-frames')).toEqual(['Turns', 'Copies', 'Sub-frames']);
  expect(found('Nothing of the kind')).toEqual([]);
  expect(found('')).toEqual([]);
});

it('explains every word in a plain sentence, in the order of the alphabet', () => {
  const all = words.map((w) => w.word);
  expect([...all].sort((a, b) => a.localeCompare(b, 'en'))).toEqual(all);
  for (const { word, text } of words) {
    expect(text, word).toMatch(/^[A-Z].*\.$/);
    expect(text.length, word).toBeLessThan(150);
    expect(explained(word.toUpperCase())).toBe(text);
    expect(found(word)).toEqual([word]);
  }
});
