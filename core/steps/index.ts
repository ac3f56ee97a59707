import { widened } from '../declare/widen';
import { burst } from './build/burst';
import { decimate } from './build/decimate';
import { links } from './build/links';
import { mirror } from './build/mirror';
import { nest } from './build/nest';
import { part } from './build/part';
import { shell } from './build/shell';
import { struts } from './build/struts';
import { symmetry } from './build/symmetry';
import { thinOut } from './build/thin-out';
import { triangulate } from './build/triangulate';
import { weld } from './build/weld';
import { edgesToCurves } from './curve/edges-to-curves';
import { even } from './curve/even';
import { extrude } from './curve/extrude';
import { loft } from './curve/loft';
import { relax } from './curve/relax';
import { revolve } from './curve/revolve';
import { sweep } from './curve/sweep';
import { wires } from './curve/wires';
import { along } from './deform/along';
import { bend } from './deform/bend';
import { cage } from './deform/cage';
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
import { curve } from './forms/curve';
import { cylinder } from './forms/cylinder';
import { disc } from './forms/disc';
import { drops } from './forms/drops';
import { endless } from './forms/endless';
import { geodesic } from './forms/geodesic';
import { imported } from './forms/imported';
import { medal } from './forms/medal';
import { minimal } from './forms/minimal';
import { outline } from './forms/outline';
import { plane } from './forms/plane';
import { platonic } from './forms/platonic';
import { sphere } from './forms/sphere';
import { svg } from './forms/svg';
import { text } from './forms/text';
import { torus } from './forms/torus';
import { journey } from './place/journey';
import { place } from './place/place';
import { spin } from './place/spin';
import { tumble } from './place/tumble';
import { repeatGrid } from './repeat/grid';
import { repeatLine } from './repeat/line';
import { repeatPath } from './repeat/on-path';
import { repeatPoints } from './repeat/points';
import { repeatRings } from './repeat/rings';
import { scatter } from './repeat/scatter';
import { stream } from './repeat/stream';
import { swing } from './repeat/swing';
import { thread } from './repeat/thread';
import { vary } from './repeat/vary';
import { bevel } from './solid/bevel';
import { combine } from './solid/combine';
import { rest } from './solid/rest';
import { Registry } from '../declare/registry';
import type { StepGroup, StepKind } from './step';

/** Every step, in menu order. A new step is added here and nowhere else. */
export const steps = new Registry<StepKind>(
  'step',
  [
    torus,
    sphere,
    geodesic,
    box,
    cylinder,
    cone,
    capsule,
    plane,
    disc,
    platonic,
    medal,
    cord,
    minimal,
    endless,
    drops,
    outline,
    curve,
    text,
    svg,
    imported,
    repeatLine,
    repeatRings,
    repeatGrid,
    repeatPath,
    repeatPoints,
    scatter,
    stream,
    vary,
    swing,
    thread,
    extrude,
    revolve,
    sweep,
    loft,
    wires,
    edgesToCurves,
    relax,
    even,
    subdivide,
    smooth,
    shade,
    decimate,
    displace,
    twist,
    bend,
    taper,
    shear,
    ripple,
    inflate,
    spherify,
    jitter,
    push,
    along,
    cage,
    shell,
    struts,
    links,
    thinOut,
    burst,
    part,
    triangulate,
    weld,
    nest,
    mirror,
    symmetry,
    combine,
    bevel,
    rest,
    place,
    spin,
    tumble,
    journey,
  ].map((s) => widened<StepKind>(s)),
);

export const stepKinds = steps.all;

export const stepGroups: readonly { readonly group: StepGroup; readonly title: string }[] = [
  { group: 'form', title: 'Forms' },
  { group: 'repeat', title: 'Repeat' },
  { group: 'curve', title: 'Curves' },
  { group: 'detail', title: 'Detail' },
  { group: 'deform', title: 'Deform' },
  { group: 'build', title: 'Build' },
  { group: 'solid', title: 'Solids' },
  { group: 'place', title: 'Place' },
];

export function isStepKind(kind: string): boolean {
  return steps.has(kind);
}

/** The declaration of a step; throws a RangeError that names an unknown one. */
export function stepKind(kind: string): StepKind {
  return steps.get(kind);
}
