import { sceneAt } from '../evaluate/picture-at';
import type { Piece } from '../piece/piece';
import { halfHeight } from '../scene/lens';
import { setUpItems, type LightSetUp } from '../scene/set-ups';

/** The piece with a set-up's lights in place of its own, rotated with its camera and scaled to what that frames. */
export function lightUp(piece: Piece, setUp: LightSetUp, frame = 0): Piece {
  const { camera } = sceneAt(piece, frame);
  const way = camera.position.map((p, k) => p - camera.target[k]);
  const azimuth = (Math.atan2(way[0], way[2]) * 180) / Math.PI;
  const half = halfHeight(camera, 1, 1) * (camera.parallel > 0 ? 1 : Math.hypot(...way));
  const size = Math.max(0.2, Math.min(50, half / 2.2));
  return { ...piece, scene: { ...piece.scene, lights: setUpItems(setUp, azimuth, camera.target, size) } };
}
