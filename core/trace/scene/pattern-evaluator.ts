import type { Surface } from '../../finish/surface';
import { hexToLight } from '../../maths/srgb';
import type { Hit } from '../../pattern/kind';
import { patternedAt, type PatternAt } from '../../pattern/pattern-at';
import { absorptionCoefficients, ABSORBED, NUMBER_AT, SLOPE } from './surfaces';

/** A query as the tracer lays it out; see core/trace/assembly/paths/shading-point.ts. */
class QueriedHit implements Hit<number> {
  readonly form: [number, number, number] = [0, 0, 0];
  readonly room: [number, number, number] = [0, 0, 0];
  readonly uv: [number, number] = [0, 0];
  readonly copy: { order: number; id: number; at: [number, number, number] } = { order: 0, id: 0, at: [0, 0, 0] };
  facing = 1;
  depth = 0;
  occlusion = 0;

  /** Reads the query. */
  take(f: Float32Array, whole: Uint32Array, at: number): void {
    this.move(f, at);
    this.facing = f[at + 8];
    this.depth = f[at + 9];
    this.occlusion = f[at + 10];
    this.copy.order = f[at + 11];
    this.copy.id = whole[at + 12];
    for (let k = 0; k < 3; k++) this.copy.at[k] = f[at + 13 + k];
  }

  /** Moves to a position given in object space, world space and uv. */
  move(f: Float32Array, at: number): void {
    for (let k = 0; k < 3; k++) {
      this.form[k] = f[at + k];
      this.room[k] = f[at + 3 + k];
    }
    this.uv[0] = f[at + 6];
    this.uv[1] = f[at + 7];
  }
}

/** Offsets of the two displaced positions, and of their distance in metres. */
const [OFFSET_X, OFFSET_Y, STEP] = [16, 24, 32];

interface Channelled {
  /** Writes a channel into the surface at `at`. */
  readonly write: (floats: Float32Array, at: number, hit: QueriedHit, query: number) => void;
}

/** Evaluates the patterns of surfaces for the tracer, at every hit that has some. */
export class PatternEvaluator {
  private readonly list: (readonly Channelled[])[] = [];
  private readonly hit = new QueriedHit();

  /** Registers the patterns of a surface and returns their index. */
  add(surface: Surface): number {
    const by = new Map(surface.patterns.map((p) => [p.channel, p.layers]));
    const out: Channelled[] = [];
    for (const [channel, layers] of by) {
      const where = NUMBER_AT[channel];
      if (channel === 'bump') out.push({ write: bumpSlope(surface.bump, layers) });
      else if (where) out.push({ write: patternedChannel(where, surface[channel], layers) });
    }
    const [tint, metres] = [by.get('attenuationColor'), by.get('attenuationDistance')];
    if (tint || metres) out.push({ write: absorption(surface, tint ?? [], metres ?? []) });
    this.list.push(out);
    return this.list.length - 1;
  }

  /** @param floats memory as 4-byte numbers; the query starts at `query`, the surface at `at` */
  evaluate(patterned: number, floats: Float32Array, whole: Uint32Array, query: number, at: number): void {
    this.hit.take(floats, whole, query);
    for (const c of this.list[patterned]) c.write(floats, at, this.hit, query);
  }
}

/** A channel with patterns, over the value the surface has: a copy may have overridden it. */
function patternedChannel(
  [slot, factor]: readonly [number, number],
  even: unknown,
  layers: readonly PatternAt[],
): Channelled['write'] {
  const width = typeof even === 'string' ? 3 : 1;
  const base = new Array<number>(width).fill(0);
  return (floats, at, hit) => {
    for (let k = 0; k < width; k++) base[k] = floats[at + slot + k] / factor;
    const value = patternedAt(base, layers, hit);
    for (let k = 0; k < width; k++) floats[at + slot + k] = value[k] * factor;
  };
}

/** Bump slopes by finite differences. */
function bumpSlope(even: number, layers: readonly PatternAt[]): Channelled['write'] {
  const base = [even];
  return (floats, at, hit, query) => {
    const apart = floats[query + STEP];
    if (!(apart > 0)) return;
    const [here] = patternedAt(base, layers, hit);
    [OFFSET_X, OFFSET_Y].forEach((from, k) => {
      hit.move(floats, query + from);
      floats[at + SLOPE + k] = (patternedAt(base, layers, hit)[0] - here) / apart;
    });
    hit.move(floats, query);
  };
}

function absorption(s: Surface, tint: readonly PatternAt[], metres: readonly PatternAt[]): Channelled['write'] {
  const [colour, distance] = [hexToLight(s.attenuationColor), [s.attenuationDistance]];
  return (floats, at, hit) => {
    const c = patternedAt(colour, tint, hit);
    const [d] = patternedAt(distance, metres, hit);
    floats.set(absorptionCoefficients(c, d, floats[at + NUMBER_AT.thickness![0]]), at + ABSORBED);
  };
}
