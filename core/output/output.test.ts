import { describe, expect, it } from 'vitest';
import { newItem, newPiece, newRibbon } from '../piece/piece';
import { basesOf } from './bases';
import { deliveryFault, outputFault } from '../piece/delivery-fault';
import { frameOrder, spreadOut } from './frame-order';
import { outputs } from './index';
import { OUTPUT_GROUPS } from './kind';
import { frameDigits, frameNameOf, nameBy, patternFault, plainName, toldApart, type Named } from './names';
import { OUTPUT_PRESETS } from './presets';
import { framesWanted, renderSettings } from './render-settings';
import { FRAME_IMAGES } from './frame-image';

const named: Named = {
  piece: 'Pressure Cells',
  width: 1080,
  height: 1920,
  output: 'png',
  fps: 23.976,
  frames: 240,
  revision: 7,
  date: new Date('2026-11-27T12:00:00Z'),
};

describe('names of files', () => {
  it('are plain, whatever a piece is called', () => {
    expect(
      ['Pressure Cells', 'Été  n° 3', '///', '星', 'Северный ветер', 'हवा / १', '바람 2', 'Été'].map(plainName),
    ).toEqual(['pressure-cells', 'ete-n-3', 'piece', '星', 'северный-ветер', 'हवा-१', '바람-2', 'ete']);
    // With a number and an ending it is below the 255 bytes that file systems take (POSIX NAME_MAX as Linux has it).
    expect(Buffer.byteLength(plainName('風'.repeat(200)))).toBeLessThanOrEqual(180);
  });
  it('tell what their pattern asks for', () => {
    expect(nameBy('{piece}-{size}', named)).toBe('pressure-cells-1080x1920');
    expect(nameBy('{date}/{piece}/{output}_{fps}fps_r{revision}', named)).toBe(
      '2026-11-27/pressure-cells/png_23-976fps_r7',
    );
    expect(nameBy('{piece}/{frame}', named, 3)).toBe('pressure-cells/0003');
    expect(nameBy('{piece}', named, 3)).toBe('pressure-cells-0003');
  });
  it('sort in playing order', () => {
    const names = [0, 9, 10, 99, 9999, 12_345].map((f) => frameDigits(f, 20_000));
    expect([...names].sort()).toEqual(names);
  });
  it('of frames stand in a folder of their own, unless the pattern says where', () => {
    expect(frameNameOf('{piece}', 'halo', named, 12)).toBe('halo/halo-0012');
    expect(frameNameOf('{piece}', 'work/halo', named, 12)).toBe('work/halo/halo-0012');
    expect(frameNameOf('{piece}/f{frame}', 'halo', named, 12)).toBe('pressure-cells/f0012');
  });
  it('never lead out of their folder', () => {
    for (const pattern of ['../{piece}', '{piece}/..', './x', '/x', 'x/', 'a//b', '{piece}/. ./x'])
      expect(patternFault(pattern) !== null || !nameBy(pattern, named).split('/').includes('..'), pattern).toBe(true);
    expect(nameBy('{piece}', { ...named, piece: '../../etc/passwd' })).toBe('etc-passwd');
  });
  it.each([
    ['', 'need a pattern'],
    ['{peace}', '“{peace}” is nothing a name can tell'],
    ['{piece', 'has no }'],
    ['a:b', 'cannot have any of'],
    ['a//b', 'Between two /'],
  ])('%j is refused in a sentence', (pattern, words) => expect(patternFault(pattern)).toContain(words));
  it('of several outputs are told apart, files beside them among it', () => {
    const one = (output: string, ...endings: string[]) => ({ base: 'halo', output, endings });
    expect(
      toldApart([
        one('mp4', '.mp4'),
        one('hevc', '.mp4'),
        one('hevc', '.mp4'),
        one('page', '.html', '.mp4'),
        one('png', '/.png'),
      ]),
    ).toEqual(['halo', 'halo-hevc', 'halo-hevc-2', 'halo-page', 'halo']);
    const items = ['mp4', 'page', 'webm', 'png', 'apng'].map((kind) => newItem(outputs.get(kind)));
    expect(basesOf(items, '{piece}', named)).toEqual(['', '-page', '', '', ''].map((end) => `pressure-cells${end}`));
  });
});

