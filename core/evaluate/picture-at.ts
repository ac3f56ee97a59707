import { surfacesOf, type Surfaces } from '../finish/finish';
import { backdrops, airs, cameras, grounds, lights, pictureEffects } from '../scene/index';
import type { SceneKind } from '../scene/kind';
import type { SceneAt } from '../scene/scene-at';
import type { Registry } from '../declare/registry';
import { linkPiece } from '../piece/link';
import { cameraOf, type Item, type Piece, type RibbonDoc } from '../piece/piece';
import type { Clock } from '../time/loop';
import { assetsOfPicture } from './assets';
import { evaluateValues } from '../time/values';

export type { SceneAt };

/** A ribbon in a picture: a shape in the renderer's form, and the surfaces of its faces. */
export interface RibbonAt<Shape> {
  readonly id: string;
  readonly shape: Shape;
  readonly surfaces: Surfaces;
}

/** Everything a renderer needs to draw a frame. */
export interface PictureAt<Shape> {
  readonly ribbons: readonly RibbonAt<Shape>[];
  /** Surfaces of every ribbon, shown or not, by identifier: copies may use those of others. */
  readonly materials: ReadonlyMap<string, Surfaces>;
  readonly scene: SceneAt;
  /** Width / height of the delivered picture. */
  readonly aspect: number;
  /** Fingerprints of files that surfaces and the scene name. */
  readonly files: readonly string[];
}

function listed<At>(items: readonly Item[], kinds: Registry<SceneKind<At>>, clock: Clock): At[] {
  return items
    .filter((i) => i.on)
    .flatMap((i) => {
      const kind = kinds.get(i.kind);
      const values = evaluateValues(kind.params, i.values, clock);
      return [kind.at(values, clock), ...(kind.also?.(values, clock) ?? [])];
    });
}

function itemAt<At>(item: Item, kinds: Registry<SceneKind<At>>, clock: Clock): At {
  const kind = kinds.get(item.kind);
  return kind.at(evaluateValues(kind.params, item.values, clock), clock);
}

/** Camera, lights, backdrop, air and picture effects at an unwrapped frame. */
export function sceneAt(piece: Piece, frame: number): SceneAt {
  const { scene, loop } = linkPiece(piece);
  const clock = { frame, frames: loop.frames };
  return {
    camera: itemAt(cameraOf({ scene }), cameras, clock),
    lights: listed(scene.lights, lights, clock),
    backdrop: itemAt(scene.backdrop[0], backdrops, clock),
    ground: listed(scene.ground, grounds, clock),
    air: listed(scene.air, airs, clock),
    picture: listed(scene.picture, pictureEffects, clock),
  };
}

/**
 * Describes a frame for any renderer: no drawing library is known here, and nothing depends on earlier frames.
 *
 * @param frame any real number, unwrapped
 * @param shapeOf the shape of a ribbon in the renderer's form; undefined leaves the ribbon out
 *
 * @example
 * // Evaluating shapes here and now:
 * const cache = new MeshCache();
 * const picture = pictureAt(piece, 12, (ribbon) => evaluateRibbon(ribbon, piece.loop, 12, 'final', cache).mesh);
 */
export function pictureAt<Shape>(
  piece: Piece,
  frame: number,
  shapeOf: (linked: RibbonDoc, index: number) => Shape | undefined,
): PictureAt<Shape> {
  const linked = linkPiece(piece);
  const clock = { frame, frames: piece.loop.frames };
  const materials = new Map(linked.ribbons.map((r) => [r.id, surfacesOf(r.finishes, clock)]));
  const ribbons = linked.ribbons.flatMap((r, i): RibbonAt<Shape>[] => {
    const shape = r.on ? shapeOf(r, i) : undefined;
    return shape === undefined ? [] : [{ id: r.id, shape, surfaces: materials.get(r.id)! }];
  });
  return {
    ribbons,
    materials,
    scene: sceneAt(piece, frame),
    aspect: piece.format.width / piece.format.height,
    files: assetsOfPicture(piece),
  };
}
