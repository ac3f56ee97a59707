import { addressKey, numbersOf, type Address } from '../piece/addresses';
import type { Piece } from '../piece/piece';
import type { Unit } from '../declare/params';
import { isWhole, lcm, type Rational } from '../time/rational';
import { derivativeOf, evaluateNumber, isMoving, turnsOf } from '../time/value';

/** A moving value that does not close. */
export interface Gap {
  readonly address: Address;
  readonly key: string;
  readonly title: string;
  readonly place: string;
  readonly colour?: string;
  readonly unit: Unit;
  readonly turns: Rational;
  /** Value at f = 0 and at f = N. */
  readonly from: number;
  readonly to: number;
  /** Change per frame where the loop starts, and where it arrives. */
  readonly speedFrom: number;
  readonly speedTo: number;
  /** The nearest whole turns that would close it, the nearest first; never 0. */
  readonly repairs: readonly number[];
}

export interface Proof {
  readonly closed: boolean;
  readonly gaps: readonly Gap[];
  /** How many values move, and how many of them close. */
  readonly moving: number;
  /** Frames after which the piece really repeats: a whole multiple of N. */
  readonly truePeriod: number;
}

function wholeTurnsNear(turns: Rational): number[] {
  const x = turns.num / turns.den;
  const candidates = [Math.floor(x), Math.ceil(x)].map((k) => (k === 0 ? Math.sign(x) || 1 : k));
  return [...new Set(candidates)].sort((a, b) => Math.abs(a - x) - Math.abs(b - x));
}

/**
 * Which values close, from their turns alone, in exact arithmetic. A motion of p/q turns repeats
 * after q loops, so the piece repeats after the least common multiple of all q.
 */
export function proveSeam(piece: Piece): Proof {
  const frames = piece.loop.frames;
  const gaps: Gap[] = [];
  let moving = 0;
  let loops = 1;
  for (const { address, param, value, title, place, colour } of numbersOf(piece)) {
    if (!isMoving(value)) continue;
    moving++;
    if (value.low === value.high) continue;
    const turns = turnsOf(value);
    if (isWhole(turns)) continue;
    loops = lcm(loops, turns.den);
    gaps.push({
      address,
      key: addressKey(address),
      title,
      place,
      colour,
      unit: param.unit,
      turns,
      from: evaluateNumber(value, { frame: 0, frames }),
      to: evaluateNumber(value, { frame: frames, frames }),
      speedFrom: derivativeOf(value, { frame: 0, frames }),
      speedTo: derivativeOf(value, { frame: frames, frames }),
      repairs: wholeTurnsNear(turns),
    });
  }
  gaps.sort((a, b) => Math.abs(b.to - b.from) - Math.abs(a.to - a.from));
  return { closed: gaps.length === 0, gaps, moving, truePeriod: frames * loops };
}
