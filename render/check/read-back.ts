import { open, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { gifDelays } from '@maypole/core/output/gif-times';
import { outputs } from '@maypole/core/output/index';
import { gifTimes } from '../files/gif';
import { shownIn } from '../outputs/gif.server';
import type { ExportJob } from '../outputs/exporter';
import { rateOf } from '../outputs/exporter';
import { loopCount, probe } from './probe';
import { readShapeFile } from './shape-file';
import type { Fact, FileReport } from './report';
import { repairsOf, roundOf, seamWords, verdictOf } from './round';
import { comparedSize, fromFiles, fromMovie, fromSheets } from './small-pictures';
import { stillFacts } from './still-file';

/** Most pictures that are compared with their frames; for longer files only facts are checked. */
const MOST_COMPARED = 3000;
/** Bytes at the start of a file within which it states its loop count. */
const HEAD = 1 << 16;

const fact = (title: string, found: string | number, wanted: string | number): Fact =>
  `${found}` === `${wanted}` ? { title, found: `${found}` } : { title, found: `${found}`, wanted: `${wanted}` };

/** Reads a finished output back and plays it round its seam. `files` are names in its folder. */
export async function readBack(kind: string, making: ExportJob, files: readonly string[]): Promise<FileReport> {
  const declared = outputs.get(kind);
  const { group, many } = declared;
  if (group === 'shapes') return readShapeFile(kind, making, files);
  if (group === 'movies' || group === 'animated') return moving(kind, making, files[0]);
  if (kind === 'page') {
    const [html, webm, mp4] = files;
    const both = await Promise.all([moving('webm', making, webm), moving('mp4', making, mp4)]);
    const bad = both.find((r) => !r.sound) ?? both[0];
    return { ...bad, facts: [{ title: 'Page', found: html }, ...both.flatMap((r) => r.facts)] };
  }
  return many ? pictures(kind, making, files) : { ...(await single(making, files)), sound: true };
}

function told(facts: readonly Fact[], good: string): { sound: boolean; words: string } {
  const wrong = facts.filter((f) => f.wanted !== undefined);
  return wrong.length === 0
    ? { sound: true, words: good }
    : { sound: false, words: `${wrong.map((f) => `${f.title} is ${f.found} and should be ${f.wanted}`).join('; ')}.` };
}

async function moving(kind: string, asked: ExportJob, name: string): Promise<FileReport> {
  const { making, every } = kind === 'gif' ? shownIn(asked) : { making: asked, every: 1 };
  const file = path.join(making.folder, name);
  const { frames, size, signal, values } = making;
  const plays = Number(values.plays ?? 1);
  const found = await probe(file, signal);
  const { bytes } = await head(file);
  const animated = outputs.get(kind).group === 'animated';
  // Timestamps of animated pictures are whole hundredths or thousandths of a second.
  const rate = animated ? nearRate(found.meanRate) : found.rate;
  const wantedRate = animated ? nearRate(rateOf(making.piece)) : rateOf(making.piece);
  // The reader gives no picture count for these.
  const counted = kind !== 'webp';
  const facts: Fact[] = [
    ...(counted ? [fact('Pictures', found.count, plays * frames.length)] : []),
    ...(counted || found.width
      ? [fact('Size', `${found.width} × ${found.height}`, `${size.width} × ${size.height}`)]
      : []),
    ...(counted && !(animated && frames.length < 2) && kind !== 'gif' ? [fact('Rate', rate, reduced(wantedRate))] : []),
    ...(kind === 'gif' ? await gifFacts(file, asked, every) : []),
    ...(animated
      ? kind === 'avif'
        ? []
        : [fact('Goes round', loopWords(loopCount(bytes)), 'for ever')]
      : [
          fact('Colours', [...new Set([found.primaries, found.transfer, found.space])].join(', '), 'bt709'),
          fact('Range', found.range, 'tv'),
        ]),
    ...(values.clear === true && counted ? [fact('Alpha', found.alpha ? 'yes' : 'no', 'yes')] : []),
    { title: 'Coded as', found: `${found.codec}, ${found.pixels}` },
  ];
  const count = frames.length * plays;
  const base = told(facts, 'Counts, size, rate and colours are as asked for.');
  if (frames.length < 2 || count > MOST_COMPARED || kind === 'webp') return { ...base, facts };
  const small = comparedSize(size);
  const round = await roundOf(
    fromMovie(file, small, kind),
    fromSheets(making.sheet, frames.length, plays, small),
    frames.length,
    plays,
  );
  // Animated pictures with a palette differ in colour on purpose.
  const all = animated ? facts : [...facts, colourFact(round, values.quality === 'preview' ? 2 : 1)];
  return withRound(animated ? base : told(all, base.words), all, round, making);
}

/** Delays of a GIF's pictures as it states them, and which frames it has. */
async function gifFacts(file: string, { piece, frames }: ExportJob, every: number): Promise<Fact[]> {
  const found = gifTimes(await readFile(file));
  const wanted = gifDelays(piece.loop.fps, frames.length, every);
  const words = (times: readonly number[]) =>
    `${(times.reduce((a, b) => a + b, 0) / 100).toFixed(2)} s, pictures of ${[...new Set(times)].sort((a, b) => a - b).join(', ')} hundredths`;
  const same = found.length === wanted.length && found.every((t, i) => t === wanted[i]);
  return [
    { title: 'Time', found: words(found), ...(same ? {} : { wanted: words(wanted) }) },
    ...(every > 1 ? [{ title: 'Frames', found: `one of ${every}, since players show no more than 50 a second` }] : []),
  ];
}

/** The mean colour of a file beside that of its frames; `most` is the allowed difference, of 255. */
function colourFact({ colour = [0, 0, 0] }: NonNullable<FileReport['round']>, most: number): Fact {
  const found = `${colour.map((x) => `${x < 0 ? '−' : '+'}${Math.abs(x).toFixed(1)}`).join(', ')} of 255 from its frames`;
  const title = 'Mean colour';
  return colour.every((x) => Math.abs(x) <= most)
    ? { title, found }
    : { title, found, wanted: `within ${most} of 255` };
}

function withRound(
  base: { sound: boolean; words: string },
  facts: readonly Fact[],
  round: NonNullable<FileReport['round']>,
  making: ExportJob,
): FileReport {
  const whole = making.frames.length === making.piece.loop.frames;
  // Part of a loop has no seam to close.
  if (!whole) return { ...base, facts, round: { ...round, seams: [] } };
  const { closed } = verdictOf(round);
  const words = seamWords(round);
  return {
    sound: base.sound && closed,
    words: base.sound ? words : `${base.words} ${words}`,
    facts,
    round,
    ...(closed ? {} : { repairs: repairsOf(making.values) }),
  };
}

async function pictures(kind: string, making: ExportJob, files: readonly string[]): Promise<FileReport> {
  const { folder, frames, size } = making;
  const facts: Fact[] = [fact('Pictures', files.length, frames.length)];
  facts.push(
    ...(await stillFacts(
      kind,
      files.map((f) => path.join(folder, f)),
      size,
      making.values,
    )),
  );
  const base = told(facts, 'Counts, sizes and forms are as asked for.');
  if (kind === 'exr' || frames.length < 2 || frames.length > MOST_COMPARED) return { ...base, facts };
  const small = comparedSize(size);
  const round = await roundOf(
    fromFiles(
      files.map((f) => path.join(folder, f)),
      small,
    ),
    fromSheets(making.sheet, frames.length, 1, small),
    frames.length,
    1,
  );
  return withRound(base, facts, round, making);
}

async function single(making: ExportJob, files: readonly string[]): Promise<Omit<FileReport, 'sound'>> {
  const { size } = await stat(path.join(making.folder, files[0]));
  return { words: 'It is there and whole.', facts: [{ title: 'Bytes', found: `${size}` }] };
}

async function head(file: string): Promise<{ bytes: Buffer }> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(HEAD), 0, HEAD, 0);
    return { bytes: buffer.subarray(0, bytesRead) };
  } finally {
    await handle.close();
  }
}

function loopWords(count: number | undefined): string {
  return count === undefined ? 'once' : count === 0 ? 'for ever' : `${count} times`;
}

/** A rate as whole thousandths of a second can express it. */
function nearRate(rate: string): string {
  const [n, d = 1] = rate.split('/').map(Number);
  return d ? `${Math.round((10 * n) / d) / 10}` : rate;
}

function reduced(rate: string): string {
  const [n, d = 1] = rate.split('/').map(Number);
  return rate.includes('/') && d === 1 ? `${n}/1` : rate;
}
