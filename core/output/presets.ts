import type { PixelSize } from './kind';

/** Outputs for a purpose: what is switched on at once, with what usually goes along. */
export interface OutputPreset {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  readonly size?: PixelSize;
  /** Values of the rendering. */
  readonly render?: Readonly<Record<string, string | number | boolean>>;
  readonly outputs: readonly (readonly [kind: string, values?: Readonly<Record<string, string | number | boolean>>])[];
}

export const OUTPUT_PRESETS: readonly OutputPreset[] = [
  {
    id: 'wall',
    title: 'Wall',
    help: 'A large screen: 3840 × 2160, H.265 in 10 bit, nothing lost to the eye.',
    size: { width: 3840, height: 2160 },
    outputs: [['hevc', { quality: 'lossless', bits: '10' }]],
  },
  {
    id: 'square',
    title: 'Feed, square',
    help: '1080 × 1080, played often enough to be looked at.',
    size: { width: 1080, height: 1080 },
    outputs: [['mp4', { quality: 'good', plays: 4 }]],
  },
  {
    id: 'upright',
    title: 'Story, upright',
    help: '1080 × 1920.',
    size: { width: 1080, height: 1920 },
    outputs: [['mp4', { quality: 'good', plays: 3 }]],
  },
  {
    id: 'broadcast',
    title: 'Broadcast, see-through',
    help: '1920 × 1080 in ProRes 4444 with alpha, to be laid over other pictures.',
    size: { width: 1920, height: 1080 },
    outputs: [['prores', { clear: true }]],
  },
  {
    id: 'web',
    title: 'Web page',
    help: 'A page that plays the loop without a gap, with its poster.',
    outputs: [['page']],
  },
  {
    id: 'compositing',
    title: 'Compositing',
    help: 'Light and all passes as OpenEXR, in true light.',
    render: { light: 'true', samples: 128 },
    outputs: [['exr', { precision: 'half', passes: true }]],
  },
  {
    id: 'proof',
    title: 'Proof',
    help: 'A small movie in quick light, a quarter of the size: soon there, and the piece stays as it is.',
    render: { light: 'quick', scale: 25 },
    outputs: [['mp4', { quality: 'good' }]],
  },
  {
    id: 'still',
    title: 'Still',
    help: 'One frame in true light, 16 bit.',
    render: { light: 'true', samples: 256, range: 'part', from: 0, to: 0 },
    outputs: [['poster', { depth: '16' }]],
  },
];
