import type { PixelSize } from './kind';

/** What a name may tell of. */
export interface Named extends PixelSize {
  /** Of the piece. */
  readonly piece: string;
  /** Word for the kind of output: "mp4". */
  readonly output: string;
  readonly fps: number;
  /** Frames of the loop. */
  readonly frames: number;
  readonly revision: number;
  readonly date: Date;
}

const WORDS = ['piece', 'size', 'width', 'height', 'output', 'fps', 'frames', 'revision', 'date', 'frame'] as const;

/** Bytes of a name at most, as UTF-8: with a number and an ending it stays below the 255 that file systems take. */
const MOST_BYTES = 180;

/**
 * Letters and digits of whatever script, and single dashes: a name that every system takes. Latin letters stand without
 * their accents, as most who type them expect; those of other scripts keep their marks, without which they are others.
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

/** Why names cannot be made by a pattern, with the remedy; null where they can. */
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

/** A frame number with as many digits as the last one of the loop has, at least four. */
export function frameDigits(frame: number, frames: number): string {
  return String(frame).padStart(Math.max(4, String(frames - 1).length), '0');
}

/**
 * A file's path by a pattern, without its ending: "{piece}/{size}" → "halo/1080x1080". Where it is one of many and the
 * pattern does not say {frame}, the number comes last.
 *
 * @param frame the frame that the file is of; absent where it is of all
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

/** Files of an output as far as their names can meet those of others. */
export interface Naming {
  readonly base: string;
  /** Word for its kind. */
  readonly output: string;
  /** What follows the base in each of its names: ".mp4", or "/" for a folder of its own. */
  readonly endings: readonly string[];
}

/** Bases of the names of several outputs, told apart where two would be alike: by the kind, then by a number. */
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
 * Name of the file of a frame, without its ending. Many pictures go into a folder of their own where the pattern has
 * none of them by itself, so that outputs do not lie among each other.
 *
 * @param base of its output
 */
export function frameNameOf(pattern: string, base: string, named: Named, frame: number): string {
  if (pattern.includes('{frame}')) return nameBy(pattern, named, frame);
  return `${base}/${base.slice(base.lastIndexOf('/') + 1)}-${frameDigits(frame, named.frames)}`;
}
