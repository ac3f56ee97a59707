import type { ColourValue, NumberValue, Param, Params, StoredValue } from '@maypole/core/declare/params';
import { addressKey, setValue, type Address, type Owner } from '@maypole/core/piece/addresses';
import { finishParts } from '@maypole/core/finish/parts/index';
import { circleThrough, linkPiece } from '@maypole/core/piece/link';
import type { Piece, RibbonDoc, StepDoc, Values } from '@maypole/core/piece/piece';
import { stepKind } from '@maypole/core/steps/index';
import { evaluateColour } from '@maypole/core/time/colours/index';
import { evaluateNumber, isMoving } from '@maypole/core/time/value';
import { useEditor } from './store';

/** Values of the same kind in several places, edited as one. */
export interface Shared {
  readonly key: string;
  readonly title: string;
  readonly params: Params;
  readonly owners: readonly Owner[];
  readonly values: readonly Values[];
}

/** Steps that several ribbons share: the first twist of each, the second of each, and so on. */
export function sharedSteps(ribbons: readonly RibbonDoc[]): Shared[] {
  const nth = (ribbon: RibbonDoc, step: StepDoc) => ribbon.steps.filter((s) => s.kind === step.kind).indexOf(step);
  const [first, ...others] = ribbons;
  return first.steps.flatMap((step): Shared[] => {
    const n = nth(first, step);
    const found = others.map((r) => r.steps.filter((s) => s.kind === step.kind)[n]);
    if (found.some((s) => s === undefined)) return [];
    const kind = stepKind(step.kind);
    const steps = [step, ...found];
    return [
      {
        key: `${step.kind}${n}`,
        title: kind.title,
        params: kind.params,
        owners: steps.map((s, i) => ({ type: 'step', ribbon: ribbons[i].id, item: s.id })),
        values: steps.map((s) => s.values),
      },
    ];
  });
}

/** Parts of the main finish that several ribbons share. */
export function sharedParts(ribbons: readonly RibbonDoc[]): Shared[] {
  const partsOf = (r: RibbonDoc) => r.finishes[0]?.parts ?? [];
  return partsOf(ribbons[0]).flatMap((part): Shared[] => {
    const found = ribbons.map((r) => partsOf(r).find((p) => p.kind === part.kind));
    if (found.some((p) => p === undefined)) return [];
    const { params, title } = finishParts.get(part.kind);
    const items = found as NonNullable<(typeof found)[number]>[];
    return [
      {
        key: `finish-${part.kind}`,
        title: part.kind === 'base' ? 'Finish' : `Finish: ${title.toLowerCase()}`,
        params,
        owners: items.map((p, i) => ({ type: 'part', ribbon: ribbons[i].id, item: p.id })),
        values: items.map((p) => p.values),
      },
    ];
  });
}

/** A step of a ribbon with the values it follows. */
export function linkedStep(piece: Piece, ribbonId: string, step: StepDoc): StepDoc {
  const linked = linkPiece(piece);
  if (linked === piece) return step;
  return linked.ribbons.find((r) => r.id === ribbonId)?.steps.find((s) => s.id === step.id) ?? step;
}

/** Adds a step to those edited together, or removes it. */
export function takeTogether(id: string): void {
  useEditor.setState((s) => ({
    stepsTogether: s.stepsTogether.includes(id) ? s.stepsTogether.filter((x) => x !== id) : [...s.stepsTogether, id],
  }));
}

/** Adds a ribbon to those edited together, or removes it; one always stays selected. */
export function takeRibbon(id: string): void {
  useEditor.setState((s) => {
    if (s.ribbonId === null) return { ribbonId: id };
    if (id === s.ribbonId)
      return s.alsoRibbons.length > 0 ? { ribbonId: s.alsoRibbons[0], alsoRibbons: s.alsoRibbons.slice(1) } : {};
    return { alsoRibbons: s.alsoRibbons.includes(id) ? s.alsoRibbons.filter((x) => x !== id) : [...s.alsoRibbons, id] };
  });
}

/** Selects a single ribbon. */
export function chooseRibbon(id: string): void {
  useEditor.setState({ ribbonId: id, alsoRibbons: [], stepsTogether: [] });
}

/** Values that several steps of one ribbon share, by name and kind. */
export function sharedValues(ribbon: RibbonDoc, steps: readonly StepDoc[]): Shared {
  const kinds = steps.map((s) => stepKind(s.kind));
  const alike = (a: Param, b: Param | undefined) =>
    b !== undefined && a.type === b.type && ('unit' in a && 'unit' in b ? a.unit === b.unit : true);
  const params = Object.fromEntries(
    Object.entries(kinds[0].params).filter(([name, p]) => !p.shownWhen && kinds.every((k) => alike(p, k.params[name]))),
  );
  return {
    key: steps.map((s) => s.id).join(),
    title: kinds.map((k) => k.title).join(', '),
    params,
    owners: steps.map((s) => ({ type: 'step', ribbon: ribbon.id, item: s.id })),
    values: steps.map((s) => s.values),
  };
}

/** Makes the other values follow the first, so that they stay equal. The first keeps its motion. */
export function tieTogether(label: string, first: Address, others: readonly Address[], value: StoredValue): void {
  const { frame, piece } = useEditor.getState();
  const clock = { frame, frames: piece.loop.frames };
  const of = addressKey(first);
  const colour = typeof value === 'string' || (isMoving(value) && ['cycle', 'gradient'].includes(value.motion));
  const otherwise = colour ? evaluateColour(value as ColourValue, clock) : evaluateNumber(value as NumberValue, clock);
  const follow = colour
    ? { motion: 'follow', of, delay: 0, otherwise }
    : { motion: 'follow', of, scale: 1, offset: 0, delay: 0, springy: false, swings: 3, damping: 30, otherwise };
  useEditor.getState().edit(`Tie ${label}`, (p: Piece) =>
    others.reduce((out, address) => {
      const tied = setValue(out, address, follow as StoredValue);
      // What the first follows already is tied to it as it is.
      return circleThrough(tied, addressKey(address)) ? out : tied;
    }, p),
  );
}
