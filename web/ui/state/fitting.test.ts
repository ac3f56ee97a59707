import { Dice } from '@maypole/core/fixtures/dice';
import { dressed } from '@maypole/core/fixtures/dress';
import { LIMITS } from '@maypole/core/declare/limits';
import { ACTIONS, type ActionId } from '@maypole/core/find/actions';
import { clipRibbons, pasteRibbons } from '@maypole/core/piece/clipping';
import { ribbonLook, stepsLook } from '@maypole/core/looks/kept-parts';
import { newItem, newPiece, newRibbon, newStep, type Piece } from '@maypole/core/piece/piece';
import { readPiece, readPieceValue, writePiece } from '@maypole/core/piece/read';
import { outputs } from '@maypole/core/output/index';
import { sceneListNames, sceneLists } from '@maypole/core/scene/index';
import { steps } from '@maypole/core/steps/index';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ACTS, type Surroundings } from '../find/acts';
import { addSceneItem } from '../items/edit-scene';
import { addKeptRibbons, addKeptSteps, takePasted } from '../looks/keep-parts';
import * as toasts from '../parts/toasts';
import * as actions from './actions';
import { useEditor } from './store';
import { rounds } from '@maypole/core/fixtures/effort';

const now = () => useEditor.getState();
const told: string[] = [];
beforeEach(() => {
  told.length = 0;
  vi.spyOn(toasts, 'tellTrouble').mockImplementation((words) => void told.push(String(words)));
  vi.spyOn(toasts, 'tell').mockImplementation(() => undefined);
});
afterEach(() => vi.restoreAllMocks());

const around: Surroundings = {
  go: () => undefined,
  toggleDusk: () => undefined,
  origin: () => '',
  press: () => undefined,
  fetchFile: () => undefined,
};
/** Of the command list, what changes nothing but the screen, and needs one. */
const SCREEN: readonly ActionId[] = ['play', 'copy-link', 'compare', 'sheet', 'frame-all', 'save'];

/** As full as a document may be. */
function full(): Piece {
  const list = (name: (typeof sceneListNames)[number]) => {
    const { kinds, most } = sceneLists[name];
    return Array.from({ length: most }, (_, i) => newItem(kinds.all[i % kinds.all.length]));
  };
  const name = 'Ribbon with a name as long as a name may be and not one letter longer than that.';
  const ribbons = Array.from({ length: LIMITS.ribbons }, (_, i) =>
    newRibbon('box', i, `${i} ${name}`.slice(0, LIMITS.nameOfRibbon)),
  );
  ribbons[0] = {
    ...ribbons[0],
    steps: [newStep('torus'), ...Array.from({ length: LIMITS.stepsOfRibbon - 1 }, () => newStep('place'))],
  };
  const scene = Object.fromEntries(sceneListNames.map((n) => [n, list(n)])) as unknown as Piece['scene'];
  const made = Array.from({ length: LIMITS.outputs }, () => newItem(outputs.all[0]));
  return { ...newPiece('F'.repeat(LIMITS.nameOfPiece)), scene, ribbons, outputs: made };
}

/** Everything that can be done without a page. */
const deeds: readonly [string, (dice: Dice, other: Piece) => void][] = [
  ...(Object.keys(ACTIONS) as ActionId[])
    .filter((id) => !SCREEN.includes(id))
    .map((id): [string, () => void] => [id, () => ACTS[id](around)]),
  ['add ribbon', (dice) => actions.addRibbon(dice.of(steps.all.filter((k) => k.group === 'form')).kind)],
  ['duplicate ribbon', (dice) => some((id) => actions.duplicateRibbon(id), dice)],
  ['pair', (dice) => some((id) => actions.addPair(id), dice)],
  [
    'add step',
    (dice) => some((id) => actions.addStep(id, dice.of(steps.all.filter((k) => k.group !== 'form')).kind), dice),
  ],
  ['duplicate step', (dice) => some((id) => actions.duplicateStep(id, dice.of(ribbon(id).steps).id), dice)],
  ['remove step', (dice) => some((id) => actions.removeStep(id, dice.of(ribbon(id).steps).id), dice)],
  [
    'change form',
    (dice) => some((id) => actions.changeForm(id, dice.of(steps.all.filter((k) => k.group === 'form')).kind), dice),
  ],
  ['throw', (dice) => some((id) => actions.throwAgain(id), dice)],
  [
    'paste',
    (_, other) =>
      takePasted(
        'Paste',
        pasteRibbons(
          now().piece,
          clipRibbons(
            other,
            other.ribbons.map((r) => r.id),
          ),
        ),
        'ribbons',
      ),
  ],
  [
    'kept ribbons',
    (_, other) =>
      addKeptRibbons(
        ribbonLook(
          'Kept',
          other,
          other.ribbons.map((r) => r.id),
        ),
        'Kept',
      ),
  ],
  [
    'kept steps',
    (dice, other) => some((id) => addKeptSteps(id, stepsLook('Kept', other, other.ribbons[0].id), 'Kept'), dice),
  ],
  [
    'add to scene',
    (dice) => {
      const list = dice.of(sceneListNames);
      addSceneItem(list, dice.of(sceneLists[list].kinds.all).kind);
    },
  ],
  [
    'names',
    (dice) => {
      const name = dice.of(['', 'x'.repeat(500), 'a\0b', '\ud800', '👩‍🚀'.repeat(60)]);
      now().edit('Rename', (p) => ({ ...p, name }));
      some((id) => now().editRibbon('Rename', id, (r) => ({ ...r, name })), dice);
    },
  ],
];
const ribbon = (id: string) => now().piece.ribbons.find((r) => r.id === id)!;
function some(work: (ribbon: string) => void, dice: Dice): void {
  const { ribbons } = now().piece;
  if (ribbons.length > 0) work(dice.of(ribbons.filter((r, i) => i === 0 || r.steps.length > 0)).id);
}

