import type { PixelSize } from './kind';
import type { RenderSettings } from './render-settings';

/** How each frame of a render is made: everything its pictures depend on besides the piece. */
export type FrameOrder = PixelSize & { readonly detail: 'final' | 'draft' } & (
    | { readonly light: 'quick'; readonly look: RenderSettings['look']; readonly subframes: number }
    | {
        readonly light: 'true';
        readonly samples: number;
        /** Percent. */
        readonly error: number;
        readonly denoise: boolean;
      }
  );

export function frameOrder(s: RenderSettings, { width, height }: PixelSize): FrameOrder {
  const { detail } = s;
  return s.light === 'quick'
    ? { light: 'quick', width, height, detail, look: s.look, subframes: s.subframes }
    : { light: 'true', width, height, detail, samples: s.samples, error: s.error, denoise: s.denoise };
}

/**
 * The order in which frames are made: first some far apart, then between them, so that the whole is visible early and a
 * sample represents all (J. G. van der Corput's sequence).
 *
 * @returns indices 0 … count − 1, each once
 */
export function spreadOut(count: number): number[] {
  const bits = Math.max(1, Math.ceil(Math.log2(Math.max(2, count))));
  const out: number[] = [];
  for (let i = 0; i < 2 ** bits; i++) {
    let turned = 0;
    for (let b = 0; b < bits; b++) if (i & (1 << b)) turned |= 1 << (bits - 1 - b);
    if (turned < count) out.push(turned);
  }
  return out;
}
