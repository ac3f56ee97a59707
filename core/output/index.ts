import { Registry } from '../declare/registry';
import { apng } from './kinds/apng';
import { av1 } from './kinds/av1';
import { avif } from './kinds/avif';
import { avifPictures } from './kinds/avif-pictures';
import { exr } from './kinds/exr';
import { gif } from './kinds/gif';
import { glb } from './kinds/glb';
import { hevc } from './kinds/hevc';
import { jpeg } from './kinds/jpeg';
import { mp4 } from './kinds/mp4';
import { obj } from './kinds/obj';
import { page } from './kinds/page';
import { ply } from './kinds/ply';
import { png } from './kinds/png';
import { poster } from './kinds/poster';
import { prores } from './kinds/prores';
import { strip } from './kinds/strip';
import { tiff } from './kinds/tiff';
import { usd } from './kinds/usd';
import { webm } from './kinds/webm';
import { webp } from './kinds/webp';
import { webpPictures } from './kinds/webp-pictures';

/** Every kind of output, in the order of the menu. A new one is added here and nowhere else. */
export const outputs = new Registry('kind of output', [
  mp4,
  hevc,
  webm,
  av1,
  prores,
  png,
  exr,
  jpeg,
  webpPictures,
  avifPictures,
  tiff,
  gif,
  apng,
  webp,
  avif,
  glb,
  usd,
  obj,
  ply,
  poster,
  strip,
  page,
]);
