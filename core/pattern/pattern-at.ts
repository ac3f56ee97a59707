import { widened } from '../declare/widen';
import type { Params } from '../declare/params';
import { assetOf } from '../assets/store';
import { noiseField, type NoiseSettings } from '../noise/noise';
import type { Clock } from '../time/loop';
import type { Hit, PatternInputs, PatternKind, Triple } from './kind';
import { patterns } from './kinds/index';
import type { LayerHow } from './layer';
import { mix, plainMaths, saturate, type Maths } from './maths';
import { readRamp } from './ramp';
import { brightnessOf, readPixel } from './picture';

/** A layer of a pattern at a moment, as plain data. */
export interface PatternAt {
  readonly kind: string;
  /** The kind's own parameters, evaluated. */
  readonly values: Readonly<Record<string, unknown>>;
  /** The noise it reads, and the moment at which it reads it. */
  readonly noise?: NoiseSettings;
  /** The picture it shows: its SHA-256, and whether in its own colours. */
  readonly image?: { readonly file: string; readonly own: boolean };
  readonly clock: Clock;
  readonly how: LayerHow;
  /** 0…1. */
  readonly amount: number;
  readonly round: boolean;
  readonly times: number;
  readonly shift: number;
  /** What it shows: numbers in the channel's unit, or the entries of a ramp in linear light. */
  readonly to:
    | { readonly type: 'number'; readonly low: number; readonly high: number }
    | { readonly type: 'colour'; readonly ramp: Float32Array };
}

/** What a shader is compiled for: every choice, no number. */
export function structureOf(p: PatternAt): string {
  // Another picture is another texture, not another shader.
  const chosen = Object.entries(p.values).filter(
    ([, x]) => (typeof x === 'string' && x !== p.image?.file) || typeof x === 'boolean',
  );
  const noise = p.noise ? `${p.noise.kind} ${p.noise.metric ?? ''}` : '';
  return `${p.kind}:${chosen.map(([, x]) => x).join()};${noise};${p.how}${p.round ? ' round' : ''} ${p.to.type}`;
}

/** Numbers of a layer in the order in which `withNumbers` takes them back. */
export function numbersOf(kind: PatternKind, values: Readonly<Record<string, unknown>>): number[] {
  return Object.keys(kind.params).flatMap((name) => {
    const x = values[name];
    return typeof x === 'number' ? [x] : Array.isArray(x) && typeof x[0] === 'number' ? (x as number[]) : [];
  });
}

/** Values with their numbers replaced by those of another type, in order. */
export function withNumbers<N>(
  kind: PatternKind,
  values: Readonly<Record<string, unknown>>,
  numbers: readonly N[],
): PatternInputs<Params, N> {
  let i = 0;
  const next = (x: unknown) =>
    typeof x === 'number' ? numbers[i++] : Array.isArray(x) ? x.map(() => numbers[i++]) : x;
  return widened(Object.fromEntries(Object.keys(kind.params).map((name) => [name, next(values[name])])));
}

/** A layer prepared for a type of number. */
export interface Layer<N> {
  readonly how: LayerHow;
  readonly amount: N;
  /** Height of the pattern, 0…1, after repetition and shift. */
  readonly height: N;
  /** What it shows at that height. */
  to(height: N): N;
}

/** Maps a height to 0…1: repeated, shifted, and clamped or wrapped. */
export function alongRamp<N>(m: Maths<N>, height: N, times: N, shift: N, round: boolean): N {
  const x = m.add(m.mul(height, times), shift);
  return round ? m.fract(x) : saturate(m, x);
}

/** Applies layers to a value, in order. */
export function layered<N>(m: Maths<N>, base: N, layers: readonly Layer<N>[]): N {
  let value = base;
  let share: N | null = null;
  for (const { how, amount, height, to } of layers) {
    if (how === 'mask') {
      const shown = mix(m, m.number(1), height, amount);
      share = share === null ? shown : m.mul(share, shown);
      continue;
    }
    const weight: N = share === null ? amount : m.mul(amount, share);
    const own = to(height);
    value =
      how === 'over'
        ? mix(m, value, own, weight)
        : how === 'add'
          ? m.add(value, m.mul(own, weight))
          : mix(m, value, m.mul(value, own), weight);
    share = null;
  }
  return value;
}

/** A layer prepared for many points. */
interface Ready {
  /** Its height, 0…1. */
  readonly height: (hit: Hit<number>) => number;
  /** The picture's own colour in linear light. */
  readonly pixel: ((hit: Hit<number>) => readonly number[]) | null;
}

const made = new WeakMap<PatternAt, Ready>();

function ready(p: PatternAt): Ready {
  let known = made.get(p);
  if (!known) made.set(p, (known = makeReady(p)));
  return known;
}

function makeReady(p: PatternAt): Ready {
  const kind = patterns.get(p.kind);
  const inputs = withNumbers(kind, p.values, numbersOf(kind, p.values));
  const field = p.noise ? noiseField(p.noise, p.clock) : () => 0;
  const pixel = (hit: Hit<number>): readonly number[] => {
    const asset = assetOf(p.image!.file);
    if (asset?.type !== 'image') return [0, 0, 0];
    const [u, v] = kind.image!.at(plainMaths, hit, inputs);
    return readPixel(asset.image, u, v);
  };
  const plain = ([x, y, z]: Triple<number>) => field(x, y, z);
  return {
    height: p.image
      ? (hit) => {
          const height = kind.height(plainMaths, hit, inputs, () => brightnessOf(pixel(hit)));
          return alongRamp(plainMaths, height, p.times, p.shift, p.round);
        }
      : (hit) => alongRamp(plainMaths, kind.height(plainMaths, hit, inputs, plain), p.times, p.shift, p.round),
    pixel: p.image?.own ? pixel : null,
  };
}

/** Height of a layer at a point, 0…1, in plain numbers. */
export function heightAt(p: PatternAt, hit: Hit<number>): number {
  return ready(p).height(hit);
}

/**
 * A channel at a surface point: the reference for renderers, and what true light evaluates at every hit.
 *
 * @param base its uniform value: one number, or three of a colour in linear light
 */
export function patternedAt(base: readonly number[], layers: readonly PatternAt[], hit: Hit<number>): number[] {
  const value = base.slice();
  // Same as `layered`, without allocating.
  let share = 1;
  for (let i = 0; i < layers.length; i++) {
    const p = layers[i];
    const { height, pixel } = ready(p);
    const h = height(hit);
    if (p.how === 'mask') {
      share *= 1 + (h - 1) * p.amount;
      continue;
    }
    const weight = p.amount * share;
    const shown = pixel?.(hit);
    for (let k = 0; k < value.length; k++) {
      const own =
        p.to.type === 'number'
          ? p.to.low + (p.to.high - p.to.low) * h
          : (shown?.[k] ?? readRamp(p.to.ramp, h, k, p.round));
      const v = value[k];
      value[k] =
        p.how === 'over' ? v + (own - v) * weight : p.how === 'add' ? v + own * weight : v + (v * own - v) * weight;
    }
    share = 1;
  }
  return value;
}
