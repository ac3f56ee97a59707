import type { Exporter } from './exporter';

/** The exporter of each kind of output, loaded when first needed. */
export const makers: Readonly<Record<string, () => Promise<Exporter>>> = {
  mp4: () => import('./mp4.server').then((m) => m.mp4),
  hevc: () => import('./hevc.server').then((m) => m.hevc),
  webm: () => import('./webm.server').then((m) => m.webm),
  av1: () => import('./av1.server').then((m) => m.av1),
  prores: () => import('./prores.server').then((m) => m.prores),
  png: () => import('./png.server').then((m) => m.png),
  exr: () => import('./exr.server').then((m) => m.exr),
  jpeg: () => import('./jpeg.server').then((m) => m.jpeg),
  'webp-pictures': () => import('./webp-pictures.server').then((m) => m.webpPictures),
  'avif-pictures': () => import('./avif-pictures.server').then((m) => m.avifPictures),
  tiff: () => import('./tiff.server').then((m) => m.tiff),
  gif: () => import('./gif.server').then((m) => m.gif),
  apng: () => import('./apng.server').then((m) => m.apng),
  webp: () => import('./webp.server').then((m) => m.webp),
  avif: () => import('./avif.server').then((m) => m.avif),
  glb: () => import('./glb.server').then((m) => m.glb),
  usd: () => import('./usd.server').then((m) => m.usd),
  obj: () => import('./obj.server').then((m) => m.obj),
  ply: () => import('./ply.server').then((m) => m.ply),
  poster: () => import('./poster.server').then((m) => m.poster),
  strip: () => import('./strip.server').then((m) => m.strip),
  page: () => import('./page.server').then((m) => m.page),
};
