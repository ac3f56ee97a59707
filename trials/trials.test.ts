import { randomSource } from '@maypole/core/maths/random';
import { describe, expect, it } from 'vitest';
import { documents, spoilt } from './documents';
import { DOCUMENTS, FILES } from './explosive';
import { spoiltFiles } from './files';
import { measured } from './measure';
import { percentile } from './trial';
import { rounds } from '@maypole/core/fixtures/effort';

describe('the short form of trials', () => {
  it('documents that are spoilt are read, or refused in a sentence', async () => {
    const { wrong, figures } = await documents.run(rounds(150, 400), 21, () => undefined);
    expect(wrong).toEqual([]);
    expect(figures.taken).toBeGreaterThan(0);
  });
  it('a document is spoilt in many ways, the same for the same seed', () => {
    const random = randomSource(3);
    const all = new Set(Array.from({ length: 60 }, () => spoilt('{"a":{"b":[1,2,{"c":3}]},"d":"x"}', random)));
    expect(all.size).toBeGreaterThan(20);
    const [a, b] = [randomSource(5), randomSource(5)];
    expect(spoilt('{"a":[1,2]}', a)).toBe(spoilt('{"a":[1,2]}', b));
  });
  it('files that are spoilt are taken, or refused in a sentence', async () => {
    const { wrong, taken, took } = await spoiltFiles(400, 22);
    expect(wrong).toEqual([]);
    expect(taken).toBeGreaterThan(20);
    expect(taken).toBeLessThan(400);
    expect(took.length).toBe(400);
  });
  it.each(
    [FILES, DOCUMENTS].flatMap((list) =>
      list
        .filter((one) =>
          ['face.obj', 'lines.obj', 'nodes.gltf', 'brackets.gltf', 'values'].slice(0, rounds(2, 5)).includes(one.name),
        )
        .map((one) => [one.of, list === FILES ? 'file' : 'document', one.name] as const),
    ),
  )('%s do not blow a reader up', async (_of, what, name) => {
    const { megabytes, how } = await measured(what, name);
    expect(how).not.toMatch(/^FAULT|^ended/);
    expect(how.length).toBeGreaterThan(20);
    expect(megabytes).toBeLessThan(300);
  });
  it('a share of a list is told by its nearest rank', () => {
    const list = [5, 1, 4, 2, 3];
    expect([0.5, 0.95, 1, 0].map((s) => percentile(list, s))).toEqual([3, 5, 5, 1]);
    expect(percentile([], 0.5)).toBe(0);
  });
});
