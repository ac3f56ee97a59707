import type { Encoder } from './encoder';

/** What encodes each kind of output in the browser, fetched when it is first wanted. */
export const encoders: Readonly<Record<string, () => Promise<Encoder>>> = {
  png: () => import('./png.browser').then((m) => m.png),
  mp4: () => import('./mp4.browser').then((m) => m.mp4),
  webm: () => import('./webm.browser').then((m) => m.webm),
};
