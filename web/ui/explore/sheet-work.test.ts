import type { Piece } from '@maypole/core/piece/piece';
import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Looked, Strip } from '@/engine/draw/contact-sheet';
import { useEditor } from '../state/store';
import { closeSheet, goBack, goOnFrom, openSheet, useSheet, varying } from './sheet-store';
import { APART, chooseTelling, drawSheet, gridOf } from './sheet-work';

/** What a piece looks like, by its ring: one grey field whose brightness is the radius of the ring. */
const drawn = vi.hoisted(() => ({
  look: (piece: unknown): unknown => piece,
  made: 0,
  rests: 0,
}));
vi.mock('@/engine/draw/contact-sheet', () => ({
  ContactSheetRenderer: {
    create: () =>
      Promise.resolve(void drawn.made++).then(() => ({
        plain: true,
        setAspect: () => undefined,
        look: (piece: unknown) => Promise.resolve(drawn.look(piece)),
        rest: () => Promise.resolve(void drawn.rests++),
        dispose: () => undefined,
      })),
  },
}));
vi.mock('../state/player', () => ({ pause: () => undefined }));

const ring: Piece = {
  ...newPiece('Ring'),
  ribbons: [
    { ...newRibbon('torus', 0, 'Ring'), steps: [newStep('torus', {}, 'a'), newStep('twist', { angle: 40 }, 'b')] },
  ],
};
const radiusOf = (p: Piece) => p.ribbons[0].steps[0].values.ringRadius as number;
const strip = { frames: 1, there: new Set([0]), width: 1, height: 1 } as unknown as Strip;
const looked = (grey: number, more: Partial<Looked> = {}): Looked => ({
  strip,
  signatures: [Float32Array.of(grey, 0, 0)],
  closes: true,
  size: 1,
  ...more,
});
const byRadius = (piece: unknown) => looked(radiusOf(piece as Piece) / 4);

beforeEach(() => {
  closeSheet();
  drawn.look = byRadius;
  drawn.rests = 0;
  useEditor.setState({ piece: ring, playing: false });
  useSheet.setState({ chosen: new Set(), locked: new Set(), reach: 1, count: 12, seed: 1 });
  openSheet();
});
const only = (title: string) =>
  useSheet.setState((s) => ({ chosen: new Set(s.variables.filter((v) => v.title === title).map((v) => v.key)) }));
const tiles = () => useSheet.getState().tiles;

