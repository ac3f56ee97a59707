import { Dice } from '@maypole/core/fixtures/dice';
import { numbersOf, setValue, valuesOf } from '@maypole/core/piece/addresses';
import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { proveSeam } from '@maypole/core/seam/proof';
import { compileFormula } from '@maypole/core/time/formula/compile';
import { parseFormula } from '@maypole/core/time/formula/parse';
import { evaluateNumber, isMoving } from '@maypole/core/time/value';
import { Easing, KeyframeTrack } from './keyframe-peer';
import { alone, compare, type Row } from './table';

const FRAMES = 240;

/** A piece with exactly 300 moving values of all kinds. */
function movingPiece(count: number): Piece {
  const dice = new Dice(77);
  let piece: Piece = {
    ...newPiece('Three hundred'),
    loop: { frames: FRAMES, fps: 30 },
    ribbons: Array.from({ length: 24 }, (_, i) => ({
      ...newRibbon('torus', i),
      steps: [newStep('torus'), newStep('twist'), newStep('place'), newStep('spin'), newStep('place')],
    })),
  };
  let made = 0;
  for (const v of valuesOf(piece)) {
    if (made === count) break;
    if (v.param.type === 'colour' || !v.param.moves || v.param.integer) continue;
    piece = setValue(piece, v.address, dice.motion(v.param));
    made++;
  }
  return piece;
}

/** A formula and the same written by hand. */
const FORMULAS: readonly [string, (t: number) => number][] = [
  ['sin(2*pi*t)', (t) => Math.sin(2 * Math.PI * t)],
  ['3 + 2*sin(2*pi*t) + 0.5*cos(6*pi*t)', (t) => 3 + 2 * Math.sin(2 * Math.PI * t) + 0.5 * Math.cos(6 * Math.PI * t)],
  [
    'abs(sin(pi*t))^0.5*exp(-2*fract(t))',
    (t) => Math.pow(Math.abs(Math.sin(Math.PI * t)), 0.5) * Math.exp(-2 * (t - Math.floor(t))),
  ],
  [
    'sin(2*pi*t + 3*sin(4*pi*t))*(1 + 0.3*cos(10*pi*t))',
    (t) => Math.sin(2 * Math.PI * t + 3 * Math.sin(4 * Math.PI * t)) * (1 + 0.3 * Math.cos(10 * Math.PI * t)),
  ],
];

export async function motion(): Promise<Row[]> {
  const piece = movingPiece(300);
  const values = numbersOf(piece).filter((v) => isMoving(v.value));
  let frame = 0;
  const all = () => {
    frame = (frame + 1) % FRAMES;
    let sum = 0;
    for (const v of values) sum += evaluateNumber(v.value, { frame, frames: FRAMES });
    return sum;
  };
  const peer = new KeyframeTrack(values.length);
  const rows: Row[] = [
    await compare(
      `${values.length} moving values, one frame (limit 0.5 ms)`,
      all,
      'three.js, as many keyed values, eight keys each',
      () => peer.evaluate(frame / FRAMES),
    ),
  ];
  rows.push({
    ...(await compare(
      'seam proof of that piece (limit 5 ms)',
      () => proveSeam({ ...piece }),
      'one frame of its values',
      all,
    )),
    peerName: 'one frame of its values',
    ratio: null,
  });
  for (const [text, hand] of FORMULAS) {
    const run = compileFormula(parseFormula(text));
    const at = { t: 0, f: 0, n: FRAMES, order: 0, count: 1, seed: 0 };
    const ours = () => {
      let sum = 0;
      for (let i = 0; i < 10_000; i++) {
        at.t = i * 1e-4;
        sum += run(at);
      }
      return sum;
    };
    const theirs = () => {
      let sum = 0;
      for (let i = 0; i < 10_000; i++) sum += hand(i * 1e-4);
      return sum;
    };
    rows.push(await compare(`10k × ${text} (limit × 3)`, ours, 'the same by hand', theirs));
  }
  rows.push(...(await Easing.rows()), alone('values that move', values.length, ''));
  return rows;
}
