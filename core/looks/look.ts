import { cameraOf, newId, newPiece, type FinishDoc, type Item, type PartDoc, type Piece } from '../piece/piece';
import { newRibbon } from '../piece/piece';

/**
 * Parts of a piece that are kept by themselves, to be used in another. Each is kept as a whole small
 * piece that holds it and little else, so that it is read, checked and brought to newer versions like
 * any other.
 */
export const LOOK_KINDS = ['finish', 'lights', 'camera', 'scene', 'ribbon', 'steps', 'motion'] as const;
export type LookKind = (typeof LOOK_KINDS)[number];
/** Those that are of the scene. */
export type SceneLookKind = 'lights' | 'camera' | 'scene';

export const LOOK_WORDS: Readonly<Record<LookKind, { readonly one: string; readonly many: string }>> = {
  finish: { one: 'finish', many: 'finishes' },
  lights: { one: 'light set-up', many: 'light set-ups' },
  camera: { one: 'camera', many: 'cameras' },
  scene: { one: 'scene', many: 'scenes' },
  ribbon: { one: 'ribbon', many: 'ribbons' },
  steps: { one: 'chain of steps', many: 'chains of steps' },
  motion: { one: 'motion', many: 'motions' },
};

/** A finish as a look. */
export function finishLook(name: string, finish: FinishDoc): Piece {
  const ribbon = newRibbon('geodesic', 0, 'Ball');
  return { ...newPiece(name), ribbons: [{ ...ribbon, finishes: [{ ...finish, id: newId(), of: 'main', on: true }] }] };
}

/** Lights, the camera that is looked through, or the whole scene of a piece as a look. */
export function sceneLook(name: string, kind: SceneLookKind, { scene }: Pick<Piece, 'scene'>): Piece {
  const plain = newPiece(name);
  const part: Partial<Piece['scene']> =
    kind === 'lights' ? { lights: scene.lights } : kind === 'camera' ? { cameras: [cameraOf({ scene })] } : scene;
  return { ...plain, scene: { ...plain.scene, ...part } };
}

const fresh = (item: Item): Item => ({ ...item, id: newId() });

/** The parts of a kept finish with identifiers of their own. */
export function finishFrom(look: Piece): readonly PartDoc[] {
  return (look.ribbons[0]?.finishes[0]?.parts ?? []).map((p) => ({
    ...p,
    id: newId(),
    ...(p.patterns ? { patterns: p.patterns.map((l) => ({ ...l, id: newId() })) } : {}),
  }));
}

/** A piece with what a look of its scene holds in place of its own. A camera is added, and looked through. */
export function withSceneLook(piece: Piece, kind: SceneLookKind, look: Piece): Piece {
  const { scene } = piece;
  if (kind === 'lights') return { ...piece, scene: { ...scene, lights: look.scene.lights.map(fresh) } };
  if (kind === 'camera') {
    const others = scene.cameras.map((c) => ({ ...c, on: false }));
    return { ...piece, scene: { ...scene, cameras: [...others, { ...fresh(cameraOf(look)), on: true }] } };
  }
  const all = Object.entries(look.scene).map(([list, items]) => [list, items.map(fresh)]);
  return { ...piece, scene: Object.fromEntries(all) as Piece['scene'] };
}