describe('a sheet', () => {
  it('begins with the piece as it is, and has as many others as were asked for', async () => {
    await drawSheet();
    expect(tiles()).toHaveLength(13);
    expect([tiles()[0].index, tiles()[0].piece, tiles()[0].distance]).toEqual([-1, ring, 0]);
    expect(useSheet.getState()).toMatchObject({ working: null, plain: true });
    expect(drawn.rests).toBe(13);
  });
  it('leaves out what is like another, as long as there are others', async () => {
    only('Torus ring radius');
    await drawSheet();
    const grey = tiles().map((t) => t.signatures[0][0]);
    const near = grey.flatMap((a, i) => grey.slice(i + 1).map((b) => 100 * Math.abs(a - b)));
    expect(Math.min(...near)).toBeGreaterThanOrEqual(APART - 1e-4);
  });
  it('is filled with what is a little different where nothing is more', async () => {
    only('Torus ring radius');
    drawn.look = (p) => looked(radiusOf(p as Piece) / 1000);
    await drawSheet();
    // The piece, and those that can be told apart from it at all.
    expect(tiles().length).toBeGreaterThan(6);
  });
  it('leaves out what is unwanted, open, too large or too much, and says how many', async () => {
    only('Torus ring radius');
    let n = 0;
    drawn.look = (p) => {
      n++;
      if (n === 3) return 'heavy';
      if (n === 4) return 'size';
      return looked(radiusOf(p as Piece) / 4, n === 5 ? { closes: false } : {});
    };
    await drawSheet();
    expect(useSheet.getState().left).toMatchObject({ heavy: 1, size: 1, open: 1 });
    const least = tiles().filter((t) => t.index >= 0)[0];
    useSheet.setState((s) => ({ unwanted: [...s.unwanted, least.signatures] }));
    drawn.look = byRadius;
    await drawSheet();
    for (const t of tiles())
      expect(100 * Math.abs(t.signatures[0][0] - least.signatures[0][0])).toBeGreaterThanOrEqual(
        t.index < 0 ? 0 : APART - 1e-4,
      );
  });
  it('has just the throws of a kept one, however alike, until it is asked for something else', async () => {
    only('Torus ring radius');
    await drawSheet();
    const before = tiles().map((t) => JSON.stringify(t.piece));
    const throws = tiles().flatMap((t) => (t.index < 0 ? [] : [t.index]));
    useSheet.setState({ throws: throws.slice(0, 4) });
    drawn.look = () => looked(0.5);
    await drawSheet();
    expect(tiles().map((t) => JSON.stringify(t.piece))).toEqual(before.slice(0, 5));
    useSheet.setState({ seed: 2 });
    expect(useSheet.getState().throws).toBeNull();
  });
  it('says so where the piece itself is too much', async () => {
    drawn.look = () => 'heavy';
    await drawSheet();
    expect(useSheet.getState().working).toContain('too much work for a sheet');
    expect(tiles()).toEqual([]);
  });
  it('gives up what it was drawing when it is to be drawn anew', async () => {
    const first = drawSheet();
    await drawSheet();
    await first;
    expect(tiles()).toHaveLength(13);
    // What draws is kept from one sheet to the next.
    expect(drawn.made).toBe(1);
  });
});

describe('axes', () => {
  it('give a tile for each place, one value across and one down', async () => {
    const key = (title: string) => useSheet.getState().variables.find((v) => v.title === title)!.key;
    useSheet.setState({
      way: { type: 'axes', across: key('Torus ring radius'), down: key('Torus pipe radius') },
    });
    await drawSheet();
    const [columns, rows] = gridOf(12);
    expect(tiles()).toHaveLength(columns * rows);
    const row = tiles()
      .slice(0, columns)
      .map((t) => radiusOf(t.piece));
    expect([...row].sort((a, b) => a - b)).toEqual(row);
    expect(new Set(row).size).toBe(columns);
    const pipes = tiles()
      .filter((t) => t.at![0] === 0)
      .map((t) => t.piece.ribbons[0].steps[0].values.pipeRadius);
    expect(new Set(pipes).size).toBe(rows);
  });
});

describe('what matters most', () => {
  it('is what changes the picture, and nothing else', async () => {
    await chooseTelling();
    const { chosen, variables } = useSheet.getState();
    const titles = variables.filter((v) => chosen.has(v.key)).map((v) => v.title);
    expect(titles).toEqual(expect.arrayContaining(['Torus ring radius']));
    expect(titles.every((t) => t.startsWith('Torus ring radius') || t === 'Kind of form')).toBe(true);
  });
});

describe('going on', () => {
  it('from a variation leads back again, and keeps what is locked', () => {
    const key = useSheet.getState().variables.find((v) => v.title === 'Twist angle')!.key;
    useSheet.setState((s) => ({ chosen: new Set([...s.chosen, key]) }));
    expect(varying(useSheet.getState()).map((v) => v.key)).toContain(key);
    useSheet.setState({ locked: new Set([key]) });
    expect(varying(useSheet.getState()).map((v) => v.key)).not.toContain(key);
    const other = { ...ring, name: 'Other' };
    goOnFrom(other, { type: 'spread' }, 0.3);
    expect(useSheet.getState()).toMatchObject({ base: other, reach: 0.3 });
    expect(useSheet.getState().locked.has(key)).toBe(true);
    goBack();
    expect(useSheet.getState()).toMatchObject({ base: ring, reach: 1, trail: [] });
  });
});
