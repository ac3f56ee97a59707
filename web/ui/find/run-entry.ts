import type { Entry } from '@maypole/core/find/entries';
import { finishParts } from '@maypole/core/finish/parts/index';
import { newItem, type RibbonDoc } from '@maypole/core/piece/piece';
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
    // A part that is on already is only shown.
    return next.finishes.every((f, i) => f === r.finishes[i]) ? r : next;
  });
  set((s) => ({ openSteps: { ...s.openSteps, [`${ribbon}/finish`]: true } }));
}
