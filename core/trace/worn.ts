import type { Surface } from '../finish/surface';
import { hexToLight } from '../maths/srgb';
import type { Hit } from '../pattern/kind';
import { patternedAt, type PatternAt } from '../pattern/pattern-at';
import { absorbed, ABSORBED, NUMBER_AT, SLOPE } from './surfaces';

/** A place as the tracer writes it down; see core/trace/assembly/place.ts. */
class AskedHit implements Hit<number> {
  readonly form: [number, number, number] = [0, 0, 0];
  readonly room: [number, number, number] = [0, 0, 0];
  readonly uv: [number, number] = [0, 0];
  readonly copy: { order: number; id: number; at: [number, number, number] } = { order: 0, id: 0, at: [0, 0, 0] };
  facing = 1;
  depth = 0;
  crevice = 0;

  /** Takes in the place that was met. */
  take(f: Float32Array, whole: Uint32Array, at: number): void {
    this.move(f, at);
    this.facing = f[at + 8];
    this.depth = f[at + 9];
    this.crevice = f[at + 10];
    this.copy.order = f[at + 11];
    this.copy.id = whole[at + 12];
    for (let k = 0; k < 3; k++) this.copy.at[k] = f[at + 13 + k];
  }

  /** Goes to a place of which form, room and surface stand one after the other. */
  move(f: Float32Array, at: number): void {
    for (let k = 0; k < 3; k++) {
      this.form[k] = f[at + k];
      this.room[k] = f[at + 3 + k];
    }
    this.uv[0] = f[at + 6];
    this.uv[1] = f[at + 7];
  }
}

/** Where places beside the one that was met stand, and how far they are from it. */
const [BESIDE_X, BESIDE_Y, APART] = [16, 24, 32];

interface Channelled {
  /** Writes a channel at a place into a surface from number `at` on. */
  readonly write: (floats: Float32Array, at: number, hit: AskedHit, asked: number) => void;
}

/** What surfaces wear in patterns: asked by the tracer at every place that a ray meets. */
export class Worn {
  private readonly list: (readonly Channelled[])[] = [];
  private readonly hit = new AskedHit();

  /** Takes in the patterns of a surface, and gives their number. */
  add(surface: Surface): number {
    const by = new Map(surface.patterns.map((p) => [p.channel, p.layers]));
    const out: Channelled[] = [];
    for (const [channel, layers] of by) {
      const where = NUMBER_AT[channel];
      if (channel === 'bump') out.push({ write: raised(surface.bump, layers) });
      else if (where) out.push({ write: laid(where, surface[channel], layers) });
    }
    const [tint, metres] = [by.get('attenuationColor'), by.get('attenuationDistance')];
    if (tint || metres) out.push({ write: dimming(surface, tint ?? [], metres ?? []) });
    this.list.push(out);
    return this.list.length - 1;
  }

  /**
   * @param floats memory as numbers of 4 bytes; the place that is asked about from `asked` on, the surface from `at` on
   */
  wear(patterned: number, floats: Float32Array, whole: Uint32Array, asked: number, at: number): void {
    this.hit.take(floats, whole, asked);
    for (const c of this.list[patterned]) c.write(floats, at, this.hit, asked);
  }
}

/** A channel with its patterns, on what the surface has there already: a copy may have brought its own. */
function laid(
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

/** How a surface rises about a place, by how much higher it is a little beside. */
function raised(even: number, layers: readonly PatternAt[]): Channelled['write'] {
  const base = [even];
  return (floats, at, hit, asked) => {
    const apart = floats[asked + APART];
    if (!(apart > 0)) return;
    const [here] = patternedAt(base, layers, hit);
    [BESIDE_X, BESIDE_Y].forEach((from, k) => {
      hit.move(floats, asked + from);
      floats[at + SLOPE + k] = (patternedAt(base, layers, hit)[0] - here) / apart;
    });
    hit.move(floats, asked);
  };
}

function dimming(s: Surface, tint: readonly PatternAt[], metres: readonly PatternAt[]): Channelled['write'] {
  const [colour, distance] = [hexToLight(s.attenuationColor), [s.attenuationDistance]];
  return (floats, at, hit) => {
    const c = patternedAt(colour, tint, hit);
    const [d] = patternedAt(distance, metres, hit);
    floats.set(absorbed(c, d, floats[at + NUMBER_AT.thickness![0]]), at + ABSORBED);
  };
}
