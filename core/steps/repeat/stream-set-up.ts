import { areasOf } from '../../copies/areas';
import { flattened } from '../../copies/copies';
import { curlCurrent } from '../../noise/current';
import { curlNoise, vectorNoise } from '../../noise/sample';
import type { NoiseSettings } from '../../noise/noise';
import { faceCount, type Mesh } from '../../shape/mesh';
import { chancesOf, fromCurves, fromShape, fromSurface, within, type Origin } from '../../stream/births';
import { scale, vec3, type Vec3 } from '../../maths/vec3';
import { level, surface, type Hits } from '../../stream/landing';
import { carriedPaths, freePaths, type Birth, type Paths } from '../../stream/paths';
import { everyFrames, perLoop, type Schedule } from '../../stream/schedule';
import { splitTime } from '../../time/phase';
import { formatCount, StepProblem, type StepContext } from '../step';
import type { StreamValues } from './stream-params';

/** Everything that does not change from frame to frame: births and whole paths. */
export interface Stream {
  readonly schedule: Schedule;
  readonly paths: Paths;
  /** Age in loops at which each particle lands; Infinity for never. */
  readonly lands: Float64Array;
  /** Lifetime of each in loops, its rest on the ground included. */
  readonly lives: Float64Array;
  /** The longest lifetime. */
  readonly longest: number;
  /** Random numbers of each: size factor, tumbling axis (3 numbers), initial phase and speed. */
  readonly sizes: Float32Array;
  readonly axes: Float32Array;
  readonly phases: Float32Array;
  readonly paces: Float32Array;
}

const MOST_SLOTS = 1_000_000;
/** Numbers that paths may take: 480 MB. */
const MOST_STATES = 120_000_000;
/** Values that are sampled at a particle's birth; they may move over the loop. */
const AT_BIRTH = ['source', 'width', 'direction', 'cone', 'speed', 'speedSpread'] as const;

const store = new Map<string, Stream>();

/** The stream of a step, computed once for all frames. */
export function streamOf(v: StreamValues, context: StepContext): Stream {
  const key = context.definition;
  const known = key ? store.get(key) : undefined;
  if (known) return known;
  const made = setUp(v, context);
  if (key) {
    if (store.size >= 6) store.delete(store.keys().next().value!);
    store.set(key, made);
  }
  return made;
}

function setUp(v: StreamValues, context: StepContext): Stream {
  const { frames } = context.clock;
  const schedule = v.by === 'count' ? perLoop(v.count) : everyFrames(v.every, frames, v.burst);
  const { slots } = schedule;
  if (slots * Math.max(1, v.life / schedule.loops) > MOST_SLOTS)
    throw new StepProblem(
      `This stream would have ${formatCount(slots * Math.max(1, v.life))} particles at a time; the most is ` +
        `${formatCount(MOST_SLOTS)}. Release fewer, or let them live shorter.`,
    );
  const chances = chancesOf(v.seed);
  const origin = originOf(v, context);
  const changing = context.valuesAt !== undefined && context.moves?.(AT_BIRTH) === true;
  const births: Birth[] = [];
  for (let slot = 0; slot < slots; slot++) {
    const chance = chances(slot);
    const time = schedule.birth(slot);
    const own = changing ? ({ ...v, ...context.valuesAt!(time, AT_BIRTH) } as StreamValues) : v;
    const { at, out } = origin(own, time, chance);
    const way = within(v.outwards ? out : vec3((k) => own.direction[k]), own.cone, chance(11), chance(12));
    const speed = own.speed * (1 - (own.speedSpread / 100) * chance(13));
    births.push({
      time,
      at,
      flight: { speed: scale(way, speed), gravity: [0, -v.fall, 0], drag: v.drag },
      life: v.life,
    });
  }
  const fastest = Math.abs(v.speed) + Math.abs(v.fall) * v.life + Math.abs(v.flow);
  // Four states while it crosses one swirl of the current.
  const fine = v.current === 'none' ? 48 : Math.max(48, Math.min(192, Math.ceil((4 * fastest) / v.flowScale)));
  if (v.current !== 'none' && 6 * slots * (fine * v.life + 4) > MOST_STATES)
    throw new StepProblem(
      'The paths of these particles would take up too much memory; release fewer, let them live shorter, or ' +
        'use a larger scale of the current.',
    );
  const paths = v.current === 'none' ? freePaths(births) : carriedPaths(births, currentOf(v, frames), fine);
  const lands = landings(v, births, paths, fine, context);
  const lives = Float64Array.from(births, (_, i) => {
    const life = v.life * (1 - (v.lifeSpread / 100) * chances(i)(14));
    return lands[i] < life ? lands[i] + v.stays : life;
  });
  const axes = new Float32Array(3 * slots);
  for (let i = 0; i < slots; i++) axes.set(within([0, 1, 0], 180, chances(i)(31), chances(i)(32)), 3 * i);
  const drawn = (salt: number) => Float32Array.from({ length: slots }, (_, i) => chances(i)(salt));
  return {
    schedule,
    paths,
    lands,
    lives,
    longest: lives.reduce((a, b) => Math.max(a, b), 0),
    sizes: drawn(21),
    axes,
    phases: drawn(33),
    paces: drawn(34),
  };
}

