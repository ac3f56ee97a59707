import type { ActionId } from '@maypole/core/find/actions';
import { compareWithEarlier } from '../compare/compare-store';
import { openSheet } from '../explore/sheet-store';
import { tell } from '../parts/toasts';
import { addPair, duplicateRibbon, removeRibbon, switchStep, throwAgain } from '../state/actions';
import { frameAll } from '../state/camera';
import { copyText } from '../state/clipboard';
import { goTo, stepFrames, togglePlay } from '../state/player';
import { saveNow } from '../state/saving';
import { useEditor, type Drawer } from '../state/store';
import { useCommandField, useExplainer, useShortcutsPage } from './open-stores';

/** What the page provides: navigation, and the colour mode. */
export interface Surroundings {
  readonly go: (path: string) => void;
  readonly toggleDusk: () => void;
  /** Scheme, host and port of this Maypole. */
  readonly origin: () => string;
  /** Clicks the button, or selects the text of the field, that `data-opens` marks. */
  readonly press: (opens: string) => void;
  /** Downloads what an address gives. */
  readonly fetchFile: (path: string) => void;
}

const set = useEditor.setState;
/** A drawer that is open already is closed. */
const toggle = (drawer: Drawer) => set((s) => ({ drawer: s.drawer === drawer ? null : drawer }));

/** Acts on the selected ribbon, or says that there is none. */
export const withRibbon = (work: (id: string) => void) => {
  const { ribbonId } = useEditor.getState();
  if (ribbonId) work(ribbonId);
  else tell('Choose a ribbon first, or add a form.');
};

function chooseRibbon(by: 1 | -1): void {
  const { piece, ribbonId } = useEditor.getState();
  const { length } = piece.ribbons;
  if (length === 0) return;
  const at = piece.ribbons.findIndex((r) => r.id === ribbonId);
  set({ ribbonId: piece.ribbons[at < 0 ? 0 : (at + by + length) % length].id, alsoRibbons: [] });
}

function switchHeld(): void {
  const { piece, ribbonId, held } = useEditor.getState();
  const step = piece.ribbons.find((r) => r.id === ribbonId)?.steps.find((s) => s.id === held);
  if (ribbonId && step) switchStep(ribbonId, step.id);
  else tell('Use a step of the chosen ribbon first: this switches the one used last.');
}

async function saveAtOnce(): Promise<void> {
  await saveNow();
  if (useEditor.getState().save === 'saved') tell('Saved. Every edit is, a moment after it is made.');
}

export const ACTS: Readonly<Record<ActionId, (around: Surroundings) => void>> = {
  play: togglePlay,
  'go-seam': () => goTo(0),
  'step-on': () => stepFrames(1),
  'step-back': () => stepFrames(-1),
  'far-on': () => stepFrames(10),
  'far-back': () => stepFrames(-10),
  undo: () => useEditor.getState().undo(),
  redo: () => useEditor.getState().redo(),
  find: () => useCommandField.setState((s) => ({ open: !s.open })),
  save: () => void saveAtOnce(),
  'save-file': ({ fetchFile }) => void saveNow().then(() => fetchFile(`/api/pieces/${useEditor.getState().id}/file`)),
  'rename-piece': ({ press }) => press('piece-name'),
  'rename-ribbon': ({ press }) => withRibbon(() => press('ribbon-name')),
  loop: ({ press }) => press('loop'),
  'true-settings': ({ press }) => {
    set({ light: 'true', mode: 'shaded' });
    press('true-settings');
  },
  // The list opens at its button, so that focus returns there.
  'add-step': ({ press }) => withRibbon(() => press('add-step')),
  'next-ribbon': () => chooseRibbon(1),
  'ribbon-before': () => chooseRibbon(-1),
  'duplicate-ribbon': () => withRibbon(duplicateRibbon),
  pair: () => withRibbon(addPair),
  'hide-ribbon': () =>
    withRibbon((id) => useEditor.getState().editRibbon('Switch ribbon', id, (r) => ({ ...r, on: !r.on }))),
  'remove-ribbon': () =>
    withRibbon((id) => {
      const { piece, undo } = useEditor.getState();
      removeRibbon(id);
      tell(`${piece.ribbons.find((r) => r.id === id)?.name} is removed.`, { label: 'Undo', onClick: undo });
    }),
  'switch-step': switchHeld,
  throw: () => withRibbon((id) => throwAgain(id)),
  'frame-all': () => frameAll(),
  'quick-light': () => set({ light: 'quick' }),
  'true-light': () => set({ light: 'true' }),
  'fine-picture': () => set((s) => ({ subframes: s.subframes === 1024 ? null : 1024 })),
  detail: () => set((s) => ({ detail: s.detail === 'draft' ? 'final' : 'draft' })),
  'show-shaded': () => set({ mode: 'shaded' }),
  'show-edges': () => set({ mode: 'edges' }),
  'show-clay': () => set({ mode: 'clay' }),
  dusk: ({ toggleDusk }) => toggleDusk(),
  sheet: openSheet,
  history: () => toggle('history'),
  compare: () => void compareWithEarlier(),
  scene: () => toggle('scene'),
  seam: () => toggle('seam'),
  deliver: () => toggle('deliver'),
  'copy-link': ({ origin }) =>
    void copyText(
      `${origin()}/piece/${useEditor.getState().id}?look=1`,
      'The link is copied. Whoever opens it can look and try; nothing changed there is kept.',
    ),
  shelf: ({ go }) => go('/'),
  renders: ({ go }) => go('/renders'),
  guide: ({ go }) => go('/guide'),
  shortcuts: () => useShortcutsPage.setState({ open: true }),
  explain: () => useExplainer.setState((s) => ({ open: !s.open })),
  reference: ({ go }) => go('/check'),
};
