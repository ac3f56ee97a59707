import { createHash } from 'node:crypto';
import { expect, it } from 'vitest';
import { exrBlocks, writeExr } from '@maypole/core/files/exr';
import { exrFaultInSteps } from '@maypole/core/files/exr-fault';
import { EXRLoader } from 'three/addons/loaders/EXRLoader.js';
import { packedExr } from './files/exr';
import { sha256 } from './frame/keep';

const [width, height] = [37, 50];
const noise = (n: number, seed: number) => Float32Array.from({ length: n }, (_, i) => Math.sin(i * 12.9898 + seed) * 3);
const picture = (seed: number) =>
  [
    noise(4 * width * height, seed),
    width,
    height,
    [{ name: 'depth', channels: 'Z', values: noise(width * height, 9) }],
    { precision: 'half' },
  ] as const;

it('packed by zlib in threads a picture is the one that is packed here, in blocks of sixteen rows and fewer', async () => {
  const { bytes } = await packedExr(...picture(1));
  const [values, w, h, layers, form] = picture(1);
  const here = writeExr(values, w, h, layers, { ...form, packed: true });
  // An outside reader: the EXRLoader of three.js.
  const read = (file: Uint8Array<ArrayBuffer>) => new EXRLoader().parse(file.slice().buffer) as { data: Uint16Array };
  expect(read(bytes as Uint8Array<ArrayBuffer>).data).toEqual(read(here).data);
  const fault = exrFaultInSteps(bytes, width, height);
  for (let step = fault.next(); ; step = fault.next()) if (step.done) return expect(step.value).toBeUndefined();
});

it('its content is that of the picture alone', async () => {
  const [one, again, other] = await Promise.all([1, 1, 2].map((seed) => packedExr(...picture(seed))));
  expect(again.content).toBe(one.content);
  expect(other.content).not.toBe(one.content);
  const [values, w, h, layers, form] = picture(1);
  const blocks = exrBlocks(values, w, h, layers, { ...form, packed: true });
  const whole = createHash('sha256').update(blocks.header);
  for (let i = 0; i < blocks.count; i++) whole.update(blocks.raw(i));
  expect(one.content).toBe(whole.digest('hex'));
  expect(one.content).not.toBe(sha256(one.bytes));
});
