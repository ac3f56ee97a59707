import { randomSource } from '@maypole/core/maths/random';
import { newPiece, newRibbon } from '@maypole/core/piece/piece';
import { writePiece } from '@maypole/core/piece/read';
import { diffChars } from 'diff';
import { describe, expect, it } from 'vitest';
import { deltaOf, withDelta } from './delta';

const ALPHABET = [...'{}[]",:0123456789aeioun-.', 'é', '\u2028', '🎈', '\ud83c', '\\', '\n'];

/** A text, and another with some places cut and some put in. */
function pair(random: () => number): [string, string] {
  const letters = (n: number) =>
    Array.from({ length: n }, () => ALPHABET[Math.floor(random() * ALPHABET.length)]).join('');
  const from = letters(Math.floor(random() * 400));
  let to = from;
  for (let i = Math.floor(random() * 5); i > 0; i--) {
    const at = Math.floor(random() * (to.length + 1));
    to = to.slice(0, at) + letters(Math.floor(random() * 12)) + to.slice(at + Math.floor(random() * 12));
  }
  return [from, to];
}

/** Characters that a difference cuts and puts in. */
function effort(delta: string): number {
  const parts = JSON.parse(delta) as (number | string)[];
  return parts.reduce<number>(
    (n, p, i) => n + (i % 3 === 1 ? (p as number) : i % 3 === 2 ? (p as string).length : 0),
    0,
  );
}

describe('differences of texts', () => {
  it('give the other text back to the letter, and cut and put in no more than an independent diff needs', () => {
    const random = randomSource(7);
    let [ours, theirs] = [0, 0];
    for (let i = 0; i < 600; i++) {
      const [from, to] = pair(random);
      const delta = deltaOf(from, to);
      expect(withDelta(from, delta)).toBe(to);
      ours += effort(delta);
      // jsdiff (npm `diff`), Myers' algorithm by itself; it takes code points where ours takes code units.
      for (const part of diffChars(from, to)) if (part.added || part.removed) theirs += part.value.length;
    }
    expect(ours).toBeGreaterThan(0);
    expect(ours).toBeLessThanOrEqual(theirs * 1.05);
  });

  it('is small for what an autosave changes in a large document', () => {
    const piece = { ...newPiece('Large'), ribbons: Array.from({ length: 700 }, (_, i) => newRibbon('sphere', i)) };
    const from = writePiece(piece);
    expect(from.length).toBeGreaterThan(100_000);
    const to = from.replace(/^(.{40000}[^}]*)"on":true/s, '$1"on":false').replace('"Large"', '"Larger"');
    const delta = deltaOf(from, to);
    expect(withDelta(from, delta)).toBe(to);
    expect(to).not.toBe(from);
    expect(delta.length).toBeLessThan(80);
  });

  it('of two texts that have nothing in common, or a thousand places, is right all the same', () => {
    const random = randomSource(3);
    const text = () => Array.from({ length: 60_000 }, () => String.fromCharCode(32 + random() * 90)).join('');
    const [a, b] = [text(), text()];
    expect(withDelta(a, deltaOf(a, b))).toBe(b);
    const far = a.replace(/a/g, 'bc');
    expect(withDelta(a, deltaOf(a, far))).toBe(far);
    expect(deltaOf(a, a)).toBe('[]');
    expect(withDelta('', deltaOf('', a))).toBe(a);
    expect(withDelta(a, deltaOf(a, ''))).toBe('');
  });

  it.each([
    ['{}', 'no difference'],
    ['[1,2]', 'no difference'],
    ['[1,9,""]', 'of another text'],
    ['[-1,0,""]', 'of another text'],
    ['[0,1.5,""]', 'of another text'],
    ['[0,1,2]', 'of another text'],
  ])('%s is refused', (delta, words) => {
    expect(() => withDelta('short', delta)).toThrow(words);
  });
});
