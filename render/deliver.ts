import { createHash } from 'node:crypto';
import { createReadStream, mkdirSync } from 'node:fs';
import { stat } from 'node:fs/promises';
import path from 'node:path';
import { outputs } from '@maypole/core/output/index';
import { outputValues } from '@maypole/core/piece/delivery-fault';
import { frameNameOf, type Named } from '@maypole/core/output/names';
import type { Item, Piece } from '@maypole/core/piece/piece';
import type { FrameImageName } from '@maypole/core/output/frame-image';
import type { PixelSize } from '@maypole/core/output/kind';
import { readBack } from './check/read-back';
import type { FileReport } from './check/report';
import { makers } from './outputs/index';
import type { ExportJob } from './outputs/exporter';

/** A file of an output. */
export interface MadeFile {
  readonly name: string;
  readonly bytes: number;
  readonly sha256: string;
}

export interface MadeOutput {
  readonly files: readonly MadeFile[];
  readonly report: FileReport;
}

/** The frame image that an output is made from; null for shapes. */
export function frameImageOf(item: Pick<Item, 'kind' | 'values'>): FrameImageName | null {
  return outputs.get(item.kind).sheet(outputValues(item));
}

/** Frame images that some outputs need, each once. */
export function frameImagesFor(items: readonly Item[]): FrameImageName[] {
  return [...new Set(items.map(frameImageOf).filter((s) => s !== null))].sort();
}

export interface DeliverOrder {
  readonly item: Item;
  readonly piece: Piece;
  readonly size: PixelSize;
  readonly frames: readonly number[];
  /** File of a frame image, by position among the frames. */
  readonly sheet: (name: FrameImageName, index: number) => string;
  readonly folder: string;
  /** See `basesOf`. */
  readonly base: string;
  readonly pattern: string;
  readonly named: Omit<Named, 'output'>;
  readonly signal?: AbortSignal;
  readonly onShare?: (share: number) => void;
}

/** Makes the files of one output from existing frames, and reads them back. */
export async function deliverOutput(order: DeliverOrder): Promise<MadeOutput> {
  const { item, folder, base, pattern, named } = order;
  const kind = outputs.get(item.kind);
  const values = outputValues(item);
  const sheet = frameImageOf(item);
  const frameName = (frame: number) =>
    `${frameNameOf(pattern, base, { ...named, output: item.kind }, frame)}.${kind.ending}`;
  const making: ExportJob = {
    values,
    size: order.size,
    piece: order.piece,
    frames: order.frames,
    sheet: (index) => order.sheet(sheet!, index),
    folder,
    base,
    frameName,
    ending: kind.ending,
    signal: order.signal,
    onShare: order.onShare,
  };
  const first = kind.many ? frameName(order.frames[0]) : `${base}.${kind.ending}`;
  mkdirSync(path.join(folder, path.dirname(first)), { recursive: true });
  const names = await (await makers[item.kind]())(making);
  const report = await readBack(item.kind, making, names);
  const files: MadeFile[] = [];
  for (const name of names) files.push(await fileAt(folder, name));
  return { files, report };
}

async function fileAt(folder: string, name: string): Promise<MadeFile> {
  const at = path.join(folder, name);
  const hash = createHash('sha256');
  for await (const chunk of createReadStream(at)) hash.update(chunk as Buffer);
  return { name, bytes: (await stat(at)).size, sha256: hash.digest('hex') };
}
