import { freshRibbon, freshStep, longerName } from '@maypole/core/piece/adding';
import { copyRibbon, copySteps } from '@maypole/core/piece/copy';
import type { Address } from '@maypole/core/piece/addresses';
import { joinValue, pairingOf, pairRibbon, partValue, setPairedValue } from '@maypole/core/piece/pair';
import { newChance, type StepDoc } from '@maypole/core/piece/piece';
import { stepKind } from '@maypole/core/steps/index';
import type { CopiesAs } from '@maypole/core/steps/step';
import { tell } from '../parts/toasts';
import { useEditor } from './store';

const editor = () => useEditor.getState();

/** Adds a ribbon with a form, named after it. */
export function addRibbon(form: string): void {
  const { piece } = editor();
  const ribbon = freshRibbon(piece, form);
  if (!editor().edit('Add ribbon', (p) => ({ ...p, ribbons: [...p.ribbons, ribbon] }))) return;
  editor().set({ ribbonId: ribbon.id, openSteps: { ...editor().openSteps, [ribbon.steps[0].id]: true } });
}

/** A copy with new identifiers, right after the original. */
export function duplicateRibbon(id: string): void {
  const source = editor().piece.ribbons.find((r) => r.id === id);
  if (!source) return;
  const copy = copyRibbon(source, longerName(source.name, 'copy'));
  const made = editor().edit('Duplicate ribbon', (p) => ({
    ...p,
    ribbons: p.ribbons.flatMap((r) => (r.id === id ? [r, copy] : [r])),
  }));
  if (made) editor().set({ ribbonId: copy.id });
}

/** Adds a linked copy that changes along with the first except for overrides. */
export function addPair(id: string): void {
  const source = editor().piece.ribbons.find((r) => r.id === id);
  if (!source) return;
  const second = pairRibbon(source, longerName(source.name, 'pair'));
  const made = editor().edit('Make a pair', (p) => ({
    ...p,
    ribbons: p.ribbons.flatMap((r) => (r.id === id ? [r, second] : [r])),
  }));
  if (!made) return;
  editor().set({
    ribbonId: second.id,
    openSteps: { ...editor().openSteps, ...Object.fromEntries(second.steps.slice(0, 2).map((s) => [s.id, true])) },
  });
}

/** Makes a value an override, or links it again. */
export function togglePairing(label: string, address: Address): void {
  const linked = pairingOf(editor().piece, address) === 'linked';
  editor().edit(linked ? `Part ${label}` : `Join ${label}`, (p) =>
    linked ? partValue(p, address) : joinValue(p, address),
  );
}

export function removeRibbon(id: string): void {
  editor().edit('Remove ribbon', (p) => ({ ...p, ribbons: p.ribbons.filter((r) => r.id !== id) }));
}

export function moveRibbon(id: string, by: -1 | 1): void {
  editor().edit('Move ribbon', (p) => {
    const from = p.ribbons.findIndex((r) => r.id === id);
    const to = from + by;
    if (from < 0 || to < 0 || to >= p.ribbons.length) return p;
    const ribbons = [...p.ribbons];
    [ribbons[from], ribbons[to]] = [ribbons[to], ribbons[from]];
    return { ...p, ribbons };
  });
}

/** Adds a step after another, or at the end. */
export function addStep(ribbonId: string, kind: string, after?: string): void {
  const step = freshStep(kind);
  const made = editor().editRibbon(`Add ${stepKind(kind).title.toLowerCase()}`, ribbonId, (r) => {
    const at = after === undefined ? r.steps.length : r.steps.findIndex((s) => s.id === after) + 1;
    return { ...r, steps: [...r.steps.slice(0, at), step, ...r.steps.slice(at)] };
  });
  if (!made) return;
  editor().set({ held: step.id, openSteps: { ...editor().openSteps, [step.id]: true } });
}

