import { describe, expect, it } from 'vitest';
import { jsonShape, jsonTooLarge } from '../declare/json-shape';
import { Words } from './words';

const words = (text: string, objLike = false) => new Words(new TextEncoder().encode(text), objLike);

describe('words of a file', () => {
  it('are read line by line, and lines are counted as an editor does', () => {
    const w = words('\n  v 1  2\t3\r\n\r\nf a/b\n');
    expect(w.next()).toBe(true);
    expect([w.line, w.word(), w.word(), w.word(), w.word(), w.word()]).toEqual([2, 'v', '1', '2', '3', '']);
    expect(w.next()).toBe(true);
    expect([w.line, w.word(), w.word(), w.word()]).toEqual([4, 'f', 'a/b', '']);
    expect(w.next()).toBe(false);
  });
  it('end where a comment begins, and go on over a line that is continued', () => {
    const w = words('v 1 \\\n 2 \\\r\n3 # 4\n# all\nvt 5', true);
    w.next();
    expect(['v', '1', '2', '3', ''].map(() => w.word())).toEqual(['v', '1', '2', '3', '']);
    expect(w.next() && w.word()).toBe('');
    expect(w.next() && w.word()).toBe('vt');
    expect(w.line).toBe(5);
    const plain = words('a # b');
    plain.next();
    expect([plain.word(), plain.word(), plain.word()]).toEqual(['a', '#', 'b']);
  });
  it('are found over all lines', () => {
    const w = words('\n solid\n\n x');
    expect([w.wordAnywhere(), w.wordAnywhere(), w.wordAnywhere()]).toEqual(['solid', 'x', '']);
  });
  it('are cut where they are longer than any that means something', () => {
    const w = words(`${'x'.repeat(100_000)} y`);
    w.next();
    expect([w.word().length, w.word()]).toEqual([256, 'y']);
  });
  it('are the numbers that Number has, to the last bit', () => {
    let state = 1;
    const next = () => (state = (state * 48_271) % 2_147_483_647);
    const texts = [
      '0',
      '-0',
      '+1.5',
      '.5',
      '5.',
      '1e3',
      '-1.25E-7',
      '0.1',
      '123456789012345',
      '1234567890123456789',
      '3.141592653589793238',
      '1e400',
    ];
    for (let i = 0; i < 5000; i++) {
      const digits = `${next()}${next()}`.slice(0, 1 + (next() % 17));
      const point = next() % (digits.length + 1);
      texts.push(`${next() % 2 ? '-' : ''}${digits.slice(0, point)}.${digits.slice(point)}`);
    }
    for (const text of texts.filter((t) => /\d/.test(t))) {
      const w = words(text);
      w.next();
      expect(Object.is(w.number(), Number(text)), text).toBe(true);
    }
    for (const text of ['', 'x', '1x', '--1', '1.2.3', '-', '.']) expect(words(`${text} `).number(), text).toBeNaN();
  });
});

describe('the shape of a text in JSON', () => {
  it.each([
    ['1', 0, 1],
    ['[1,2,[3]]', 2, 5],
    ['{"a":"[[[","b\\"[":1}', 1, 3],
    ['["\\\\",["x"]]', 2, 4],
    ['"open', 0, 1],
  ])('%s', (text, depth, values) => expect(jsonShape(text)).toEqual({ depth, values }));
  it('tells what is more than is read', () => {
    const most = { depth: 3, values: 10 };
    expect(jsonTooLarge('[[[1]]]', most)).toBeUndefined();
    expect(jsonTooLarge('[[[[1]]]]', most)).toContain('4 deep');
    expect(jsonTooLarge(`[${'1,'.repeat(20)}1]`, most)).toContain('22 values');
  });
});
