import { entryOf, type Entry } from '@maypole/core/find/entries';
import { finishParts } from '@maypole/core/finish/parts/index';
import { withPart } from '@maypole/core/piece/adding';
import { addOutput } from '../deliver/edit-outputs';
import { addSceneItem } from '../items/edit-scene';
import { addRibbon, addStep } from '../state/actions';
import { useEditor } from '../state/store';
import { ACTS, withRibbon, type Surroundings } from './acts';

const set = useEditor.setState;

/** Runs an entry of the command field. */
export function runEntry({ does }: Entry, around: Surroundings): void {
  if (does.type === 'action') return ACTS[does.action](around);
  if (does.type === 'help') return around.go(does.path);
  if (does.type === 'answer') return runEntry(entryOf(does.leads), around);
  if (does.type === 'output') {
    set({ drawer: 'deliver' });
    return addOutput(does.kind);
  }
  if (does.type === 'scene') {
    set({ drawer: 'scene' });
    return addSceneItem(does.list, does.kind);
  }
  if (does.type === 'part') return withRibbon((id) => addPart(id, does.kind));
  if (does.form) return addRibbon(does.kind);
  withRibbon((id) => addStep(id, does.kind));
}

/** Adds a part to a ribbon's first finish, in its order; one that is there is switched on and shown. */
function addPart(ribbon: string, kind: string): void {
  useEditor.getState().editRibbon(`Add ${finishParts.get(kind).title.toLowerCase()}`, ribbon, (r) => {
    const [main, ...others] = r.finishes;
    const next = withPart(main, kind);
    // A part that is on already is only shown.
    return next === main ? r : { ...r, finishes: [next, ...others] };
  });
  set((s) => ({ openSteps: { ...s.openSteps, [`${ribbon}/finish`]: true } }));
}
