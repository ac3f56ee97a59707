import { checkCost } from '../allowance';
import { choice, type Evaluated, number, seed, toggle } from '../../declare/params';
import { filtered, repeatOver, type Places } from '../../copies/places';
import { copyCount, withCopies } from '../../copies/copies';
import { noiseField } from '../../noise/noise';
import type { Mesh } from '../../shape/mesh';
import { axisAngle, multiply, type Quaternion } from '../../maths/quaternion';
import { chanceOf } from '../../time/chance';
import { formatCount, StepProblem, type StepContext } from '../step';
import { namedBy, sharesOf, sourceParams } from './sources';

/** Most copies: a million matrices take 64 MB. */
export const MAX_COPIES = 1_000_000;

/** Parameters that all repeats share. */
export const repeatParams = {
  later: number(
    'Each later',
    0,
    'Frames by which each copy plays later than the one before; below 0 earlier. Every motion before this ' +
      'step is shifted, and still closes.',
    { unit: 'frames', time: true, min: -20_000, max: 20_000, soft: [-12, 12], integer: true, moves: false },
  ),
  takes: choice(
    'Sources',
    'own',
    [
      { value: 'own', title: 'This ribbon' },
      { value: 'turn', title: 'In turn' },
      { value: 'chance', title: 'By chance' },
      { value: 'patches', title: 'In patches' },
    ],
    'What is copied: this ribbon alone, or others besides it, dealt out in turn, by chance or in patches.',
    { more: true },
  ),
  ...sourceParams,
  patchSize: number('Patch size', 2, 'Size of the patches in which the ribbons are dealt out.', {
    unit: 'm',
    min: 0.001,
    max: 1000,
    soft: [0.2, 8],
    shownWhen: { param: 'takes', is: ['patches'] },
  }),
  ownFinish: toggle(
    'Own finishes',
    true,
    'Copies of other ribbons keep the finish of their own ribbon; otherwise all have that of this one.',
    { more: true, shownWhen: { param: 'takes', is: ['turn', 'chance', 'patches'] } },
  ),
  quarters: choice(
    'Quarter turns',
    'none',
    [
      { value: 'none', title: 'None' },
      { value: 'x', title: 'About X' },
      { value: 'y', title: 'About Y' },
      { value: 'z', title: 'About Z' },
    ],
    'Turns each copy by 0, 90, 180 or 270° by chance.',
    { more: true },
  ),
  seed: seed('Seed', 0, 'A different number gives different random values.', 'chance', { moves: false }),
  draftShare: number('In the draft', 100, 'Share of the copies that the draft shows.', {
    unit: '%',
    min: 0,
    max: 100,
    soft: [0, 100],
    step: 1,
    moves: false,
    more: true,
  }),
} as const;

export type RepeatValues = Evaluated<typeof repeatParams>;

export function checkCopies(count: number, remedy: string): void {
  if (count > MAX_COPIES)
    throw new StepProblem(
      `This would make ${formatCount(count)} copies; the most is ${formatCount(MAX_COPIES)}. ${remedy}`,
    );
  checkCost('copies', count, remedy);
}

/** Whether copies play later than others, so that the chain is read at other moments. */
export function repeatsLater(v: RepeatValues): boolean {
  return v.later !== 0;
}

/** The number by which a place draws its random values. */
function idOf({ ids }: Places): (i: number) => number {
  return ids ? (i) => ids[i] : (i) => i;
}

/** Which of the ribbons stands at each place. */
function dealt(
  v: RepeatValues,
  places: Places,
  named: readonly string[],
  context: StepContext,
): Uint16Array | undefined {
  const n = places.at.length / 3;
  const count = 1 + named.length;
  if (count < 2 || v.takes === 'own') return undefined;
  const out = new Uint16Array(n);
  const id = idOf(places);
  if (v.takes === 'turn') for (let i = 0; i < n; i++) out[i] = id(i) % count;
  else if (v.takes === 'chance') {
    const shares = sharesOf(v, named);
    const sum = shares.reduce((a, b) => a + b, 0);
    if (sum === 0) return undefined;
    const chance = chanceOf(v.seed + 17);
    for (let i = 0; i < n; i++) {
      let x = chance(id(i)) * sum;
      let k = 0;
      while (k + 1 < count && x >= shares[k]) x -= shares[k++];
      out[i] = k;
    }
  } else {
    const field = noiseField(
      {
        kind: 'gradient',
        scale: v.patchSize,
        stretch: [1, 1, 1],
        octaves: 1,
        contrast: 1,
        brightness: 0,
        low: -1,
        high: 1,
        absolute: false,
        invert: false,
        seed: v.seed,
        rate: 0,
      },
      context.clock,
    );
    // Gradient noise concentrates near its mean, so it is equalised before it is divided into equal parts.
    for (let i = 0; i < n; i++)
      out[i] = Math.max(
        0,
        Math.min(
          count - 1,
          Math.floor((0.5 + 0.9 * field(places.at[3 * i], places.at[3 * i + 1], places.at[3 * i + 2])) * count),
        ),
      );
  }
  return out;
}

const QUARTERS: Record<'x' | 'y' | 'z', readonly Quaternion[]> = {
  x: [0, 90, 180, 270].map((a) => axisAngle([1, 0, 0], a)),
  y: [0, 90, 180, 270].map((a) => axisAngle([0, 1, 0], a)),
  z: [0, 90, 180, 270].map((a) => axisAngle([0, 0, 1], a)),
};

