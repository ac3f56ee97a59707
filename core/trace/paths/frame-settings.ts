import { bouncesOf } from './tracer';

/** Trace settings shared by all delivered frames. */
export const FRAME_SETTINGS = { minSamples: 16, bounces: bouncesOf(8), fireflyClamp: 20 } as const;
