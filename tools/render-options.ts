import path from 'node:path';
import { outputs } from '@maypole/core/output/index';
import { patternFault } from '@maypole/core/output/names';
import { deliveredSize, framesWanted, renderSettings, type RenderSettings } from '@maypole/core/output/render-settings';
import { newItem, type Item, type Piece } from '@maypole/core/piece/piece';
import type { PixelSize } from '@maypole/core/output/kind';
import { outputValues } from '@maypole/core/piece/delivery-fault';
import { Unusable } from './draw-options';

export interface RenderOptions {
  readonly file: string;
  readonly to: string;
  readonly outputs: readonly string[];
  readonly frames?: readonly [number, number];
  readonly size?: PixelSize;
  readonly samples?: number;
  readonly error?: number;
  readonly denoise?: boolean;
  readonly threads?: number;
  /** Frames stay in the folder afterwards. */
  readonly keepFrames: boolean;
}

const KNOWN = ['to', 'output', 'frames', 'size', 'samples', 'error', 'threads', 'denoise'] as const;

/** Parses the command line. Throws Unusable. */
export function renderOptions(args: readonly string[]): RenderOptions {
  const values = new Map<string, string>();
  const files: string[] = [];
  const wanted: string[] = [];
  let keepFrames = false;
  for (let i = 0; i < args.length; i++) {
    const name = args[i].replace(/^--/, '');
    if (!args[i].startsWith('--')) files.push(args[i]);
    else if (name === 'keep-frames') keepFrames = true;
    else if (!(KNOWN as readonly string[]).includes(name))
      throw new Unusable(`There is no option --${name}. Known: --${KNOWN.join(', --')}, --keep-frames.`);
    else if (i + 1 === args.length) throw new Unusable(`--${name} needs a value after it.`);
    else if (name === 'output') wanted.push(...args[++i].split(','));
    else values.set(name, args[++i]);
  }
  const [file, ...others] = files;
  if (file === undefined || others.length > 0)
    throw new Unusable('Name one piece file to render, or --piece and its name.');
  const to = values.get('to');
  if (!to) throw new Unusable('Say which folder the files go to: --to FOLDER.');
  for (const kind of wanted)
    if (!outputs.has(kind))
      throw new Unusable(
        `--output ${kind} is no kind of output; use one of ${outputs.all.map((o) => o.kind).join(', ')}.`,
      );
  const number = (name: string, low: number, high: number, whole = true) => {
    const text = values.get(name);
    if (text === undefined) return undefined;
    const x = Number(text);
    if (!(x >= low && x <= high) || (whole && !Number.isInteger(x)))
      throw new Unusable(`--${name} ${text} should be a ${whole ? 'whole ' : ''}number from ${low} to ${high}.`);
    return x;
  };
  const range = values.get('frames')?.match(/^(\d+)(?:-(\d+))?$/);
  if (values.has('frames') && !range)
    throw new Unusable(`--frames ${values.get('frames')} should be as 0-99, or as 12.`);
  const sides = values.get('size')?.match(/^(\d+)x(\d+)$/);
  if (values.has('size') && (!sides || [1, 2].some((k) => !(Number(sides[k]) >= 16 && Number(sides[k]) <= 8192))))
    throw new Unusable(`--size ${values.get('size')} should be as 1080x1080, each side from 16 to 8192.`);
  const denoise = values.get('denoise');
  if (denoise !== undefined && denoise !== 'on' && denoise !== 'off')
    throw new Unusable(`--denoise ${denoise} should be on or off.`);
  const samples = number('samples', 1, 65_536);
  const error = number('error', 0, 100, false);
  const threads = number('threads', 1, 256);
  return {
    file,
    to: path.resolve(to),
    outputs: wanted,
    keepFrames,
    ...(range ? { frames: [Number(range[1]), Number(range[2] ?? range[1])] as const } : {}),
    ...(sides ? { size: { width: Number(sides[1]), height: Number(sides[2]) } } : {}),
    ...(samples === undefined ? {} : { samples }),
    ...(error === undefined ? {} : { error }),
    ...(threads === undefined ? {} : { threads }),
    ...(denoise === undefined ? {} : { denoise: denoise === 'on' }),
  };
}

/** What to render of a piece, from its own settings and the command line. */
export interface RenderPlan {
  readonly settings: RenderSettings;
  readonly size: PixelSize;
  readonly frames: readonly number[];
  readonly items: readonly Item[];
}

/** Throws Unusable if an output cannot be made as asked. */
export function planOf(piece: Piece, options: RenderOptions): RenderPlan {
  const own = renderSettings(piece.render.values);
  const settings: RenderSettings = {
    ...own,
    light: 'true',
    ...(options.samples === undefined ? {} : { samples: options.samples }),
    ...(options.error === undefined ? {} : { error: options.error }),
    ...(options.denoise === undefined ? {} : { denoise: options.denoise }),
    ...(options.frames ? { range: 'part', from: options.frames[0], to: options.frames[1] } : {}),
  };
  if (options.frames && Math.max(...options.frames) >= piece.loop.frames)
    throw new Unusable(
      `--frames ${options.frames.join('-')} goes beyond the loop, whose last frame is ${piece.loop.frames - 1}.`,
    );
  const size = options.size ?? deliveredSize(piece);
  const items =
    options.outputs.length > 0
      ? options.outputs.map((kind) => piece.outputs.find((o) => o.kind === kind) ?? newItem(outputs.get(kind)))
      : piece.outputs.filter((o) => o.on);
  if (items.length === 0)
    throw new Unusable('This piece has no outputs; say which to make, as --output png or --output mp4,exr.');
  const fault = patternFault(settings.name);
  if (fault) throw new Unusable(fault);
  const frames = framesWanted(settings, piece.loop.frames);
  for (const item of items) {
    const kind = outputs.get(item.kind);
    const refused = kind.refusal?.({
      ...{ size, light: 'true', frames: frames.length, fps: piece.loop.fps, values: outputValues(item) },
    });
    if (refused) throw new Unusable(`${kind.title}: ${refused}`);
  }
  return { settings, size, frames, items };
}
