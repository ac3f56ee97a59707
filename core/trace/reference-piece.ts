import { newFinish, newItem, newPiece, newRibbon, newStep, type Piece } from '../piece/piece';
import { finishParts } from '../finish/parts/index';
import { sceneLists } from '../scene/index';
import { BITS } from './bits';
import { bouncesOf, type TraceSettings } from './paths/tracer';

/** How the piece below is traced, and its result on every machine with any number of threads. */
export const REFERENCE_PIECE = {
  frame: 7,
  samples: 4,
  settings: { width: 160, height: 112, bounces: bouncesOf(4), fireflyClamp: 20, seed: 8 } satisfies TraceSettings,
  sha256: BITS.piece,
} as const;

const SWAY = { motion: 'wave', shape: 'sine', low: -90, high: 90, turns: 1, phase: 0 } as const;

/** A ring of dispersive glass around copies with a thin film and a cage of thin rods, under three kinds of light. */
export function referencePiece(): Piece {
  const piece = newPiece('Reference');
  const ring = newRibbon('torus', 0, 'Ring');
  const balls = newRibbon('sphere', 1, 'Balls');
  const cage = newRibbon('platonic', 2, 'Cage');
  const finish = (part: string, values: Parameters<typeof newItem>[1] = {}) => ({
    ...newFinish(),
    id: `${part} finish`,
    parts: [...newFinish().parts, newItem(finishParts.get(part), values, part)],
  });
  const light = (kind: string, values = {}) => newItem(sceneLists.lights.kinds.get(kind), values, kind);
  return {
    ...piece,
    scene: {
      ...piece.scene,
      lights: [light('studio'), light('area'), light('ball')],
    },
    ribbons: [
      {
        ...ring,
        id: 'ring',
        finishes: [finish('glass', { dispersion: 2 })],
        steps: [newStep('torus', {}, 'torus'), newStep('twist', { angle: SWAY }, 'twist')],
      },
      {
        ...balls,
        id: 'balls',
        finishes: [finish('film')],
        steps: [newStep('sphere', { radius: 0.2 }, 'sphere'), newStep('repeat-rings', {}, 'rings')],
      },
      {
        ...cage,
        id: 'cage',
        steps: [
          newStep('platonic', { solid: 'icosahedron', radius: 1.6 }, 'solid'),
          newStep('struts', { rod: 0.02 }, 'struts'),
        ],
      },
    ],
  };
}
