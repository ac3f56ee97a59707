import type { Bounces, TraceSettings } from '@maypole/core/trace/paths/tracer';
import { create } from 'zustand';
import { keepText, keptJson } from './browser-store';

/** Settings of pictures in true light, in this browser; no file has them. */
export interface TrueLight {
  /** Least and most samples of a pixel. */
  readonly least: number;
  readonly most: number;
  /** Error at which a pixel has converged, in hundredths; 0 for a fixed number of samples. */
  readonly error: number;
  readonly bounces: Bounces;
  /** Firefly clamp; null for no limit. */
  readonly brightest: number | null;
  readonly denoise: boolean;
  /** Shows sample counts in place of the picture. */
  readonly map: boolean;
  /** Shows quick light left of a line. */
  readonly compare: boolean;
}

type Effort = Pick<TrueLight, 'least' | 'most' | 'error' | 'bounces' | 'denoise'>;

/** Preset efforts. */
export const EFFORTS = [
  {
    id: 'look',
    title: 'Look',
    help: 'For decisions: clean in seconds',
    effort: {
      least: 8,
      most: 64,
      error: 6,
      bounces: { diffuse: 4, glossy: 6, transmission: 12, air: 2 },
      denoise: true,
    },
  },
  {
    id: 'good',
    title: 'Good',
    help: 'For a screen: what is difficult gets many samples',
    effort: {
      least: 16,
      most: 512,
      error: 2,
      bounces: { diffuse: 8, glossy: 8, transmission: 16, air: 8 },
      denoise: true,
    },
  },
  {
    id: 'wall',
    title: 'Wall',
    help: 'For a large wall: no grain, and nothing smoothed away',
    effort: {
      least: 64,
      most: 4096,
      error: 0.7,
      bounces: { diffuse: 12, glossy: 16, transmission: 32, air: 64 },
      denoise: false,
    },
  },
] as const satisfies readonly { id: string; title: string; help: string; effort: Effort }[];

const KEY = 'maypole-true-light';
const USUAL: TrueLight = { ...EFFORTS[0].effort, brightest: 20, map: false, compare: false };

/** The preset that settings equal; null if they are custom. */
export function effortOf(s: Effort): string | null {
  const same = ({ effort: e }: (typeof EFFORTS)[number]) =>
    e.least === s.least &&
    e.most === s.most &&
    e.error === s.error &&
    e.denoise === s.denoise &&
    e.bounces.diffuse === s.bounces.diffuse &&
    e.bounces.glossy === s.bounces.glossy &&
    e.bounces.transmission === s.bounces.transmission &&
    e.bounces.air === s.bounces.air;
  return EFFORTS.find(same)?.id ?? null;
}

/** Haze bounces of a preset stored before they existed. */
function airOf(diffuse: unknown): number {
  return (EFFORTS.find(({ effort }) => effort.bounces.diffuse === diffuse) ?? EFFORTS[0]).effort.bounces.air;
}

/** Settings stored by a browser, as far as they are valid; defaults otherwise. */
export function soundSettings(stored: unknown): TrueLight {
  const s = (typeof stored === 'object' && stored !== null ? stored : {}) as Record<string, unknown>;
  const number = (x: unknown, usual: number, low: number, high: number) =>
    typeof x === 'number' && x >= low && x <= high ? x : usual;
  const b = (typeof s.bounces === 'object' && s.bounces !== null ? s.bounces : {}) as Record<string, unknown>;
  // Bounces that were stored under earlier names.
  const diffuse = b.diffuse ?? b.matt;
  const transmission = b.transmission ?? b.glass;
  const least = Math.round(number(s.least, USUAL.least, 1, 65_536));
  return {
    least,
    most: Math.max(least, Math.round(number(s.most, USUAL.most, 1, 65_536))),
    error: number(s.error, USUAL.error, 0, 100),
    bounces: {
      diffuse: Math.round(number(diffuse, USUAL.bounces.diffuse, 0, 64)),
      glossy: Math.round(number(b.glossy, USUAL.bounces.glossy, 0, 64)),
      transmission: Math.round(number(transmission, USUAL.bounces.transmission, 0, 64)),
      air: Math.round(number(b.air, airOf(diffuse), 0, 64)),
    },
    brightest: s.brightest === null ? null : number(s.brightest, USUAL.brightest!, 0.01, 1e6),
    denoise: typeof s.denoise === 'boolean' ? s.denoise : USUAL.denoise,
    // Temporary views are not restored.
    map: false,
    compare: false,
  };
}

export const useTrueLight = create<TrueLight>(() => soundSettings(keptJson(KEY)));

/** One's own settings while others are tried. */
let own: TrueLight | null = null;

const whole = (s: TrueLight): TrueLight => ({ ...s, most: Math.max(s.least, s.most) });

export function setTrueLight(change: Partial<TrueLight>): void {
  useTrueLight.setState((s) => whole({ ...s, ...change }));
  if (own) own = whole({ ...own, ...change });
  keepText(KEY, JSON.stringify(own ?? useTrueLight.getState()));
}

/** Uses other settings for a while without storing them; null restores one's own. */
export function tryTrueLight(effort: (Effort & Pick<TrueLight, 'brightest'>) | null): void {
  const { map, compare } = useTrueLight.getState();
  if (effort) {
    own ??= useTrueLight.getState();
    useTrueLight.setState({ ...effort, map, compare });
  } else if (own) {
    useTrueLight.setState({ ...own, map: false });
    own = null;
  }
}

/** Trace settings of a frame. Frame N has the grain of frame 0. */
export function settingsOf(
  effort: TrueLight,
  frame: number,
  frames: number,
  width: number,
  height: number,
): TraceSettings {
  const { bounces, brightest, least, error } = effort;
  return {
    width,
    height,
    bounces,
    fireflyClamp: brightest ?? Infinity,
    seed: 1 + (((Math.round(frame) % frames) + frames) % frames),
    minSamples: least,
    error: error / 100,
  };
}
