import { newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { linkedValue } from '@maypole/core/piece/link';
import type { Address } from '@maypole/core/piece/addresses';
import { describe, expect, it, beforeEach } from 'vitest';
import { useEditor } from './store';
import { chooseRibbon, sharedSteps, sharedValues, takeRibbon, tieTogether } from './multi-edit';

const ribbon = (id: string, ...kinds: string[]) => ({
  ...newRibbon(kinds[0], 0, id),
  id,
  steps: kinds.map((k, i) => newStep(k, {}, `${id}${i}`)),
});
const piece: Piece = {
  ...newPiece('Together'),
  ribbons: [
    ribbon('a', 'torus', 'twist', 'displace', 'twist'),
    ribbon('b', 'box', 'twist', 'twist'),
    ribbon('c', 'torus', 'displace', 'twist'),
  ],
};
const angle = (id: string): Address => ({ owner: { type: 'step', ribbon: id[0], item: id }, param: 'angle' });

describe('editing several at once', () => {
  beforeEach(() => useEditor.getState().open('x', piece, 1));
  it('finds the steps that ribbons have in common: the first of a kind with the first, the second with the second', () => {
    expect(
      sharedSteps(piece.ribbons.slice(0, 2)).map((s) => [
        s.key,
        s.owners.map((o) => (o.type === 'step' ? o.item : '')),
      ]),
    ).toEqual([
      ['twist0', ['a1', 'b1']],
      ['twist1', ['a3', 'b2']],
    ]);
    expect(sharedSteps([piece.ribbons[0], piece.ribbons[2]]).map((s) => s.key)).toEqual([
      'torus0',
      'twist0',
      'displace0',
    ]);
  });
  it('finds the values that steps of different kinds have in common', () => {
    expect(
      Object.keys(sharedValues(piece.ribbons[0], [piece.ribbons[0].steps[1], piece.ribbons[0].steps[3]]).params),
    ).toEqual(['angle', 'axis', 'reach', 'pivot', 'pivotTurn', 'region']);
    expect(
      Object.keys(sharedValues(piece.ribbons[0], [piece.ribbons[0].steps[0], piece.ribbons[0].steps[1]]).params),
    ).toEqual([]);
  });
  it('one edit reaches all, changes only what was touched, and is taken back as one', () => {
    useEditor.getState().setValues('Angle', [angle('a1'), angle('b1')], 12);
    const now = useEditor.getState().piece;
    expect([
      now.ribbons[0].steps[1].values.angle,
      now.ribbons[1].steps[1].values.angle,
      now.ribbons[0].steps[3].values.angle,
    ]).toEqual([12, 12, 90]);
    expect(now.ribbons[2]).toBe(piece.ribbons[2]);
    useEditor.getState().undo();
    expect(useEditor.getState().piece).toBe(piece);
  });
  it('tied values stay equal, and a tie never makes a circle', () => {
    tieTogether('Angle', angle('a1'), [angle('b1')], 90);
    useEditor.getState().setValue('Angle', angle('a1'), 33);
    const after = useEditor.getState().piece;
    expect(linkedValue(after, angle('b1'))).toMatchObject({ motion: 'follow', source: 33 });
    tieTogether('Angle', angle('b1'), [angle('a1')], after.ribbons[1].steps[1].values.angle);
    expect(useEditor.getState().piece.ribbons[0].steps[1].values.angle).toBe(33);
  });
  it('chooses ribbons besides each other, and one alone', () => {
    takeRibbon('b');
    takeRibbon('c');
    expect(useEditor.getState()).toMatchObject({ ribbonId: 'a', alsoRibbons: ['b', 'c'] });
    takeRibbon('a');
    expect(useEditor.getState()).toMatchObject({ ribbonId: 'b', alsoRibbons: ['c'] });
    takeRibbon('c');
    takeRibbon('b');
    expect(useEditor.getState()).toMatchObject({ ribbonId: 'b', alsoRibbons: [] });
    chooseRibbon('c');
    expect(useEditor.getState()).toMatchObject({ ribbonId: 'c', alsoRibbons: [], stepsTogether: [] });
  });
});