describe('whatever is done, the document can be saved', () => {
  const documents: Record<string, () => Piece> = {
    empty: () => newPiece(),
    full,
    ...Object.fromEntries(
      [3, 8, 21].slice(0, rounds(1, 3)).map((seed) => [
        `random ${seed}`,
        () => {
          const dice = new Dice(seed);
          const read = readPieceValue(JSON.parse(JSON.stringify(dressed(dice.piece(), dice))));
          return read.ok ? read.piece : new Dice(seed).piece();
        },
      ]),
    ),
  };
  it.each(Object.keys(documents))(
    'on a document that is %s',
    (which) => {
      const dice = new Dice(77);
      const other = new Dice(5).piece();
      now().open('id', documents[which](), 1);
      const start = readPiece(writePiece(now().piece));
      if (!start.ok) throw new Error(start.message);
      for (let round = 0; round < 2; round++)
        for (const [name, deed] of deeds) {
          const before = now().piece;
          told.length = 0;
          deed(dice, other);
          const read = readPiece(writePiece(now().piece));
          if (!read.ok) throw new Error(`${name}: ${read.message}`);
          // What was refused has changed nothing.
          if (told.length > 0 && name !== 'names') expect(now().piece, name).toBe(before);
          // What is chosen is there.
          const { ribbonId, piece } = now();
          expect(ribbonId === null || piece.ribbons.some((r) => r.id === ribbonId), name).toBe(true);
        }
    },
    600_000,
  );

  it('a ribbon, a step and a light too many are refused in a sentence', () => {
    now().open('id', full(), 1);
    const before = now().piece;
    const refused = (deed: () => void, words: string) => {
      told.length = 0;
      deed();
      expect(told.join()).toContain(words);
      expect(now().piece).toBe(before);
    };
    const [first] = before.ribbons;
    refused(() => actions.addRibbon('torus'), 'at most 64 ribbons');
    refused(() => actions.addStep(first.id, 'smooth'), 'at most 200 steps');
    // The same words are not told again at once.
    actions.duplicateRibbon(first.id);
    actions.addPair(first.id);
    actions.duplicateStep(first.id, first.steps[1].id);
    expect(now().piece).toBe(before);
  });
  it('what would be larger than a document may be is refused', () => {
    const keys = Array.from({ length: LIMITS.keysOfMotion }, (_, i) => ({
      at: i / LIMITS.keysOfMotion,
      value: i / 7,
      to: 'linear',
    }));
    const motion = { motion: 'keys', adds: 0, keys };
    const steps = Array.from({ length: 10 }, () => newStep('place', { shift: [motion, motion, motion] as never }));
    const one = { ...newRibbon('box', 0), steps: [newStep('box'), ...steps] };
    now().open('id', { ...newPiece(), ribbons: [one] }, 1);
    for (let i = 0; i < 4; i++) actions.duplicateRibbon(now().piece.ribbons[0].id);
    expect(told.join()).toContain('larger than 8 MB');
    expect(writePiece(now().piece).length).toBeLessThanOrEqual(LIMITS.document);
    expect(now().piece.ribbons.length).toBeLessThan(5);
  });
});
