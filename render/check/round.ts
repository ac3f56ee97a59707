import type { Repair, Round } from './report';

/** A sequence of small pictures: 8-bit red, green and blue. */
export type Pictures = AsyncIterable<Uint8Array>;

/** Differences within a sequence of pictures. */
export interface Going {
  readonly steps: readonly number[];
  readonly brightness: readonly number[];
}

/** Mean difference of two pictures. */
function apart(a: Uint8Array, b: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += Math.abs(a[i] - b[i]);
  return sum / a.length;
}

function mean(a: Uint8Array): number {
  let sum = 0;
  for (const v of a) sum += v;
  return sum / a.length;
}

/** Mean red, green and blue. */
function meanColour(a: Uint8Array): number[] {
  const sum = [0, 0, 0];
  for (let i = 0; i < a.length; i++) sum[i % 3] += a[i];
  return sum.map((x) => (3 * x) / a.length);
}

/** Peak signal-to-noise ratio of equal pictures in dB: finite, so that any document can hold it. */
const ALIKE = 99;

/** Compares the pictures of a file with its frames side by side; holds only a few in memory. */
export async function roundOf(file: Pictures, made: Pictures, frames: number, plays: number): Promise<Round> {
  const [own, source] = [new Follower(), new Follower()];
  const other = made[Symbol.asyncIterator]();
  let worst = ALIKE;
  const colour = [0, 0, 0];
  let compared = 0;
  for await (const picture of file) {
    own.next(picture);
    const { value, done } = await other.next();
    if (done) continue;
    source.next(value);
    worst = Math.min(worst, psnr(picture, value));
    const [a, b] = [picture, value].map(meanColour);
    for (let k = 0; k < 3; k++) colour[k] += a[k] - b[k];
    compared++;
  }
  await other.return?.();
  const [f, m] = [own.end(), source.end()];
  const seams = Array.from({ length: plays }, (_, k) => (k + 1) * frames - 1).filter((s) => s < f.steps.length);
  const jump = ({ brightness: b }: Going) => b[0] - b[b.length - 1];
  return {
    file: f.steps,
    made: m.steps,
    seams,
    worstPsnr: worst,
    colour: colour.map((x) => x / Math.max(1, compared)),
    brightness: jump(f) - jump(m),
  };
}

function psnr(a: Uint8Array, b: Uint8Array): number {
  let sum = 0;
  for (let i = 0; i < a.length; i++) sum += (a[i] - b[i]) ** 2;
  return sum === 0 ? ALIKE : Math.min(ALIKE, 10 * Math.log10((255 * 255) / (sum / a.length)));
}

class Follower {
  private first: Uint8Array | undefined;
  private before: Uint8Array | undefined;
  private readonly steps: number[] = [];
  private readonly brightness: number[] = [];

  next(picture: Uint8Array): void {
    if (this.before) this.steps.push(apart(this.before, picture));
    this.first ??= picture;
    this.before = picture;
    this.brightness.push(mean(picture));
  }

  end(): Going {
    if (this.first && this.before) this.steps.push(apart(this.before, this.first));
    return { steps: this.steps, brightness: this.brightness };
  }
}

/**
 * A step that the eye does not see: mean 8-bit values over the picture, and as a fraction of what moves there anyway.
 */
const [UNSEEN, SHARE] = [0.75, 0.2];

export interface Verdict {
  readonly closed: boolean;
  /** How much larger the step at the seam is than in the frames. */
  readonly more: number;
  /** How much steps elsewhere differ from those of the frames: the 95th percentile. */
  readonly usual: number;
}

/**
 * Whether the file passes its seam as the frames do: the encoder added no more to that step than to others, or no more
 * than the eye sees.
 */
export function verdictOf({ file, made, seams }: Pick<Round, 'file' | 'made' | 'seams'>): Verdict {
  const added = file.map((s, i) => s - (made[i % Math.max(1, made.length)] ?? s));
  const elsewhere = added
    .filter((_, i) => !seams.includes(i))
    .map(Math.abs)
    .sort((a, b) => a - b);
  const usual =
    elsewhere.length > 0 ? elsewhere[Math.min(elsewhere.length - 1, Math.floor(0.95 * elsewhere.length))] : 0;
  const more = Math.max(0, ...seams.map((s) => added[s] ?? 0));
  const moves = made[(seams[0] ?? 0) % Math.max(1, made.length)] ?? 0;
  return { closed: more <= Math.max(UNSEEN, 2 * usual, SHARE * moves), more, usual };
}

const figure = (x: number) => (x < 10 ? x.toFixed(2) : x.toFixed(1));

/** The seam of a file, as a sentence. */
export function seamWords(round: Round): string {
  const { closed, more, usual } = verdictOf(round);
  const at = round.seams[round.seams.length - 1];
  const step = figure(round.file[at] ?? 0);
  const most = figure(Math.max(0, ...round.file.filter((_, i) => !round.seams.includes(i))));
  if (closed)
    return `The file goes round its seam without a jolt: the step there is ${step} of 255, and at most ${most} elsewhere.`;
  return (
    `The file has a pulse at its seam: the step there is ${step} of 255, ${figure(more)} more than in the ` +
    `frames, while elsewhere the encoder adds no more than ${figure(usual)}.`
  );
}

/** Settings that reduce a pulse, of those that the output has and that are not set already. */
export function repairsOf(values: Readonly<Record<string, unknown>>): Repair[] {
  const out: Repair[] = [];
  if (values.quality === 'preview') out.push({ title: 'Quality: good', values: { quality: 'good' } });
  if (values.quality === 'good') out.push({ title: 'Quality: visually lossless', values: { quality: 'lossless' } });
  if (values.whole === false) out.push({ title: 'All-intra', values: { whole: true } });
  return out;
}