export function removeStep(ribbonId: string, id: string): void {
  editor().editRibbon('Remove step', ribbonId, (r) => ({ ...r, steps: r.steps.filter((s) => s.id !== id) }));
}

export function duplicateStep(ribbonId: string, id: string): void {
  const ribbon = editor().piece.ribbons.find((r) => r.id === ribbonId);
  const [copy] = ribbon ? copySteps(ribbon, [id]) : [];
  if (!copy) return;
  const made = editor().editRibbon('Duplicate step', ribbonId, (r) => ({
    ...r,
    steps: r.steps.flatMap((s) => (s.id === id ? [s, { ...copy, chance: newChance() }] : [s])),
  }));
  if (made) editor().set({ held: copy.id, openSteps: { ...editor().openSteps, [copy.id]: true } });
}

export function switchStep(ribbonId: string, id: string): void {
  editor().editRibbon('Switch step', ribbonId, (r) => ({
    ...r,
    steps: r.steps.map((s) => (s.id === id ? { ...s, on: !s.on } : s)),
  }));
}

/** Sets how a step treats copies. */
export function setCopiesAs(ribbonId: string, id: string, copies: CopiesAs): void {
  editor().editRibbon('Copies', ribbonId, (r) => ({
    ...r,
    steps: r.steps.map((s) => (s.id === id ? { ...s, copies } : s)),
  }));
}

/** Reseeds: new seeds and chances for every step of a ribbon, or for some of them, in one edit. */
export function throwAgain(ribbonId: string, ids?: readonly string[]): void {
  editor().editRibbon('Another throw', ribbonId, (r) => ({
    ...r,
    steps: r.steps.map((s) => (ids && !ids.includes(s.id) ? s : thrownAgain(s))),
  }));
}

function thrownAgain(step: StepDoc): StepDoc {
  const seeds = Object.entries(stepKind(step.kind).params).filter(
    ([name, p]) => p.type === 'number' && p.seeds && typeof step.values[name] === 'number',
  );
  if (seeds.length === 0) return step;
  return {
    ...step,
    chance: newChance(),
    values: { ...step.values, ...Object.fromEntries(seeds.map(([name]) => [name, Math.floor(Math.random() * 1000)])) },
  };
}

/** Names a ribbon that serves a step only, as a path or a cutter, and hides it. */
export function nameServant(label: string, addresses: readonly Address[], ribbonId: string): void {
  const servant = editor().piece.ribbons.find((r) => r.id === ribbonId);
  editor().edit(label, (p) => {
    const named = addresses.reduce((out, a) => setPairedValue(out, a, ribbonId), p);
    return servant?.on
      ? { ...named, ribbons: named.ribbons.map((r) => (r.id === ribbonId ? { ...r, on: false } : r)) }
      : named;
  });
  if (servant?.on)
    tell(
      `${servant.name} serves this step now and is hidden from the picture; switch it on at its band to see it, too.`,
    );
}

/** Moves a step; the form stays first. */
export function moveStep(ribbonId: string, id: string, to: number): void {
  editor().editRibbon('Move step', ribbonId, (r) => {
    const from = r.steps.findIndex((s) => s.id === id);
    const target = Math.max(1, Math.min(r.steps.length - 1, to));
    if (from < 1 || from === target) return r;
    const steps = [...r.steps];
    const [step] = steps.splice(from, 1);
    steps.splice(target, 0, step);
    return { ...r, steps };
  });
}

/** Replaces the form. */
export function changeForm(ribbonId: string, kind: string): void {
  const step = freshStep(kind);
  editor().editRibbon(`Change form to ${stepKind(kind).title.toLowerCase()}`, ribbonId, (r) => ({
    ...r,
    steps:
      r.steps.length > 0 && stepKind(r.steps[0].kind).group === 'form'
        ? [step, ...r.steps.slice(1)]
        : [step, ...r.steps],
  }));
  editor().set({ held: step.id, openSteps: { ...editor().openSteps, [step.id]: true } });
}
