import { OUTPUT_PRESETS } from '@maypole/core/output/presets';
import { newItem, newPiece, type Piece } from '@maypole/core/piece/piece';
import { readPiece, writePiece } from '@maypole/core/piece/read';
import { backdrops } from '@maypole/core/scene/index';
import { beforeEach, describe, expect, it } from 'vitest';
import { useEditor } from '../state/store';
import { addOutput, removeOutput, repairOutput, switchOutput, takePreset } from './edit-outputs';

const now = () => useEditor.getState();
const list = () => now().piece.outputs.map((o) => `${o.kind}${o.on ? '' : ' off'}`);
const preset = (id: string) => OUTPUT_PRESETS.find((p) => p.id === id)!;
const open = (more: Partial<Piece> = {}) => now().open('id', { ...newPiece('Outputs'), outputs: [], ...more }, 1);

beforeEach(() => open());

describe('outputs of a piece', () => {
  it('are added, switched and removed, each with one undo', () => {
    addOutput('mp4');
    addOutput('gif');
    expect(list()).toEqual(['mp4', 'gif']);
    const [mp4, gif] = now().piece.outputs;
    switchOutput(mp4.id, false);
    expect(list()).toEqual(['mp4 off', 'gif']);
    removeOutput(gif.id);
    expect(list()).toEqual(['mp4 off']);
    expect(now().history.past).toHaveLength(4);
    now().undo();
    expect(list()).toEqual(['mp4 off', 'gif']);
  });
  it('are see-through by themselves where the backdrop is, and only those that can be', () => {
    const scene = { ...newPiece().scene, backdrop: [newItem(backdrops.get('clear'))] };
    open({ scene });
    for (const kind of ['png', 'prores', 'mp4']) addOutput(kind);
    expect(now().piece.outputs.map((o) => o.values.clear)).toEqual([true, true, undefined]);
    open();
    addOutput('png');
    expect(now().piece.outputs[0].values.clear).not.toBe(true);
  });
  it('take a repair of their file where they are on and of its kind', () => {
    addOutput('mp4');
    addOutput('mp4');
    const usual = now().piece.outputs[1].values.quality;
    expect(usual).not.toBe('lossless');
    switchOutput(now().piece.outputs[1].id, false);
    repairOutput('mp4', 'Quality: visually lossless', { quality: 'lossless' });
    const [on, off] = now().piece.outputs;
    expect(on.values.quality).toBe('lossless');
    expect(off.values.quality).toBe(usual);
    expect(now().history.past.at(-1)!.label).toBe('Quality: visually lossless');
  });
});

describe('a purpose', () => {
  it('switches on what it asks for, with what is there already, and leaves the rest switched off', () => {
    addOutput('gif');
    addOutput('mp4');
    const [gif, mp4] = now().piece.outputs;
    takePreset(preset('square'));
    expect(list()).toEqual(['mp4', 'gif off']);
    expect(now().piece.outputs[0].id).toBe(mp4.id);
    expect(now().piece.outputs[0].values).toMatchObject({ quality: 'good', plays: 4 });
    expect(now().piece.outputs[1].id).toBe(gif.id);
    expect(now().piece.format).toEqual({ width: 1080, height: 1080 });
  });
  it('keeps the size where it asks for none, and sets how frames are made where it does', () => {
    open({ format: { width: 321, height: 123 } });
    takePreset(preset('compositing'));
    expect(now().piece.format).toEqual({ width: 321, height: 123 });
    expect(now().piece.render.values).toMatchObject({ light: 'true', samples: 128 });
    expect(list()).toEqual(['exr']);
  });
  it('makes a still of the frame that is shown, and all frames again for the next purpose', () => {
    useEditor.setState({ frame: 7 });
    takePreset(preset('still'));
    expect(now().piece.render.values).toMatchObject({ range: 'part', from: 7, to: 7 });
    takePreset(preset('square'));
    expect(now().piece.render.values).toMatchObject({ range: 'all' });
    useEditor.setState({ frame: 0 });
  });
  it('after purpose leaves outputs as many as there are kinds, whatever the order', () => {
    for (const p of [...OUTPUT_PRESETS, ...OUTPUT_PRESETS]) takePreset(p);
    const kinds = now().piece.outputs.map((o) => o.kind);
    expect(new Set(kinds).size).toBe(kinds.length);
  });
  it.each(OUTPUT_PRESETS.map((p) => [p.id]))(
    '"%s" leaves a document that is taken, and one undo brings all back',
    (id) => {
      addOutput('gif');
      const before = now().piece;
      takePreset(preset(id));
      const read = readPiece(writePiece(now().piece));
      expect(read.ok).toBe(true);
      const wanted = preset(id).outputs.map(([kind]) => kind);
      expect(
        now()
          .piece.outputs.filter((o) => o.on)
          .map((o) => o.kind),
      ).toEqual(wanted);
      now().undo();
      expect(now().piece).toEqual(before);
    },
  );
});
