import { displace } from './deform/displace';
import { twist } from './deform/twist';
import { smooth } from './detail/smooth';
import { subdivide } from './detail/subdivide';
import { box } from './forms/box';
import { cylinder } from './forms/cylinder';
import { geodesic } from './forms/geodesic';
import { plane } from './forms/plane';
import { torus } from './forms/torus';
import { journey } from './place/journey';
import { place } from './place/place';
import { spin } from './place/spin';
import { tumble } from './place/tumble';
import type { StepGroup, StepKind } from './step';

/** Every step, in the order the add menu shows them. A new step is added here and nowhere else. */
export const stepKinds = [torus, geodesic, box, cylinder, plane, subdivide, smooth, displace, twist, place, spin, tumble, journey] as unknown as readonly StepKind[];

export const stepGroups: readonly { readonly group: StepGroup; readonly title: string }[] = [
  { group: 'form', title: 'Forms' },
  { group: 'detail', title: 'Detail' },
  { group: 'deform', title: 'Deform' },
  { group: 'place', title: 'Place' },
];

const byKind = new Map(stepKinds.map((s) => [s.kind, s]));

export function isStepKind(kind: string): boolean {
  return byKind.has(kind);
}

/** The declaration of a step; throws a RangeError naming an unknown one. */
export function stepKind(kind: string): StepKind {
  const found = byKind.get(kind);
  if (!found) throw new RangeError(`There is no step called “${kind}”. Known: ${[...byKind.keys()].join(', ')}.`);
  return found;
}
