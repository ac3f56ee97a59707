import { closeSync, existsSync, openSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { MAX_BOUNCES, type Bounces } from '@maypole/core/trace/paths/tracer';
import type { Piece } from '@maypole/core/piece/piece';
import { pieceFrom, PieceTrouble } from '@maypole/render/work/piece-from';

/** A fault that the caller can fix; the message is a sentence. */
export class Unusable extends Error {
  override readonly name = 'Unusable';
  constructor(
    message: string,
    /** Exit status of the command: 3 if files of a piece are missing, 2 otherwise. */
    readonly status: 2 | 3 = 2,
  ) {
    super(message);
  }
}

export interface DrawOptions {
  readonly file: string;
  readonly to: string;
  readonly frame: number;
  /** Pixels; by default those of the piece, at most 1080 along the longer side. */
  readonly width?: number;
  readonly height?: number;
  readonly samples: number;
  readonly bounces: Bounces;
  /** See TraceSettings; 0 for the same number of samples everywhere. */
  readonly error: number;
  readonly minSamples: number;
  readonly fireflyClamp: number;
  readonly grainMotion: 'moves' | 'stands';
  readonly clear: boolean;
  readonly denoise: boolean;
  /** All passes go into the file, as layers. */
  readonly passes: boolean;
  readonly workers?: number;
}

/** Most pixels and samples of a picture. */
const [MOST_PIXELS, MOST_SAMPLES] = [8192 * 8192, 65_536];

const KNOWN = ['to', 'frame', 'size', 'samples', 'least', 'error', 'bounces', 'limit', 'grain', 'workers'] as const;

/** Parses the command line. Throws Unusable. */
export function drawOptions(args: readonly string[]): DrawOptions {
  const values = new Map<string, string>();
  const files: string[] = [];
  let [clear, denoise, passes] = [false, false, false];
  for (let i = 0; i < args.length; i++) {
    const name = args[i].replace(/^--/, '');
    if (!args[i].startsWith('--')) files.push(args[i]);
    else if (name === 'clear') clear = true;
    else if (name === 'denoise') denoise = true;
    else if (name === 'passes') passes = true;
    else if (!(KNOWN as readonly string[]).includes(name))
      throw new Unusable(`There is no option --${name}. Known: --${KNOWN.join(', --')}, --clear, --denoise, --passes.`);
    else if (i + 1 === args.length) throw new Unusable(`--${name} needs a value after it.`);
    else values.set(name, args[++i]);
  }
  const number = (name: string, usual: number, low: number, high: number, whole = true) => {
    const text = values.get(name);
    const x = text === undefined ? usual : Number(text);
    if (!(x >= low && x <= high) || (whole && !Number.isInteger(x)))
      throw new Unusable(`--${name} ${text} should be a ${whole ? 'whole ' : ''}number from ${low} to ${high}.`);
    return x;
  };
  const [file, ...others] = files;
  if (file === undefined || others.length > 0) throw new Unusable('Name one piece file to draw.');
  const to = values.get('to');
  if (!to || !/\.(png|exr)$/.test(to))
    throw new Unusable(
      'Say where the picture goes: --to NAME.png for a picture as it is shown, --to NAME.exr for its light.',
    );
  if (!existsSync(path.dirname(path.resolve(to))))
    throw new Unusable(`There is no folder ${path.dirname(to)} for the picture.`);
  if (passes && !to.endsWith('.exr'))
    throw new Unusable('--passes go into layers, which only a .exr has: --to NAME.exr.');
  const size = values.get('size');
  const sides = size
    ?.match(/^(\d+)x(\d+)$/)
    ?.slice(1)
    .map(Number);
  if (size && (!sides || sides[0] < 1 || sides[1] < 1 || sides[0] * sides[1] > MOST_PIXELS))
    throw new Unusable(`--size ${size} should be as 1080x1080, no more than ${MOST_PIXELS} pixels in all.`);
  const grain = values.get('grain') ?? 'moves';
  if (grain !== 'moves' && grain !== 'stands') throw new Unusable(`--grain ${grain} should be moves or stands.`);
  const limit = values.get('limit');
  return {
    file,
    to,
    frame: number('frame', 0, -1e6, 1e6, false),
    ...(sides ? { width: sides[0], height: sides[1] } : {}),
    samples: number('samples', 64, 1, MOST_SAMPLES),
    bounces: bouncesIn(values.get('bounces') ?? '8'),
    // A percentage on the command line.
    error: number('error', 0, 0, 100, false) / 100,
    minSamples: number('least', 16, 1, MOST_SAMPLES),
    fireflyClamp: limit === 'none' ? Infinity : number('limit', 20, 0.01, 1e6, false),
    grainMotion: grain,
    clear,
    denoise,
    passes,
    ...(values.has('workers') ? { workers: number('workers', 1, 1, 64) } : {}),
  };
}

/** One number for all kinds of surfaces, or one each for diffuse, mirror, glass, and air. Throws Unusable. */
function bouncesIn(text: string): Bounces {
  const numbers = text.split(',').map(Number);
  const [matt, glossy = matt, glass = numbers.length === 1 ? 2 * matt : matt, air = MAX_BOUNCES] = numbers;
  if (numbers.length > 4 || numbers.some((n) => !Number.isInteger(n) || n < 0 || n > MAX_BOUNCES))
    throw new Unusable(
      `--bounces ${text} should be a whole number from 0 to ${MAX_BOUNCES}, or up to four of them: matt, mirror, glass, air, as 8,8,16,4.`,
    );
  return { diffuse: matt, glossy, transmission: glass, air };
}

/** The piece in a file, with every file that it needs. Throws Unusable. */
export async function pieceIn(file: string): Promise<Piece> {
  let text: string;
  try {
    text = readFileSync(file, 'utf8');
  } catch (error) {
    const { code } = error as NodeJS.ErrnoException;
    throw new Unusable(`${file}: ${code === 'ENOENT' ? 'there is no such file.' : `cannot be read (${code}).`}`);
  }
  try {
    return await pieceFrom(text);
  } catch (error) {
    if (error instanceof PieceTrouble) throw new Unusable(`${file}: ${error.message}`, error.missing ? 3 : 2);
    throw error;
  }
}

/** Why a file cannot be written at a path, with the remedy. */
export function placeTrouble(to: string, error: NodeJS.ErrnoException): string {
  switch (error.code) {
    case 'EISDIR':
      return `${to} is a folder; name the file in it, such as ${path.join(to, 'frame.png')}.`;
    case 'ENOENT':
    case 'ENOTDIR':
      return `There is no folder ${path.dirname(to)} for the picture; make it first, or name another place.`;
    case 'ENOSPC':
    case 'EDQUOT':
      return `The disk of ${to} is full; make room on it, or name another place.`;
    case 'EACCES':
    case 'EPERM':
    case 'EROFS':
      return `${to} may not be written; allow it, or name another place.`;
    default:
      return `${to} cannot be written: ${error.message}`;
  }
}

/** Checks that a file can be written at a path, without changing what is there. */
export function refusePlace(to: string): void {
  const there = existsSync(to);
  try {
    closeSync(openSync(to, 'a'));
  } catch (error) {
    throw new Unusable(placeTrouble(to, error as NodeJS.ErrnoException));
  }
  // Created by this check alone.
  if (!there) rmSync(to);
}
