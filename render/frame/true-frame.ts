import { developedDeep } from '@maypole/core/develop/develop';
import { Denoiser } from '@maypole/core/develop/denoise';
import { wholeLight, type LightPicture } from '@maypole/core/develop/light';
import type { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { pictureAt } from '@maypole/core/evaluate/picture-at';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import type { Layer } from '@maypole/core/files/exr';
import { hasPasses, FRAME_IMAGES, type FrameImageName } from '@maypole/core/output/frame-image';
import type { Piece, RibbonDoc } from '@maypole/core/piece/piece';
import type { Detail } from '@maypole/core/steps/step';
import { instantPictures } from '@maypole/core/trace/paths/exposure';
import { motionPass } from '@maypole/core/trace/paths/motion-vectors';
import { isLight, type Pass } from '@maypole/core/trace/paths/passes';
import { FRAME_SETTINGS } from '@maypole/core/trace/paths/frame-settings';
import type { Bounces, TraceSettings } from '@maypole/core/trace/paths/tracer';
import { encode } from 'fast-png';
import { packedExr } from '../files/exr';
import { sha256 } from './keep';
import type { Traced, TraceCrew } from './trace-crew';

/** How to make a frame in true light. */
export interface TrueFrameOrder {
  /** Pixels. */
  readonly width: number;
  readonly height: number;
  readonly samples: number;
  /** A fraction: see TraceSettings. */
  readonly error: number;
  readonly denoise: boolean;
  readonly detail: Detail;
  readonly passes: boolean;
  readonly minSamples?: number;
  readonly bounces?: Bounces;
  readonly fireflyClamp?: number;
  readonly grainMotion?: 'moves' | 'stands';
}

export interface TrueFrame extends Traced {
  /** Its light, denoised if asked for. */
  readonly clean: LightPicture;
  /** Its passes, if asked for. */
  readonly layers: readonly Layer[];
  readonly scene: ReturnType<typeof pictureAt>['scene'];
}

/** One frame of a piece in true light: the same bits on every machine. Throws what tracing throws. */
export async function trueFrame(
  crew: TraceCrew,
  piece: Piece,
  frame: number,
  order: TrueFrameOrder,
  cache: MeshCache,
  onShare?: (share: number) => void,
): Promise<TrueFrame> {
  const { frames } = piece.loop;
  const shapeOf = (r: RibbonDoc, at: number) => evaluateRibbon(r, piece.loop, at, order.detail, cache).mesh;
  const pictures = instantPictures(piece, frame, shapeOf, order.samples);
  const settings: TraceSettings = {
    width: order.width,
    height: order.height,
    bounces: order.bounces ?? FRAME_SETTINGS.bounces,
    fireflyClamp: order.fireflyClamp ?? FRAME_SETTINGS.fireflyClamp,
    // The same grain one loop later.
    seed: order.grainMotion === 'stands' ? 0 : 1 + (((frame % frames) + frames) % frames),
    error: order.error,
    minSamples: order.minSamples ?? FRAME_SETTINGS.minSamples,
    passes: order.passes,
  };
  const traced = await crew.traced({ pictures, settings, samples: order.samples }, onShare);
  const denoiser = order.denoise ? new Denoiser() : null;
  const clean = denoiser?.denoised(traced.light, traced.features) ?? traced.light;
  const at = (f: number) => pictureAt(piece, f, (r) => shapeOf(r, f));
  const layers = traced.passes
    ? [
        ...cleanPasses(
          traced.passes.passes(pictures[0].ribbons.map(({ id }) => piece.ribbons.find((r) => r.id === id)!.name)),
          traced,
          clean,
          denoiser,
        ),
        motionPass(at(frame), at(frame + 1), settings),
      ]
    : [];
  return { ...traced, clean, layers, scene: pictures[0].scene };
}

/** Light passes denoised if the picture is, so that they add up to it; the others as they are. */
function cleanPasses(
  passes: readonly Pass[],
  { light, features }: Traced,
  clean: LightPicture,
  denoiser: Denoiser | null,
): readonly Pass[] {
  if (!denoiser) return passes;
  const lights = passes.filter(isLight);
  const parts = denoiser.parts(
    lights.map((p) => p.values),
    light,
    features,
    clean,
  );
  return passes.map((p) => (isLight(p) ? { ...p, values: parts[lights.indexOf(p)] } : p));
}

/** A frame image as a file, and the SHA-256 of its content, whatever packed it. */
export interface WrittenFrameImage {
  readonly bytes: Uint8Array;
  readonly content: string;
}

/** The frame images of a frame, as files, one after another. */
export async function* sheetsOf(
  frame: TrueFrame,
  wanted: readonly FrameImageName[],
): AsyncGenerator<readonly [FrameImageName, WrittenFrameImage]> {
  const { width, height } = frame.clean;
  for (const name of wanted)
    if (FRAME_IMAGES[name].light) {
      const layers = hasPasses(name) ? frame.layers : [];
      const precision = name.startsWith('half') ? 'half' : 'float';
      yield [
        name,
        await packedExr(wholeLight(frame.clean), width, height, layers, {
          precision,
          exposure: frame.scene.camera.exposure,
        }),
      ];
    } else {
      const data = developedDeep(frame.clean, { scene: frame.scene, clear: name === 'clear' });
      const bytes = encode({ width, height, data, channels: 4, depth: 16 }, { zlib: { level: 3 } });
      yield [name, { bytes, content: sha256(new Uint8Array(data.buffer, data.byteOffset, data.byteLength)) }];
    }
}
