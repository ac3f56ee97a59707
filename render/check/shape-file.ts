import { open, readFile, stat } from 'node:fs/promises';
import path from 'node:path';
import { frameRate } from '@maypole/core/time/loop';
import type { ExportJob } from '../outputs/exporter';
import type { Fact, FileReport } from './report';

/** Bytes of a text file that are searched. */
const MOST_TEXT = 400e6;

const fact = (title: string, found: string | number, wanted: string | number): Fact =>
  `${found}` === `${wanted}` ? { title, found: `${found}` } : { title, found: `${found}`, wanted: `${wanted}` };

/** Reads files of moving shapes back: whether they are whole, and have as many time samples as frames. */
export async function readShapeFile(kind: string, making: ExportJob, files: readonly string[]): Promise<FileReport> {
  const facts: Fact[] = [];
  const at = (name: string) => path.join(making.folder, name);
  if (kind === 'obj' || kind === 'ply') {
    facts.push(fact('Files', files.length, making.frames.length));
    let empty = 0;
    for (const name of files) if ((await stat(at(name))).size === 0) empty++;
    facts.push(fact('Empty files', empty, 0));
  } else if (kind === 'glb') facts.push(...(await glbFacts(at(files[0]), making)));
  else facts.push(...(await usdFacts(at(files[0]), making)));
  const wrong = facts.filter((f) => f.wanted !== undefined);
  return {
    sound: wrong.length === 0,
    words:
      wrong.length === 0
        ? 'It is whole, and holds every frame.'
        : `${wrong.map((f) => `${f.title} is ${f.found} and should be ${f.wanted}`).join('; ')}.`,
    facts,
  };
}

interface Gltf {
  readonly meshes?: readonly unknown[];
  readonly accessors: readonly { readonly max?: readonly number[]; readonly count: number }[];
  readonly animations?: readonly { readonly samplers: readonly { readonly input: number }[] }[];
}

async function glbFacts(file: string, { frames, piece }: ExportJob): Promise<Fact[]> {
  const { size } = await stat(file);
  const handle = await open(file);
  try {
    const head = (await handle.read(Buffer.alloc(20), 0, 20, 0)).buffer;
    const length = head.readUInt32LE(12);
    const json = JSON.parse((await handle.read(Buffer.alloc(length), 0, length, 20)).buffer.toString()) as Gltf;
    const facts = [
      fact('Bytes', size, head.readUInt32LE(8)),
      { title: 'Shapes', found: `${json.meshes?.length ?? 0}` },
    ];
    const times = json.animations?.[0]?.samplers[0]?.input;
    if (times !== undefined) {
      const whole = frames.length === piece.loop.frames && frames.length > 1;
      const { num, den } = frameRate(piece.loop.fps);
      const last = ((whole ? frames.length : frames.length - 1) * den) / num;
      facts.push(fact('Moments', json.accessors[times].count, frames.length + (whole ? 1 : 0)));
      facts.push(fact('Seconds', json.accessors[times].max![0].toFixed(4), last.toFixed(4)));
    }
    return facts;
  } finally {
    await handle.close();
  }
}

async function usdFacts(file: string, { frames }: ExportJob): Promise<Fact[]> {
  const { size } = await stat(file);
  const facts: Fact[] = [{ title: 'Bytes', found: `${size}` }];
  if (size > MOST_TEXT) return facts;
  const text = await readFile(file, 'utf8');
  const number = (name: string) => new RegExp(`${name} = (-?[\\d.]+)`).exec(text)?.[1] ?? 'none';
  return [
    ...facts,
    fact('First line', text.slice(0, text.indexOf('\n')), '#usda 1.0'),
    fact('First frame', number('startTimeCode'), frames[0]),
    fact('Last frame', number('endTimeCode'), frames[frames.length - 1]),
  ];
}
