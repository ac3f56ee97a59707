import type { Piece } from '@maypole/core/piece/piece';
import { frameRate } from '@maypole/core/time/loop';
import { strToU8, Zip, ZipPassThrough } from 'fflate';
import { BufferTarget, CanvasSource, canEncodeVideo, Mp4OutputFormat, Output, WebMOutputFormat } from 'mediabunny';
import { Offscreen } from './offscreen';

export type FileKind = 'png' | 'mp4' | 'webm';

export interface DeliverySettings {
  readonly kind: FileKind;
  /** Pixels. */
  readonly width: number;
  readonly height: number;
}

export interface DeliveryProgress {
  readonly done: number;
  readonly total: number;
  /** Seconds, once it can be told. */
  readonly left: number | null;
}

export interface Delivery {
  readonly name: string;
  readonly blob: Blob;
}

/** Why a delivery cannot be made, in words for the user. */
export class DeliveryProblem extends Error {
  override readonly name = 'DeliveryProblem';
}

const CODECS = { mp4: { codec: 'avc', title: 'H.264' }, webm: { codec: 'vp9', title: 'VP9' } } as const;

/** "halo-1080x1080", from the name of a piece and the size. */
export function baseName(piece: Piece, { width, height }: DeliverySettings): string {
  const plain = piece.name.normalize('NFKD').replace(/[^a-z0-9]+/gi, '-').replace(/^-+|-+$/g, '').toLowerCase();
  return `${plain || 'piece'}-${width}x${height}`;
}

/** Name of a picture in a sequence: the frame number with as many digits as the last one has, at least four. */
export function frameName(base: string, frame: number, frames: number): string {
  return `${base}-${String(frame).padStart(Math.max(4, String(frames - 1).length), '0')}.png`;
}

/**
 * Makes a file of frames 0…N−1 in final detail. Frame N is frame 0 and is not in it.
 *
 * @param signal ends the work; the promise is then rejected with the signal's reason
 */
export async function deliver(piece: Piece, settings: DeliverySettings, onProgress: (p: DeliveryProgress) => void, signal: AbortSignal): Promise<Delivery> {
  const { frames } = piece.loop;
  const base = baseName(piece, settings);
  if (settings.kind !== 'png') await checkEncoder(settings);
  const offscreen = await Offscreen.create(settings.width, settings.height);
  try {
    offscreen.setPiece({ ...piece, output: { width: settings.width, height: settings.height } }, 'final');
    const sink = settings.kind === 'png' ? pictureSink(base, frames) : await movieSink(piece, settings, offscreen.canvas);
    const start = performance.now();
    try {
      for (let f = 0; f < frames; f++) {
        signal.throwIfAborted();
        await offscreen.draw(f);
        await sink.add(f, offscreen.canvas);
        const done = f + 1;
        const spent = (performance.now() - start) / 1000;
        onProgress({ done, total: frames, left: done < 2 ? null : (spent / done) * (frames - done) });
      }
      signal.throwIfAborted();
      return { name: `${base}.${settings.kind === 'png' ? 'zip' : settings.kind}`, blob: await sink.finish() };
    } catch (error) {
      await sink.cancel();
      throw error;
    }
  } finally {
    offscreen.dispose();
  }
}

interface Sink {
  add(frame: number, canvas: HTMLCanvasElement): Promise<void>;
  finish(): Promise<Blob>;
  cancel(): Promise<void>;
}

/** PNG pictures in a zip; they are compressed already and are only stored. */
function pictureSink(base: string, frames: number): Sink {
  const parts: BlobPart[] = [];
  let failure: Error | null = null;
  const zip = new Zip((error, chunk) => {
    if (error) failure = error;
    else parts.push(chunk as Uint8Array<ArrayBuffer>);
  });
  const put = (name: string, bytes: Uint8Array) => {
    const entry = new ZipPassThrough(name);
    zip.add(entry);
    entry.push(bytes, true);
    if (failure) throw failure;
  };
  return {
    async add(frame, canvas) {
      const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
      if (!blob) throw new DeliveryProblem(`Frame ${frame} could not be turned into a PNG of ${canvas.width} × ${canvas.height} pixels; try a smaller size.`);
      put(frameName(base, frame, frames), new Uint8Array(await blob.arrayBuffer()));
    },
    async finish() {
      put('frames.txt', strToU8(`${frames} frames, ${frameName(base, 0, frames)} to ${frameName(base, frames - 1, frames)}.\nPlay them in a circle: after the last comes the first.\n`));
      zip.end();
      return new Blob(parts, { type: 'application/zip' });
    },
    async cancel() {
      zip.terminate();
    },
  };
}

async function checkEncoder({ kind, width, height }: DeliverySettings): Promise<void> {
  const { codec, title } = CODECS[kind as 'mp4' | 'webm'];
  if (width % 2 || height % 2) throw new DeliveryProblem(`A movie needs even numbers of pixels, and this is ${width} × ${height}; use ${width + (width % 2)} × ${height + (height % 2)}.`);
  if (!(await canEncodeVideo(codec, { width, height, bitrate: bitrate(width, height, 30) })))
    throw new DeliveryProblem(`This browser cannot make ${title} movies of ${width} × ${height} pixels; choose a smaller size or another kind of file.`);
}

/** Bits a second that keep smooth shading free of bands: about 0.2 bit a pixel. */
function bitrate(width: number, height: number, fps: number): number {
  return Math.round(Math.max(1_000_000, width * height * fps * 0.2));
}

async function movieSink(piece: Piece, { kind, width, height }: DeliverySettings, canvas: HTMLCanvasElement): Promise<Sink> {
  const rate = frameRate(piece.loop.fps);
  const fps = rate.num / rate.den;
  const output = new Output({ format: kind === 'mp4' ? new Mp4OutputFormat({ fastStart: 'in-memory' }) : new WebMOutputFormat(), target: new BufferTarget() });
  const source = new CanvasSource(canvas, { codec: CODECS[kind as 'mp4' | 'webm'].codec, bitrate: bitrate(width, height, fps), keyFrameInterval: 1 });
  output.addVideoTrack(source, { frameRate: fps });
  output.setMetadataTags({ title: piece.name });
  await output.start();
  return {
    // Times are computed from the frame number, so that rounding never adds up.
    add: (frame) => source.add((frame * rate.den) / rate.num, rate.den / rate.num),
    async finish() {
      await output.finalize();
      return new Blob([(output.target as BufferTarget).buffer!], { type: await output.getMimeType() });
    },
    async cancel() {
      await output.cancel();
    },
  };
}
