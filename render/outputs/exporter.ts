import { mkdirSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { writeImage } from '@maypole/core/assets/image';
import type { PixelSize } from '@maypole/core/output/kind';
import type { Piece } from '@maypole/core/piece/piece';
import { FFMPEG, run } from '../files/program';
import { eightBits, decodePng } from '../files/png';
import { frameRate } from '@maypole/core/time/loop';

/** What an output is made from, and where it goes. */
export interface ExportJob<V = Readonly<Record<string, unknown>>> {
  readonly values: V;
  readonly size: PixelSize;
  /** Ready to be evaluated, for outputs of shapes. */
  readonly piece: Piece;
  /** Frames in playing order. */
  readonly frames: readonly number[];
  /** File of the frame image that the output is made from, by position among the frames. */
  readonly sheet: (index: number) => string;
  /** The folder that names are relative to. */
  readonly folder: string;
  /** File name without extension; with / if it is in subfolders, which exist. */
  readonly base: string;
  /** File name of a frame, with extension. */
  readonly frameName: (frame: number) => string;
  readonly ending: string;
  readonly signal?: AbortSignal;
  readonly onShare?: (share: number) => void;
}

/** Makes the files of an output; returns their names in the folder. */
export type Exporter = (making: ExportJob) => Promise<readonly string[]>;

/** An exporter with typed values of its output. */
export function makerOf<V>(make: (making: ExportJob & { readonly values: V }) => Promise<readonly string[]>): Exporter {
  return make as Exporter;
}

/** Makes one file per frame, in order. */
export async function eachFrame(
  making: ExportJob,
  make: (index: number, to: string, frame: number) => Promise<void>,
): Promise<readonly string[]> {
  const names: string[] = [];
  for (const [index, frame] of making.frames.entries()) {
    making.signal?.throwIfAborted();
    const name = making.frameName(frame);
    await make(index, path.join(making.folder, name), frame);
    names.push(name);
    making.onShare?.((index + 1) / making.frames.length);
  }
  return names;
}

/**
 * Numbered links as a movie encoder reads them, for the duration of the call.
 *
 * @param eight converts to 8 bits here, as for the screen, and not by the encoder
 */
export async function withNumbered<T>(
  { frames, sheet, folder, signal }: ExportJob,
  use: (input: readonly string[]) => Promise<T>,
  rate: string,
  eight = false,
): Promise<T> {
  mkdirSync(folder, { recursive: true });
  const at = mkdtempSync(path.join(folder, '.frames-'));
  try {
    for (let i = 0; i < frames.length; i++) {
      const to = path.join(at, `${String(i).padStart(6, '0')}.png`);
      const from = path.resolve(sheet(i));
      const bytes = eight ? await eightBitPng(from) : undefined;
      if (bytes) await writeFile(to, bytes);
      else symlinkSync(from, to);
      signal?.throwIfAborted();
    }
    return await use(['-framerate', rate, '-start_number', '0', '-i', path.join(at, '%06d.png')]);
  } finally {
    rmSync(at, { recursive: true, force: true });
  }
}

/** A 16-bit frame image as an 8-bit PNG; undefined if it has 8 bits already. */
async function eightBitPng(file: string): Promise<Uint8Array | undefined> {
  const sheet = decodePng(await readFile(file));
  if (sheet.data instanceof Uint8Array) return undefined;
  return writeImage(eightBits(sheet), sheet.width, sheet.height);
}

/** "24000/1001". */
export function rateOf(piece: Pick<Piece, 'loop'>): string {
  const { num, den } = frameRate(piece.loop.fps);
  return `${num}/${den}`;
}

export interface Encoding {
  /** How many times the file plays the loop. */
  readonly plays?: number;
  /** An ffmpeg filter chain. */
  readonly filter?: string;
  readonly args: readonly string[];
  /** File extension, if it differs from the output's; see OutputKind.beside. */
  readonly ending?: string;
  /** Whether its colours are 8-bit RGB. */
  readonly eight?: boolean;
}

/** Encodes all frames into one file. */
export async function encode(making: ExportJob, { plays = 1, filter, args, ending, eight }: Encoding): Promise<string> {
  const name = `${making.base}.${ending ?? making.ending}`;
  const total = plays * making.frames.length;
  await withNumbered(
    making,
    (input) =>
      run(
        FFMPEG,
        [
          ...['-nostdin', '-hide_banner', '-v', 'error', '-y', '-progress', 'pipe:1'],
          ...(plays > 1 ? ['-stream_loop', `${plays - 1}`] : []),
          ...input,
          ...(filter ? ['-vf', filter] : []),
          // Exactly as many as there are, whatever rounded timestamps suggest.
          ...['-frames:v', `${total}`, '-fps_mode', 'passthrough', '-bitexact'],
          ...args,
          path.join(making.folder, name),
        ],
        {
          signal: making.signal,
          onData: (chunk) => {
            const told = /frame=\s*(\d+)/.exec(chunk.toString());
            if (told) making.onShare?.(Math.min(1, Number(told[1]) / total));
          },
        },
      ),
    rateOf(making.piece),
    eight,
  );
  return name;
}
