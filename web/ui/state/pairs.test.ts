import { newPiece, newRibbon, newStep } from '@maypole/core/piece/piece';
import { beforeEach, describe, expect, it } from 'vitest';
import { addPair, addStep, duplicateRibbon, togglePairing } from './actions';
import { useEditor } from './store';

const now = () => useEditor.getState();
const height = (i: number) => now().piece.ribbons[i].steps[1].values.height;
const set = (i: number, value: number, merge?: string) => {
  const r = now().piece.ribbons[i];
  now().setValue(
    'Height',
    { owner: { type: 'step', ribbon: r.id, item: r.steps[1].id }, param: 'height' },
    value,
    merge,
  );
};

beforeEach(() => {
  const first = newRibbon('torus', 0, 'Ring');
  now().open('id', { ...newPiece('Test'), ribbons: [{ ...first, steps: [...first.steps, newStep('displace')] }] }, 1);
  addPair(now().piece.ribbons[0].id);
});

describe('a pair in the editor', () => {
  it('stands beside the first, is chosen, and is another colour', () => {
    const [a, b] = now().piece.ribbons;
    expect(now().ribbonId).toBe(b.id);
    expect(b.name).toBe('Ring pair');
    expect(b.colour).not.toBe(a.colour);
    expect(b.finishes[0].parts[0].values.colour).toBe(b.colour);
  });
  it('one edit changes both, one undo takes both back, a scrub is one edit', () => {
    set(0, 0.9);
    expect([height(0), height(1)]).toEqual([0.9, 0.9]);
    now().undo();
    expect([height(0), height(1)]).toEqual([0.3, 0.3]);
    const edits = now().history.past.length;
    for (const x of [0.4, 0.5, 0.6]) set(0, x, 'scrub/1');
    expect([height(0), height(1)]).toEqual([0.6, 0.6]);
    expect(now().history.past.length).toBe(edits + 1);
  });
  it('what is parted goes its own way, until it is joined again', () => {
    set(1, 0.1);
    expect([height(0), height(1)]).toEqual([0.1, 0.1]);
    const { piece } = now();
    const address = {
      owner: { type: 'step' as const, ribbon: piece.ribbons[1].id, item: piece.ribbons[1].steps[1].id },
      param: 'height',
    };
    togglePairing('Height', address);
    set(0, 0.7);
    expect([height(0), height(1)]).toEqual([0.7, 0.1]);
    togglePairing('Height', address);
    expect([height(0), height(1)]).toEqual([0.1, 0.1]);
    set(0, 0.2);
    expect([height(0), height(1)]).toEqual([0.2, 0.2]);
  });
  it('a plain duplicate goes along with nothing', () => {
    duplicateRibbon(now().piece.ribbons[0].id);
    set(0, 1.5);
    expect(now().piece.ribbons.map((_, i) => height(i))).toEqual([1.5, 0.3, 1.5]);
  });
});

describe('handles', () => {
  it('a step that is added is the one at work', () => {
    addStep(now().piece.ribbons[0].id, 'push');
    expect(now().held).toBe(now().piece.ribbons[0].steps.at(-1)!.id);
    now().open('other', newPiece('Other'), 1);
    expect(now().held).toBeNull();
  });
});