function currentOf(v: StreamValues, frames: number): (points: Float32Array, time: number) => Float32Array {
  const settings: NoiseSettings = {
    kind: v.flowNoise,
    scale: v.flowScale,
    stretch: [1, 1, 1],
    octaves: v.flowOctaves,
    contrast: 1,
    brightness: 0,
    low: -5,
    high: 5,
    absolute: false,
    invert: false,
    seed: v.flowSeed,
    rate: v.flowRate,
  };
  const swirl = { scale: v.flowScale, octaves: v.flowOctaves, seed: v.flowSeed, rate: v.flowRate };
  return (points, time) => {
    const clock = { frame: time * frames, frames };
    // Gradient noise has closed-form derivatives; the curl of other kinds is taken by differences.
    const out =
      v.current === 'plain'
        ? vectorNoise(settings, clock, points)
        : v.flowNoise === 'gradient'
          ? curlCurrent(swirl, clock)(points)
          : curlNoise(settings, clock, points);
    for (let i = 0; i < out.length; i++) out[i] *= v.flow;
    return out;
  };
}

/** Where particles are released. Other ribbons are evaluated at the frame of the birth. */
function originOf(
  v: StreamValues,
  context: StepContext,
): (own: StreamValues, time: number, chance: (salt: number) => number) => Origin {
  if (v.from !== 'curve' && v.from !== 'surface') {
    const kind = v.from;
    return (own, _time, chance) => fromShape(kind, [...own.source] as Vec3, own.width, chance);
  }
  const { frame, cycles } = splitTime(context.clock);
  const { frames } = context.clock;
  const known = new Map<number, Mesh>();
  const at = (time: number): Mesh => {
    const f = Math.round(time * frames);
    let mesh = known.get(f);
    if (!mesh) {
      const other = context.otherAt?.('other', f - frame - cycles * frames) ?? context.other?.('other');
      if (!other) throw new StepProblem('The ribbon that releases particles is missing; name one under “Released by”.');
      known.set(f, (mesh = flattened(other)));
    }
    return mesh;
  };
  const first = at(0);
  if (v.from === 'curve') {
    if (!first.connectivity.curves)
      throw new StepProblem(
        'The ribbon that releases particles has no curves; name one that is a curve, or release them from its surface.',
      );
    return (_own, time, chance) => fromCurves(at(time), chance)!;
  }
  if (faceCount(first.connectivity) === 0)
    throw new StepProblem(
      'The ribbon that releases particles has no faces; name one that has, or release them from its curves.',
    );
  const rest = areasOf(first);
  const other = new Map<Mesh, ReturnType<typeof areasOf>>();
  return (_own, time, chance) => {
    const mesh = at(time);
    if (mesh.connectivity === first.connectivity) return fromSurface(mesh, rest, chance)!;
    let areas = other.get(mesh);
    if (!areas) other.set(mesh, (areas = areasOf(mesh)));
    return fromSurface(mesh, areas, chance) ?? { at: [0, 0, 0], out: [0, 1, 0] };
  };
}

function landings(
  v: StreamValues,
  births: readonly Birth[],
  paths: Paths,
  fine: number,
  context: StepContext,
): Float64Array {
  const lands = new Float64Array(births.length).fill(Infinity);
  let hits: Hits;
  if (v.ground === 'nothing') return lands;
  if (v.ground === 'level') hits = level(v.floor);
  else {
    const ground = context.otherAt?.('landing', -context.clock.frame) ?? context.other?.('landing');
    if (!ground) throw new StepProblem('The ribbon to land on is missing; name one, or let particles land on a floor.');
    hits = surface(flattened(ground));
  }
  const steps = Math.ceil(fine * v.life);
  const [a, b] = [new Float64Array(6), new Float64Array(6)];
  for (let i = 0; i < births.length; i++) {
    paths.at(i, 0, a);
    for (let s = 1; s <= steps; s++) {
      const [from, to] = [((s - 1) * v.life) / steps, (s * v.life) / steps];
      paths.at(i, to, b);
      const share = hits(a, b);
      if (share <= 1) {
        lands[i] = settled(paths, i, from, to, hits, share);
        break;
      }
      a.set(b);
    }
  }
  return lands;
}

/** The age at which a path meets the ground: the interval is halved until it is practically straight. */
function settled(paths: Paths, i: number, from: number, to: number, hits: Hits, share: number): number {
  const [a, b] = [new Float64Array(6), new Float64Array(6)];
  let s = share;
  for (let n = 0; n < 12; n++) {
    const middle = (from + to) / 2;
    paths.at(i, from, a);
    paths.at(i, middle, b);
    const early = hits(a, b);
    if (early <= 1) [to, s] = [middle, early];
    else {
      paths.at(i, to, a);
      const late = hits(b, a);
      if (late > 1) break;
      [from, s] = [middle, late];
    }
  }
  return from + s * (to - from);
}