describe('frames of a render', () => {
  it('are those that were asked for, and never frame N', () => {
    const wanted = (from: number, to: number, range: 'all' | 'part' = 'part') => framesWanted({ range, from, to }, 4);
    expect(wanted(2, 3, 'all')).toEqual([0, 1, 2, 3]);
    expect(wanted(2, 3)).toEqual([2, 3]);
    expect(wanted(2, 1)).toEqual([1, 2]);
    expect(wanted(3, 9)).toEqual([3]);
    expect(wanted(99, 99)).toEqual([3]);
  });
  it('are made first far apart, and each once', () => {
    for (const n of [1, 2, 3, 7, 100, 240]) {
      const order = spreadOut(n);
      expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: n }, (_, i) => i));
    }
    expect(spreadOut(8)).toEqual([0, 4, 2, 6, 1, 5, 3, 7]);
  });
  it('depend on nothing that is of no use in their light', () => {
    const s = renderSettings({ light: 'true', subframes: 99, look: 'clay', samples: 12 });
    expect(frameOrder(s, { width: 8, height: 9 })).toEqual({
      light: 'true',
      width: 8,
      height: 9,
      detail: 'final',
      samples: 12,
      error: 0,
      denoise: true,
    });
  });
});

describe('every kind of output', () => {
  const all = outputs.all.map((o) => [o.kind, o] as const);
  it.each(all)('%s is in a group, and made of a sheet that there is, or of shapes', (_, kind) => {
    expect(OUTPUT_GROUPS.map((g) => g.value)).toContain(kind.group);
    const sheet = kind.sheet(Object.fromEntries(Object.entries(kind.params).map(([n, p]) => [n, p.default])) as never);
    if (kind.group === 'shapes') expect(sheet).toBeNull();
    else expect(Object.keys(FRAME_IMAGES)).toContain(sheet);
  });
  it('that halves its colours asks for even sides, and says which', () => {
    const piece = { ...newPiece(), format: { width: 1081, height: 720 } };
    for (const kind of ['mp4', 'hevc', 'webm', 'av1', 'prores', 'avif', 'page'])
      expect(outputFault(piece, newItem(outputs.get(kind))), kind).toContain('use 1082 × 720');
  });
  it('that quick light cannot make says so', () => {
    const piece = newPiece();
    expect(outputFault(piece, newItem(outputs.get('exr')))).toContain('set Light to True');
    expect(outputFault(piece, newItem(outputs.get('png'), { depth: '16' }))).toContain('set Light to True');
    const lit = { ...piece, render: { ...piece.render, values: { ...piece.render.values, light: 'true' } } };
    expect(outputFault(lit, newItem(outputs.get('exr')))).toBeNull();
  });
});

describe('what is to be delivered', () => {
  const piece = { ...newPiece(), ribbons: [newRibbon('box', 0)] };
  it('without outputs, or without anything in the picture, is told of', () => {
    expect(deliveryFault(piece)).toContain('add an output');
    const some = { ...piece, outputs: [newItem(outputs.get('mp4'))] };
    expect(deliveryFault(some)).toBeNull();
    expect(deliveryFault({ ...some, ribbons: [] })).toContain('add a ribbon');
    const odd = { ...some, render: { ...some.render, values: { ...some.render.values, name: '{x}' } } };
    expect(deliveryFault(odd)).toContain('“{x}”');
  });
  it.each(OUTPUT_PRESETS.map((p) => [p.id, p] as const))('the purpose %s can be made as it stands', (_, preset) => {
    const made = {
      ...piece,
      format: preset.size ?? piece.format,
      render: { ...piece.render, values: { ...piece.render.values, ...preset.render } },
      outputs: preset.outputs.map(([kind, values]) => newItem(outputs.get(kind), values)),
    };
    expect(deliveryFault(made)).toBeNull();
  });
});
