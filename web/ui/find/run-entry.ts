import type { ActionId } from '@maypole/core/find/actions';
import type { Entry } from '@maypole/core/find/entries';
import { finishParts } from '@maypole/core/finish/parts/index';
import { newItem, type RibbonDoc } from '@maypole/core/piece/piece';
import { addOutput } from '../deliver/edit-outputs';
import { openSheet } from '../explore/sheet-store';
import { addSceneItem } from '../items/edit-scene';
import { addPair, addRibbon, addStep, duplicateRibbon, removeRibbon, throwAgain } from '../state/actions';
import { frameAll } from '../state/camera';
import { goTo, stepFrames, togglePlay } from '../state/player';
import { useEditor, type Drawer } from '../state/store';
import { tell } from '../parts/toasts';

/** What the page itself must give: ways to other pages, and the colours of the interface. */
export interface Surroundings {
  readonly go: (path: string) => void;
  readonly toggleDusk: () => void;
}

const set = useEditor.setState;
const open = (drawer: Drawer) => set({ drawer });
/** Does something with the chosen ribbon, or says that there is none. */
const withRibbon = (work: (id: string) => void) => {
  const { ribbonId } = useEditor.getState();
  if (ribbonId) work(ribbonId);
  else tell('Choose a ribbon first, or add a form.');
};

const ACTS: Readonly<Record<ActionId, (around: Surroundings) => void>> = {
  play: togglePlay,
  'go-seam': () => goTo(0),
  'step-on': () => stepFrames(1),
  'step-back': () => stepFrames(-1),
  undo: () => useEditor.getState().undo(),
  redo: () => useEditor.getState().redo(),
  'frame-all': () => frameAll(),
  sheet: openSheet,
  history: () => open('history'),
  scene: () => open('scene'),
  seam: () => open('seam'),
  deliver: () => open('deliver'),
  'quick-light': () => set({ light: 'quick' }),
  'true-light': () => set({ light: 'true' }),
  detail: () => set((s) => ({ detail: s.detail === 'draft' ? 'final' : 'draft' })),
  throw: () => withRibbon((id) => throwAgain(id)),
  'duplicate-ribbon': () => withRibbon(duplicateRibbon),
  pair: () => withRibbon(addPair),
  'remove-ribbon': () => withRibbon(removeRibbon),
  'hide-ribbon': () =>
    withRibbon((id) => useEditor.getState().editRibbon('Switch ribbon', id, (r) => ({ ...r, on: !r.on }))),
  'next-ribbon': () =>
    set(({ piece, ribbonId }) => {
      const at = piece.ribbons.findIndex((r) => r.id === ribbonId);
      return { ribbonId: piece.ribbons[(at + 1) % piece.ribbons.length]?.id ?? null, alsoRibbons: [] };
    }),
  'show-shaded': () => set({ mode: 'shaded' }),
  'show-edges': () => set({ mode: 'edges' }),
  'show-clay': () => set({ mode: 'clay' }),
  dusk: ({ toggleDusk }) => toggleDusk(),
  shelf: ({ go }) => go('/'),
  renders: ({ go }) => go('/renders'),
  reference: ({ go }) => go('/check'),
};

/** Does what an entry of the command field says. */
export function runEntry({ does }: Entry, around: Surroundings): void {
  if (does.type === 'action') return ACTS[does.action](around);
  if (does.type === 'output') {
    open('deliver');
    return addOutput(does.kind);
  }
  if (does.type === 'scene') {
    open('scene');
    return addSceneItem(does.list, does.kind);
  }
  if (does.type === 'part') return withRibbon((id) => addPart(id, does.kind));
  if (does.form) return addRibbon(does.kind);
  withRibbon((id) => addStep(id, does.kind));
}

/** Adds a part to the first finish of a ribbon, in its place; one that is there is switched on, and shown. */
function addPart(ribbon: string, kind: string): void {
  const part = finishParts.get(kind);
  const order = finishParts.all.map((p) => p.kind);
  const changed = (r: RibbonDoc): RibbonDoc => ({
    ...r,
    finishes: r.finishes.map((f, i) => {
      if (i > 0 || f.parts.some((p) => p.kind === kind && p.on)) return f;
      const there = f.parts.some((p) => p.kind === kind);
      const parts = there
        ? f.parts.map((p) => (p.kind === kind ? { ...p, on: true } : p))
        : [...f.parts, newItem(part)].sort((a, b) => order.indexOf(a.kind) - order.indexOf(b.kind));
      return { ...f, parts };
    }),
  });
  useEditor.getState().editRibbon(`Add ${part.title.toLowerCase()}`, ribbon, (r) => {
    const next = changed(r);
    // What is there and on is shown; nothing is changed by that.
    return next.finishes.every((f, i) => f === r.finishes[i]) ? r : next;
  });
  set((s) => ({ openSteps: { ...s.openSteps, [`${ribbon}/finish`]: true } }));
}
