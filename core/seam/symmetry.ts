import { flattened } from '../copies/copies';
import { evaluateRibbon } from '../evaluate/ribbon';
import { evaluateValues } from '../time/values';
import { MeshCache } from '../evaluate/mesh-cache';
import { linkPiece } from '../piece/link';
import type { Piece } from '../piece/piece';
import { axisAngle, moved } from '../maths/quaternion';
import { spin, spinAxis } from '../steps/place/spin';
import type { Detail } from '../steps/step';
import { isMoving } from '../time/value';
import { closureOf } from './distance';
import { applyRepair, type Finding, type Repair } from './finding';
import { ribbonClosure } from './measure';

const NAMES: Record<number, string> = {
  2: 'half',
  3: 'third of a',
  4: 'quarter',
  5: 'fifth of a',
  6: 'sixth of a',
  8: 'eighth of a',
};
const MOST = 24;

/** “A quarter turn already closes”, or “5 × a quarter turn closes”. */
function closesBy(parts: number, k: number): string {
  const name = k in NAMES ? `a ${NAMES[k]} turn` : `1/${k} of a turn`;
  const often = Math.abs(parts);
  return often === 1 ? `${name[0].toUpperCase()}${name.slice(1)} already closes` : `${often} × ${name} closes`;
}

/** Rotational symmetry of the shape that enters a spin, about its axis; 1 for none. */
export function symmetryOf(piece: Piece, ribbonId: string, stepId: string, detail: Detail): number {
  const ribbon = linkPiece(piece).ribbons.find((r) => r.id === ribbonId);
  const index = ribbon?.steps.findIndex((s) => s.id === stepId) ?? -1;
  if (!ribbon || index < 1) return 1;
  const mesh = flattened(
    evaluateRibbon({ ...ribbon, steps: ribbon.steps.slice(0, index) }, piece.loop, 0, detail, new MeshCache()).mesh,
  );
  const v = evaluateValues(spin.params, ribbon.steps[index].values, { frame: 0, frames: piece.loop.frames });
  const [x, y, z] = v.through;
  for (let k = MOST; k >= 2; k--) {
    const turned = moved(mesh.positions, axisAngle(spinAxis(v), 360 / k), [-x, -y, -z], v.through);
    if (closureOf(mesh, { ...mesh, positions: turned }).how !== 'open') return k;
  }
  return 1;
}

/** For a spin that does not close: less than a turn may suffice if the form is symmetric. Each has been tried. */
export function symmetryRepairs(piece: Piece, finding: Finding, detail: Detail): Repair[] {
  const { address } = finding;
  if (finding.kind !== 'gap' || address?.owner.type !== 'step') return [];
  const { ribbon: ribbonId, item: stepId } = address.owner;
  const ribbon = piece.ribbons.find((r) => r.id === ribbonId);
  const step = ribbon?.steps.find((s) => s.id === stepId);
  if (!ribbon || step?.kind !== 'spin') return [];
  const k = symmetryOf(piece, ribbonId, stepId, detail);
  if (k === 1) return [];
  const candidates: Repair[] = [];
  if (address.param === 'turns') {
    const parts = Math.round((step.values.turns as number) * k) || 1;
    candidates.push({
      words: closesBy(parts, k),
      help: `The form looks the same ${k} times in a turn; Turns then counts these`,
      set: [
        { address, value: parts },
        { address: { ...address, param: 'symmetry' }, value: k },
      ],
    });
  }
  const angle = step.values.angle;
  if (address.param === 'angle' && isMoving(angle) && typeof angle.adds === 'number') {
    const part = 360 / k;
    const parts = Math.round(angle.adds / part) || 1;
    const adds = parts * part;
    candidates.push({
      words: closesBy(parts, k),
      help: `Adds ${Number(adds.toPrecision(6))}°`,
      set: [{ address, value: { ...angle, adds } }],
    });
  }
  return candidates.filter((c) => ribbonClosure(applyRepair(piece, c), ribbon, detail).how !== 'open');
}
