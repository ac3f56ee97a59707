import { widened } from '@maypole/core/declare/widen';
import { vec3, type Vec3 } from '@maypole/core/maths/vec3';
import { centresOf, facesShown, flattened } from '@maypole/core/copies/copies';
import type { Param } from '@maypole/core/declare/params';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { evaluateValues } from '@maypole/core/time/values';
import { linkPiece } from '@maypole/core/piece/link';
import type { Piece, StepDoc } from '@maypole/core/piece/piece';
import { ownersOf, type Owner } from '@maypole/core/piece/walk';
import type { Mesh } from '@maypole/core/shape/mesh';
import { handlesNeedBody, handlesOf, type Handle } from '@maypole/core/steps/handles';
import { stepKind } from '@maypole/core/steps/index';
import type { Clock } from '@maypole/core/time/loop';

export interface HeldHandles {
  readonly owner: Owner;
  readonly colour: string;
  readonly handles: readonly Handle[];
  readonly params: Readonly<Record<string, Param>>;
  /** Values at this moment; only numbers and vectors are read. */
  readonly values: Readonly<Record<string, readonly number[]>>;
  /** From the step's space to the picture's: later steps may place the shape. */
  place(p: Vec3): Vec3;
  /** The same for directions, and back. */
  turn(p: Vec3): Vec3;
  back(p: Vec3): [number, number, number];
}

/** Scene items belong to no ribbon. */
const SCENE_COLOUR = '#3A86B7';

const cache = new MeshCache(64 * 1024 * 1024);

/** Handles of the active step or scene item at a frame; null if it has none. */
export function handlesAtWork(
  piece: Piece,
  ribbonId: string | null,
  held: string | null,
  frame: number,
): HeldHandles | null {
  if (held === null) return null;
  return sceneHandles(piece, held, frame) ?? (ribbonId === null ? null : heldHandles(piece, ribbonId, held, frame));
}

const same = (p: Vec3): [number, number, number] => [p[0], p[1], p[2]];

/** Handles of a light or another scene item: it is where the picture shows it. */
function sceneHandles(piece: Piece, id: string, frame: number): HeldHandles | null {
  const found = ownersOf(linkPiece(piece)).find((o) => o.owner.type === 'scene' && o.item.id === id);
  if (!found?.item.on) return null;
  const values = evaluateValues(found.params, found.item.values, { frame, frames: piece.loop.frames });
  const handles = handlesOf(found.params, values, null);
  if (handles.length === 0) return null;
  const { owner, params } = found;
  return { owner, colour: SCENE_COLOUR, handles, params, values: widened(values), place: same, turn: same, back: same };
}

/** Handles of a ribbon's step at a frame; null if it has none. */
export function heldHandles(piece: Piece, ribbonId: string, stepId: string, frame: number): HeldHandles | null {
  const ribbon = linkPiece(piece).ribbons.find((r) => r.id === ribbonId);
  const index = ribbon?.steps.findIndex((s) => s.id === stepId) ?? -1;
  if (!ribbon || index < 0 || !ribbon.on) return null;
  const step = ribbon.steps[index];
  const kind = stepKind(step.kind);
  const clock: Clock = { frame, frames: piece.loop.frames };
  const values = evaluateValues(kind.params, step.values, clock);
  const body = handlesNeedBody(kind.params)
    ? bodyOf(evaluateRibbon({ ...ribbon, steps: ribbon.steps.slice(0, index) }, piece.loop, frame, 'draft', cache).mesh)
    : null;
  const handles = handlesOf(kind.params, values, body);
  if (handles.length === 0) return null;
  const m = placedBy(ribbon.steps.slice(index + 1), clock);
  const inverse = inverted(m);
  const linear = (a: readonly number[], p: Vec3): [number, number, number] =>
    vec3((r) => a[3 * r] * p[0] + a[3 * r + 1] * p[1] + a[3 * r + 2] * p[2]);
  return {
    owner: { type: 'step', ribbon: ribbonId, item: stepId },
    colour: ribbon.colour,
    handles,
    params: kind.params,
    values: widened(values),
    place: (p) => {
      const turned = linear(m.turn, p);
      return vec3((k) => turned[k] + m.shift[k]);
    },
    turn: (p) => linear(m.turn, p),
    back: (p) => linear(inverse, p),
  };
}

/** Points that tell the size of a shape: of many copies, their positions only. */
function bodyOf(mesh: Mesh): Float32Array {
  if (!mesh.copies) return mesh.positions;
  return facesShown(mesh) < 50_000 ? flattened(mesh).positions : centresOf(mesh.copies);
}

/** Transform of the placing steps that follow, found by moving four points through them. */
function placedBy(steps: readonly StepDoc[], clock: Clock): { turn: number[]; shift: Vec3 } {
  let mesh: Mesh = {
    connectivity: { vertexCount: 4, faceStart: new Uint32Array(1), corners: new Uint32Array(0) },
    positions: Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1]),
  };
  for (const s of steps) {
    const kind = stepKind(s.kind);
    if (!s.on || (kind.kind !== 'place' && kind.kind !== 'spin')) continue;
    mesh = kind.evaluate(evaluateValues(kind.params, s.values, clock), mesh, { clock, detail: 'draft' });
  }
  const p = mesh.positions;
  const turn = [0, 1, 2].flatMap((r) => [1, 2, 3].map((c) => p[3 * c + r] - p[r]));
  return { turn, shift: [p[0], p[1], p[2]] };
}

function inverted({ turn: m }: { turn: readonly number[] }): number[] {
  const minor = (a: number, b: number, c: number, d: number) => m[a] * m[d] - m[b] * m[c];
  const adjugate = [
    minor(4, 5, 7, 8),
    -minor(1, 2, 7, 8),
    minor(1, 2, 4, 5),
    -minor(3, 5, 6, 8),
    minor(0, 2, 6, 8),
    -minor(0, 2, 3, 5),
    minor(3, 4, 6, 7),
    -minor(0, 1, 6, 7),
    minor(0, 1, 3, 4),
  ];
  const determinant = m[0] * adjugate[0] + m[1] * adjugate[3] + m[2] * adjugate[6];
  return adjugate.map((x) => x / (Math.abs(determinant) > 1e-12 ? determinant : 1));
}
