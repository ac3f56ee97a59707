import { describe, expect, it } from 'vitest';
import { sceneAt } from '../evaluate/picture-at';
import { newPiece } from '../piece/piece';
import { readPieceValue } from '../piece/read';
import { lightSetUps, setUpItems } from './set-ups';

const length = (v: readonly number[]) => Math.hypot(...v);

describe('light set-ups', () => {
  it('are sound documents, each with lights that stand about the form and point at it', () => {
    for (const setUp of lightSetUps)
      for (const size of [0.2, 1, 20]) {
        const piece = newPiece();
        const lights = setUpItems(setUp, 77, [1, 2, 3], size);
        const read = readPieceValue(JSON.parse(JSON.stringify({ ...piece, scene: { ...piece.scene, lights } })));
        if (!read.ok) throw new Error(`${setUp.title}: ${read.message}`);
        for (const at of sceneAt(read.piece, 0).lights) {
          if (at.type !== 'area') continue;
          at.target.forEach((t, k) => expect(t).toBeCloseTo([1, 2, 3][k], 6));
          expect(length(at.at.map((x, k) => x - at.target[k]))).toBeGreaterThan(2 * size);
        }
      }
  });
  it('turn with the camera: from its side, they are the same', () => {
    const [three] = lightSetUps;
    const seen = (azimuth: number) => {
      const a = (azimuth * Math.PI) / 180;
      return setUpItems(three, azimuth, [0, 0, 0], 1).map((l) => {
        const [x, y, z] = l.values.place as readonly number[];
        // To the right, up, and towards the camera.
        return [Math.cos(a) * x - Math.sin(a) * z, y, Math.sin(a) * x + Math.cos(a) * z];
      });
    };
    const first = seen(0);
    seen(130).forEach((p, i) => p.forEach((x, k) => expect(x).toBeCloseTo(first[i][k], 2)));
  });
  it('are as bright on a form ten times as large', () => {
    const window = lightSetUps.find((s) => s.id === 'window')!;
    const brightness = (size: number) => {
      const { radiance, width, height, at } = sceneAt(
        { ...newPiece(), scene: { ...newPiece().scene, lights: setUpItems(window, 0, [0, 0, 0], size) } },
        0,
      ).lights[0] as { radiance: number; width: number; height: number; at: readonly number[]; type: 'area' };
      // Irradiance before a small lamp: radiance · area / distance².
      return (radiance * width * height) / length(at) ** 2;
    };
    expect(brightness(10) / brightness(1)).toBeCloseTo(1, 2);
  });
});
