import type { ColourStop } from '../declare/params';
import { displayToLight } from '../maths/srgb';
import { between, betweenFar } from '../time/colours/space';

/** Entries of a ramp. */
export const RAMP = 256;

export type RampMix = 'oklch' | 'far' | 'rgb' | 'hold';

const kept = new Map<string, Float32Array>();

/**
 * A colour ramp in linear light.
 *
 * @param round whether the first colour follows the last
 * @returns RAMP entries of 3 numbers; entry i stands for i / (RAMP − 1), or for i / RAMP if it is periodic
 */
export function rampOf(stops: readonly ColourStop[], mix: RampMix, round: boolean): Float32Array {
  const key = JSON.stringify([stops, mix, round]);
  let ramp = kept.get(key);
  if (!ramp) {
    if (kept.size >= 200) kept.clear();
    kept.set(
      key,
      (ramp = makeRamp(
        [...stops].sort((a, b) => a.at - b.at),
        mix,
        round,
      )),
    );
  }
  return ramp;
}

function makeRamp(stops: readonly ColourStop[], mix: RampMix, round: boolean): Float32Array {
  const out = new Float32Array(3 * RAMP);
  const last = stops[stops.length - 1];
  const list = round ? [{ ...last, at: last.at - 1 }, ...stops, { ...stops[0], at: stops[0].at + 1 }] : stops;
  const ways = list.slice(1).map((to, i) => {
    const from = list[i];
    if (mix === 'hold') return () => from.colour;
    return mix === 'far' ? betweenFar(from.colour, to.colour) : between(from.colour, to.colour, mix);
  });
  let k = 0;
  for (let i = 0; i < RAMP; i++) {
    const x = i / (round ? RAMP : RAMP - 1);
    while (k < ways.length && list[k + 1].at <= x) k++;
    const hex =
      x < list[0].at
        ? list[0].colour
        : k >= ways.length
          ? list[list.length - 1].colour
          : ways[k]((x - list[k].at) / Math.max(1e-9, list[k + 1].at - list[k].at));
    for (let c = 0; c < 3; c++) out[3 * i + c] = displayToLight(parseInt(hex.slice(1 + 2 * c, 3 + 2 * c), 16) / 255);
  }
  return out;
}

/** A component of a ramp at a height 0…1, linearly interpolated. */
export function readRamp(ramp: Float32Array, height: number, component: number, round: boolean): number {
  const x = height * (round ? RAMP : RAMP - 1);
  const i = Math.min(RAMP - 1, Math.floor(x));
  const j = round ? (i + 1) % RAMP : Math.min(RAMP - 1, i + 1);
  const a = ramp[3 * i + component];
  return a + (ramp[3 * j + component] - a) * (x - i);
}
