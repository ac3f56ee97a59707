import type { PixelSize } from './kind';

/** What a file name may contain. */
export interface Named extends PixelSize {
  /** Of the piece. */
  readonly piece: string;
  /** Identifier of the kind of output: "mp4". */
  readonly output: string;
  readonly fps: number;
  /** Frames of the loop. */
  readonly frames: number;
  readonly revision: number;
  readonly date: Date;
}

const WORDS = ['piece', 'size', 'width', 'height', 'output', 'fps', 'frames', 'revision', 'date', 'frame'] as const;

/** Most bytes of a name, as UTF-8: with a number and an extension it stays below the 255 that file systems allow. */
const MOST_BYTES = 180;

/**
 * Letters and digits of any script, and single dashes, which every system allows. Latin letters lose their accents, as
 * most expect; other scripts keep their marks.
 */
export function plainName(name: string): string {
  const letters = name
    .normalize('NFKC')
    .replace(/\p{Script=Latin}/gu, (c) => c.normalize('NFKD').replace(/\p{M}/gu, ''))
    .replace(/(?<=[a-z])\p{M}+/giu, '')
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^[-\p{M}]+|-+$/gu, '')
    .toLowerCase();
  let plain = '';
  let bytes = 0;
  for (const letter of letters) {
    const code = letter.codePointAt(0)!;
    bytes += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
    if (bytes > MOST_BYTES) break;
    plain += letter;
  }
  return plain.replace(/-+$/, '') || 'piece';
}

/** Why a pattern makes no valid names, and the remedy; null if it does. */
export function patternFault(pattern: string): string | null {
  if (!pattern.trim()) return 'Names need a pattern; {piece}-{size} is one.';
  for (const [, word] of pattern.matchAll(/\{([^}]*)\}/g))
    if (!(WORDS as readonly string[]).includes(word))
      return `“{${word}}” is nothing a name can tell; use ${WORDS.map((w) => `{${w}}`).join(', ')}.`;
  if (/[{}]/.test(pattern.replace(/\{[^{}]*\}/g, '')))
    return 'A { in the names has no } to it, or the other way round.';
  if (/[\\:*?"<>|]/.test(pattern) || [...pattern].some((c) => c < ' '))
    return 'Names cannot have any of \\ : * ? " < > |; some systems do not take them.';
  const parts = pattern.split('/');
  if (parts.some((p) => p.trim() === '' || /^\.+$/.test(p.trim())))
    return 'Between two / of the names there must be a name, and not only dots.';
  return null;
}

/** A frame number with as many digits as the last one of the loop, at least four. */
export function frameDigits(frame: number, frames: number): string {
  return String(frame).padStart(Math.max(4, String(frames - 1).length), '0');
}

/**
 * A file path by a pattern, without extension: "{piece}/{size}" → "halo/1080x1080". For one of many files without
 * {frame} in the pattern, the number comes last.
 *
 * @param frame the frame of the file; absent for a file of all
 */
export function nameBy(pattern: string, named: Named, frame?: number): string {
  const { width, height } = named;
  const digits = frame === undefined ? '' : frameDigits(frame, named.frames);
  const words: Record<(typeof WORDS)[number], string> = {
    piece: plainName(named.piece),
    size: `${width}x${height}`,
    width: `${width}`,
    height: `${height}`,
    output: named.output,
    fps: `${named.fps}`.replace('.', '-'),
    frames: `${named.frames}`,
    revision: `${named.revision}`,
    date: named.date.toISOString().slice(0, 10),
    frame: digits,
  };
  const tells = pattern.includes('{frame}');
  const filled = pattern.replace(/\{([^}]*)\}/g, (_, word: (typeof WORDS)[number]) => words[word]);
  const tidy = filled
    .split('/')
    .map((part) => part.trim().replace(/^[.-]+|[.-]+$/g, '') || 'piece')
    .join('/');
  return frame === undefined || tells ? tidy : `${tidy}-${digits}`;
}

/** File names of an output, as far as they may collide with others. */
export interface Naming {
  readonly base: string;
  /** Word for its kind. */
  readonly output: string;
  /** What follows the base in each name: ".mp4", or "/" for a folder. */
  readonly endings: readonly string[];
}

/** Base names of several outputs made unique: by the kind, then by a number. */
export function toldApart(names: readonly Naming[]): string[] {
  const taken = new Set<string>();
  return names.map(({ base, output, endings }) => {
    const free = (name: string) => endings.every((e) => !taken.has(name + e));
    let name = base;
    for (let n = 1; !free(name); n++) name = `${base}-${output}${n > 1 ? `-${n}` : ''}`;
    for (const e of endings) taken.add(name + e);
    return name;
  });
}

/**
 * File name of a frame, without extension. Numbered files get a folder of their own if the pattern has none, so that
 * outputs do not mix.
 *
 * @param base of its output
 */
export function frameNameOf(pattern: string, base: string, named: Named, frame: number): string {
  if (pattern.includes('{frame}')) return nameBy(pattern, named, frame);
  return `${base}/${base.slice(base.lastIndexOf('/') + 1)}-${frameDigits(frame, named.frames)}`;
}
