import { Dice } from '@maypole/core/fixtures/dice';
import { randomSource } from '@maypole/core/maths/random';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { proveSeam } from '@maypole/core/seam/proof';
import { percentile, type Trial } from './trial';

const ODD = [
  null,
  true,
  -1,
  1e308,
  2 ** 31,
  2 ** 53,
  0.1,
  '',
  '\u0000',
  'constructor',
  '__proto__',
  'toString',
  'x'.repeat(5000),
  [],
  {},
  [[]],
  { a: 1 },
];

type Random = () => number;
const pick = <T>(of: readonly T[], random: Random) => of[Math.floor(random() * of.length)];

/** Every place in a value that can be changed. */
function places(value: unknown, out: { in: Record<string, unknown>; key: string }[] = []) {
  if (value && typeof value === 'object')
    for (const key of Object.keys(value)) {
      out.push({ in: value as Record<string, unknown>, key });
      places((value as Record<string, unknown>)[key], out);
    }
  return out;
}

/** A document that is spoilt at one to four places, or as a text. */
export function spoilt(text: string, random: Random): string {
  if (random() < 0.2) {
    const at = Math.floor(random() * text.length);
    return pick(
      [
        text.slice(0, at),
        text.slice(at),
        text.slice(0, at) + pick(['}', '"', '\u0000', '\\', '9'], random) + text.slice(at + 1),
      ],
      random,
    );
  }
  const value = JSON.parse(text) as unknown;
  for (let k = 0; k < 1 + random() * 3; k++) {
    const all = places(value);
    if (all.length === 0) break;
    const place = pick(all, random);
    const what = random();
    if (what < 0.2) delete place.in[place.key];
    else if (what < 0.4) place.in[place.key] = structuredClone(pick(all, random).in);
    else if (what < 0.5) place.in[pick(['constructor', '__proto__x', 'a'], random)] = place.in[place.key];
    else place.in[place.key] = structuredClone(pick(ODD, random));
  }
  return JSON.stringify(value);
}

/** Documents that are spoilt in every way are read or refused in a sentence, soon, and never throw. */
export const documents: Trial = {
  help: 'documents that are spoilt are read, or refused in a sentence',
  short: 400,
  full: 10_000,
  run(times, seed) {
    const random = randomSource(seed);
    const wrong: string[] = [];
    const took: number[] = [];
    let taken = 0;
    for (let i = 0; i < times; i++) {
      const text = spoilt(writePiece(new Dice(seed + (i % 40)).piece()), random);
      const began = performance.now();
      try {
        const read = readPiece(text);
        if (read.ok) {
          taken++;
          proveSeam(read.piece);
        } else if (
          read.message.length < 10 ||
          read.message.length > 2000 ||
          /undefined|\[object|NaN/.test(read.message)
        )
          wrong.push(`document ${i}: “${read.message.slice(0, 200)}” is no sentence for a user`);
      } catch (error) {
        wrong.push(`document ${i} threw: ${(error as Error).stack?.split('\n').slice(0, 3).join(' ')}`);
      }
      took.push(performance.now() - began);
    }
    const figures = {
      documents: times,
      taken,
      'p99 ms': Math.round(percentile(took, 0.99)),
      'most ms': Math.round(Math.max(...took)),
    };
    if (Math.max(...took) > 2000) wrong.push(`one document took ${Math.round(Math.max(...took))} ms`);
    return Promise.resolve({ figures, wrong });
  },
};
