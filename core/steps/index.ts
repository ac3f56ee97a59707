import { burst } from './build/burst';
import { mirror } from './build/mirror';
import { nest } from './build/nest';
import { shell } from './build/shell';
import { struts } from './build/struts';
import { symmetry } from './build/symmetry';
import { thinOut } from './build/thin-out';
import { bend } from './deform/bend';
import { displace } from './deform/displace';
import { inflate } from './deform/inflate';
import { jitter } from './deform/jitter';
import { push } from './deform/push';
import { ripple } from './deform/ripple';
import { shear } from './deform/shear';
import { spherify } from './deform/spherify';
import { taper } from './deform/taper';
import { twist } from './deform/twist';
import { shade } from './detail/shade';
import { smooth } from './detail/smooth';
import { subdivide } from './detail/subdivide';
import { box } from './forms/box';
import { capsule } from './forms/capsule';
import { cone } from './forms/cone';
import { cord } from './forms/cord';
import { cylinder } from './forms/cylinder';
import { disc } from './forms/disc';
import { drops } from './forms/drops';
import { geodesic } from './forms/geodesic';
import { medal } from './forms/medal';
import { minimal } from './forms/minimal';
import { plane } from './forms/plane';
import { platonic } from './forms/platonic';
import { sphere } from './forms/sphere';
import { torus } from './forms/torus';
import { journey } from './place/journey';
import { place } from './place/place';
import { spin } from './place/spin';
import { tumble } from './place/tumble';
import type { StepGroup, StepKind } from './step';

/** Every step, in the order the add menu shows them. A new step is added here and nowhere else. */
export const stepKinds = [torus, sphere, geodesic, box, cylinder, cone, capsule, plane, disc, platonic, medal, cord, minimal, drops, subdivide, smooth, shade, displace, twist, bend, taper, shear, ripple, inflate, spherify, jitter, push, shell, struts, thinOut, burst, nest, mirror, symmetry, place, spin, tumble, journey] as unknown as readonly StepKind[];

export const stepGroups: readonly { readonly group: StepGroup; readonly title: string }[] = [
  { group: 'form', title: 'Forms' },
  { group: 'detail', title: 'Detail' },
  { group: 'deform', title: 'Deform' },
  { group: 'build', title: 'Build' },
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
