import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import { encode, type Exporter } from './exporter';
import { h264 } from './mp4.server';
import type { Quality } from './movie';
import { sharpOf } from './still-picture';
import { vp9 } from './webm.server';

const escaped = (text: string) =>
  text.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!);

/** A web page with the loop as two movies, of which the browser picks one, and the first frame as poster. */
export const page: Exporter = async (making) => {
  const { quality } = making.values as { quality: Quality };
  const half = (from: number): typeof making => ({ ...making, onShare: (s) => making.onShare?.(from + s / 2) });
  const webm = await encode(half(0), { ...vp9({ quality, whole: false }), ending: 'webm' });
  const mp4 = await encode(half(0.5), { ...h264({ quality, whole: false }), ending: 'mp4' });
  const poster = `${making.base}.jpg`;
  await (
    await sharpOf(making.sheet(0))
  )
    .removeAlpha()
    .withIccProfile('srgb')
    .jpeg({ quality: 88 })
    .toFile(path.join(making.folder, poster));
  const { width, height } = making.size;
  const beside = (name: string) => encodeURI(path.posix.basename(name));
  const html = `<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${escaped(making.piece.name)}</title>
<style>
  html, body { height: 100%; margin: 0; background: #000; }
  video { display: block; width: 100%; height: 100%; object-fit: contain; }
</style>
<video width="${width}" height="${height}" poster="${beside(poster)}" autoplay loop muted playsinline disableremoteplayback>
  <source src="${beside(webm)}" type="video/webm; codecs=vp9">
  <source src="${beside(mp4)}" type="video/mp4">
</video>
</html>
`;
  const name = `${making.base}.html`;
  await writeFile(path.join(making.folder, name), html);
  return [name, webm, mp4, poster];
};
