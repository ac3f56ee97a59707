import { copyAll, copyFinish, isIn } from '../piece/copy';
import { cameraOf, newId, newPiece, newRibbon, type FinishDoc, type Piece, type RibbonDoc } from '../piece/piece';

/**
 * Parts of a piece that are stored for use in others. Each is a whole small piece that contains it and little else, so
 * that it is read, checked and migrated like any other.
 */
export const LOOK_KINDS = ['finish', 'lights', 'camera', 'scene', 'ribbon', 'steps', 'motion'] as const;
export type LookKind = (typeof LOOK_KINDS)[number];
/** Those of the scene. */
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

/** A ribbon's finish as a look; links between its values stay. */
export function finishLook(name: string, ribbon: RibbonDoc, finish: FinishDoc): Piece {
  const ball = newRibbon('geodesic', 0, 'Ball');
  const { parts } = copyFinish(ribbon, finish, ball.id);
  return { ...newPiece(name), ribbons: [{ ...ball, finishes: [{ id: newId(), of: 'main', on: true, parts }] }] };
}

/** Lights, the active camera, or the whole scene of a piece as a look. */
export function sceneLook(name: string, kind: SceneLookKind, { scene }: Pick<Piece, 'scene'>): Piece {
  const plain = newPiece(name);
  const part: Partial<Piece['scene']> =
    kind === 'lights' ? { lights: scene.lights } : kind === 'camera' ? { cameras: [cameraOf({ scene })] } : scene;
  return { ...plain, scene: { ...plain.scene, ...part } };
}

/** Result of using a look: links to what is not in the piece were dropped. */
export interface Used {
  readonly piece: Piece;
  readonly dropped: number;
}

/** A piece with a stored finish on one of its ribbons. */
export function withFinishLook(piece: Piece, ribbon: string, look: Piece): Used {
  const [ball] = look.ribbons;
  const finish = ball?.finishes[0];
  if (!finish) return { piece, dropped: 0 };
  const { parts, dropped } = copyFinish(ball, finish, ribbon, isIn(piece));
  const ribbons = piece.ribbons.map((r) =>
    r.id === ribbon ? { ...r, finishes: r.finishes.map((f) => (f.of === 'main' ? { ...f, parts } : f)) } : r,
  );
  return { piece: { ...piece, ribbons }, dropped };
}

/** A piece with the scene part of a look in place of its own. A camera is added, and made active. */
export function withSceneLook(piece: Piece, kind: SceneLookKind, look: Piece): Used {
  const { scene } = piece;
  const of = (part: Partial<Piece['scene']>) => {
    const { piece: copied, dropped } = copyAll(
      { ...newPiece(), scene: { ...EMPTY, ...part } },
      { exists: isIn(piece) },
    );
    return { copied: copied.scene, dropped };
  };
  if (kind === 'lights') {
    const { copied, dropped } = of({ lights: look.scene.lights });
    return { piece: { ...piece, scene: { ...scene, lights: copied.lights } }, dropped };
  }
  if (kind === 'camera') {
    const others = scene.cameras.map((c) => ({ ...c, on: false }));
    const { copied, dropped } = of({ cameras: [cameraOf(look)] });
    return {
      piece: { ...piece, scene: { ...scene, cameras: [...others, { ...copied.cameras[0], on: true }] } },
      dropped,
    };
  }
  const { copied, dropped } = of(look.scene);
  return { piece: { ...piece, scene: copied }, dropped };
}

const EMPTY: Piece['scene'] = { cameras: [], lights: [], backdrop: [], ground: [], air: [], picture: [] };
