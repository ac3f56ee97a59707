import { number, toggle, vector } from '../../declare/params';
import { pointsMesh, withCopies } from '../../copies/copies';
import { axisAngle, matrixOf } from '../../maths/quaternion';
import type { Copies } from '../../shape/mesh';
import { splitTime } from '../../time/phase';
import { periodicResponse } from '../../time/spring';
import { brief, defineStep, formatCount, StepProblem, type StepContext } from '../step';

/** Positions at every frame, and the offsets of their weights, are cached up to this many numbers. */
const MOST = 12_000_000;

/** Copies that hang from their places and swing as those move. */
export const swing = defineStep({
  kind: 'swing',
  title: 'Swing',
  help: 'Hangs copies up, so that they trail behind and swing as they are moved.',
  icon: 'swing',
  group: 'repeat',
  copiesAfter: (_, before) => before,
  params: {
    swings: number('Swings', 3, 'Swings a loop that a copy would make by itself: more for a short thread.', {
      unit: '/loop',
      min: 0.1,
      max: 200,
      soft: [0.5, 12],
      step: 0.1,
      moves: false,
    }),
    damping: number('Damping', 20, '100 % comes to rest without swinging past.', {
      unit: '%',
      min: 1,
      max: 1000,
      soft: [1, 150],
      step: 1,
      moves: false,
    }),
    length: number('Thread', 1, 'From where it hangs to its weight: the longer, the less it leans.', {
      unit: 'm',
      min: 0.001,
      max: 1000,
      soft: [0.1, 4],
    }),
    hang: vector('Hangs from', [0, 0, 0], 'The point of each copy it hangs from, along its own axes.', {
      unit: 'm',
      min: -1000,
      max: 1000,
      soft: [-2, 2],
      handle: 'place',
    }),
    strength: number('Strength', 100, 'How strongly the copies lean.', {
      unit: '%',
      min: 0,
      max: 1000,
      soft: [0, 200],
      step: 1,
    }),
    stretches: toggle('Bobs', false, 'Also lags and swings up and down, as on a rubber thread.'),
  },
  summary: (v) => `${brief(v.swings)} swings a loop`,
  reads: { copies: true, loop: true },
  evaluate(v, input, context) {
    const { copies } = input;
    if (!copies) throw new StepProblem('Swing needs copies; put a step of Repeat before it, such as Line or Rings.');
    const trail = trailing(v, copies, context);
    if (!trail) return input;
    const n = copies.source.length;
    const m = copies.matrices.slice();
    for (let i = 0; i < n; i++) {
      const [x, y, z] = trail(i).map((d) => (d * v.strength) / 100);
      const o = 16 * i;
      const hang = [0, 1, 2].map(
        (r) => m[o + 12 + r] + m[o + r] * v.hang[0] + m[o + 4 + r] * v.hang[1] + m[o + 8 + r] * v.hang[2],
      );
      // At rest the weight hangs straight down; it leans by its offset, about the horizontal axis perpendicular to it.
      const out = Math.hypot(x, z);
      if (out > 0) {
        const turn = matrixOf(axisAngle([-z, 0, x], (Math.atan2(out, v.length) * 180) / Math.PI));
        for (let c = 0; c < 16; c += 4) {
          const p = [0, 1, 2].map((r) => m[o + c + r] - (c === 12 ? hang[r] : 0));
          for (let r = 0; r < 3; r++)
            m[o + c + r] =
              turn[3 * r] * p[0] + turn[3 * r + 1] * p[1] + turn[3 * r + 2] * p[2] + (c === 12 ? hang[r] : 0);
        }
      }
      if (v.stretches) m[o + 13] += y;
    }
    return withCopies({ ...copies, matrices: m });
  },
});

type Trail = (i: number) => readonly [number, number, number];
const store = new Map<string, { still: boolean; offsets: Float32Array[] }>();

/** Offset in metres along x, y and z of each copy's weight from below its suspension; null if nothing moves. */
function trailing(v: { swings: number; damping: number }, copies: Copies, context: StepContext): Trail | null {
  if (!context.inputAt || !context.definition) return null;
  const { clock } = context;
  const { frame } = splitTime(clock);
  const { frames } = clock;
  const n = copies.source.length;
  let known = store.get(context.definition);
  if (!known) {
    if (3 * n * frames > MOST)
      throw new StepProblem(
        `Swing would have to keep ${formatCount(n * frames)} places; use fewer copies or a shorter loop.`,
      );
    const offsets = offsetsOf(v, n, context, frame);
    known = { still: offsets.every((o) => o.every((x) => x === 0)), offsets };
    if (store.size > 8) store.delete(store.keys().next().value!);
    store.set(context.definition, known);
  }
  if (known.still) return null;
  const f = Math.floor(frame);
  const [a, b] = [known.offsets[f % frames], known.offsets[(f + 1) % frames]];
  const x = frame - f;
  return (i) => [0, 1, 2].map((k) => a[3 * i + k] + x * (b[3 * i + k] - a[3 * i + k])) as [number, number, number];
}

function offsetsOf(
  v: { swings: number; damping: number },
  n: number,
  context: StepContext,
  frame: number,
): Float32Array[] {
  const { frames } = context.clock;
  const paths = Array.from({ length: frames }, (_, f) => {
    const there = context.inputAt!(f - frame).copies;
    if (!there || there.source.length !== n)
      throw new StepProblem(
        'The number of copies changes over the loop, so that they cannot be followed; keep it still before Swing.',
      );
    return pointsMesh(there).positions;
  });
  const offsets = paths.map(() => new Float32Array(3 * n));
  const drive = new Float64Array(frames);
  const spring = { swings: v.swings, damping: v.damping / 100 };
  for (let c = 0; c < 3 * n; c++) {
    let moves = false;
    for (let f = 0; f < frames; f++) moves = (drive[f] = paths[f][c]) !== drive[0] || moves;
    if (!moves) continue;
    const weight = periodicResponse(drive, 1 / frames, spring);
    for (let f = 0; f < frames; f++) offsets[f][c] = weight[f] - drive[f];
  }
  return offsets;
}