function quartered(v: RepeatValues, places: Places): Places {
  if (v.quarters === 'none') return places;
  const n = places.at.length / 3;
  const chance = chanceOf(v.seed + 31);
  const id = idOf(places);
  const turns = new Float32Array(4 * n);
  for (let i = 0; i < n; i++) {
    const by = QUARTERS[v.quarters][Math.floor(4 * chance(id(i)))];
    const { turns: t } = places;
    turns.set(t ? multiply([t[4 * i], t[4 * i + 1], t[4 * i + 2], t[4 * i + 3]], by) : by, 4 * i);
  }
  return { ...places, turns };
}

/** The sources of `n` copies, which of them each shows, and by how much each is late, in loops. */
interface Dealt {
  readonly sources: Mesh[];
  readonly which: Uint16Array;
  readonly late?: Float32Array;
}

/**
 * Each ribbon at each moment is one source; copies whose moments coincide share it. A delay beyond a loop is taken
 * modulo the loop, because everything before this step closes or reports that it does not.
 *
 * @param kind which ribbon each copy shows, from 0 for the input; absent, all show it
 */
function sourcesOf(
  v: RepeatValues,
  input: Mesh,
  n: number,
  kind: Uint16Array | undefined,
  named: readonly string[],
  context: StepContext,
  moment?: (i: number) => number,
): Dealt {
  const delayed = v.later !== 0 || moment !== undefined;
  const sources: Mesh[] = [];
  const known = new Map<string, number>();
  const which = new Uint16Array(n);
  // Without delays, sources are numbered in the order they are named.
  if (!delayed)
    [input, ...named.map((name) => context.otherAt!(name, 0)!)].forEach((s, k) =>
      known.set(`${k}/0`, sources.push(s) - 1),
    );
  const frames = context.clock.frames;
  const late = delayed && context.inputAt ? new Float32Array(n) : undefined;
  const shiftOf = (i: number) => (!late ? 0 : moment ? moment(i) - context.clock.frame : -((i * v.later) % frames));
  for (let i = 0; i < n; i++) {
    const k = kind ? kind[i] : 0;
    const shift = shiftOf(i);
    if (late) late[i] = -shift / frames;
    const key = `${k}/${shift}`;
    let source = known.get(key);
    if (source === undefined) {
      if (sources.length >= 65_535)
        throw new StepProblem(
          `There would be more than ${formatCount(65_535)} different shapes among the copies; use fewer copies or fewer frames.`,
        );
      source = sources.push((k === 0 ? context.inputAt?.(shift) : context.otherAt?.(named[k - 1], shift)) ?? input) - 1;
      known.set(key, source);
    }
    which[i] = source;
  }
  return { sources, which, ...(late ? { late } : {}) };
}

/**
 * Places the input and other ribbons: the last stage of every repeat.
 *
 * @param moment the frame, unwrapped, at which the shape at a place is taken; if absent, each is `later` than the one
 * before
 */
export function repeated(
  v: RepeatValues,
  input: Mesh,
  places: Places,
  context: StepContext,
  moment?: (i: number) => number,
): Mesh {
  const n = places.at.length / 3;
  const named = v.takes === 'own' ? [] : namedBy(context);
  if (v.takes !== 'own' && named.length === 0)
    throw new StepProblem(
      'Several ribbons are to be copied, and no other is named; name a second one, or choose “This ribbon”.',
    );
  const inner = input.copies ? copyCount(input.copies) : 1;
  checkCopies(n * inner, 'Use fewer.');
  const kind = dealt(v, places, named, context);
  const stand = quartered(v, places);
  if (!kind && v.later === 0 && !moment && n > 0) return drafted(v, repeatOver(stand, { sources: [input] }), context);
  const { sources, which, late } = sourcesOf(v, input, n, kind, named, context, moment);
  if (n === 0)
    return withCopies({
      sources: [input.copies ? input.copies.sources[0] : input],
      source: new Uint16Array(0),
      matrices: new Float32Array(0),
      order: new Float32Array(0),
      places: places.places ?? 0,
    });
  const mesh = repeatOver(stand, { sources, ...(sources.length > 1 ? { which } : {}), ...(late ? { late } : {}) });
  return drafted(v, kind && v.ownFinish ? finished(mesh, kind, named, context) : mesh, context);
}

/** Copies of other ribbons get the material of their own ribbon, unless they already have another one's. */
function finished(mesh: Mesh, kind: Uint16Array, named: readonly string[], context: StepContext): Mesh {
  const copies = mesh.copies!;
  const materialRibbons = [...(copies.materialRibbons ?? [])];
  const worn = named.map((name) => {
    const ribbon = context.ribbonOf?.(name);
    if (ribbon === undefined) return 0;
    const at = materialRibbons.indexOf(ribbon);
    return at >= 0 ? at + 1 : materialRibbons.push(ribbon);
  });
  const materialIndices = copies.materialIndices?.slice() ?? new Uint8Array(copies.source.length);
  for (let i = 0; i < materialIndices.length; i++) {
    const k = kind[copies.group ? copies.group[i] : i];
    if (materialIndices[i] === 0 && k > 0) materialIndices[i] = worn[k - 1];
  }
  return withCopies({ ...copies, materialIndices, materialRibbons });
}

/** Draft detail shows only the requested fraction of the copies. */
function drafted(v: RepeatValues, mesh: Mesh, context: StepContext): Mesh {
  if (context.detail !== 'draft' || v.draftShare >= 100) return mesh;
  const chance = chanceOf(v.seed + 57);
  // By place rather than by copy: if copies move on, the draft then closes like the whole.
  const { order } = mesh.copies!;
  return withCopies(filtered(mesh.copies!, (i) => 100 * chance(Math.floor(order[i])) < v.draftShare));
}
