import { describe, expect, it } from 'vitest';
import { PerspectiveCamera, Vector3 } from 'three';
import { randomSource } from '../maths/random';
import { fitFrame, orbitPose, verticalFov } from './lens';
import { projectionOf } from './projection';

const random = randomSource(11);
const between = (a: number, b: number) => a + (b - a) * random();

describe('from space to the picture', () => {
  it('puts points where three.js’ camera puts them', () => {
    for (let n = 0; n < 40; n++) {
      const target = [between(-2, 2), between(-2, 2), between(-2, 2)] as const;
      const pose = orbitPose(between(-180, 180), between(-80, 80), between(2, 12), target);
      const [width, height, focal, aspect] = [
        between(300, 1600),
        between(300, 1000),
        between(18, 200),
        between(0.5, 2),
      ];
      const { fov } = fitFrame(focal, aspect, width / height);
      const camera = new PerspectiveCamera(fov, width / height, 0.01, 1000);
      camera.position.set(...pose.position);
      camera.lookAt(...pose.target);
      camera.updateMatrixWorld();
      const view = projectionOf(pose, focal, aspect, width, height);
      for (let k = 0; k < 10; k++) {
        const p = [between(-1, 1) + target[0], between(-1, 1) + target[1], between(-1, 1) + target[2]] as const;
        const seen = view.to(p);
        const their = new Vector3(...p).project(camera);
        if (their.z > 1) continue;
        expect(seen!.x).toBeCloseTo(((their.x + 1) / 2) * width, 3);
        expect(seen!.y).toBeCloseTo(((1 - their.y) / 2) * height, 3);
      }
    }
  });
  it('a move in the picture moves a point just that far in it, at its depth', () => {
    const view = projectionOf(orbitPose(30, 20, 5, [0, 0, 0]), 50, 1, 800, 600);
    const p = [0.3, -0.2, 0.6] as const;
    const seen = view.to(p)!;
    const by = view.across(40, -25, seen.depth);
    const after = view.to(p.map((x, k) => x + by[k]) as unknown as typeof p)!;
    expect([after.x - seen.x, after.y - seen.y]).toEqual([expect.closeTo(40, 6), expect.closeTo(-25, 6)]);
    expect(after.depth).toBeCloseTo(seen.depth, 9);
  });
  it('what is behind the camera is nowhere', () => {
    const view = projectionOf(orbitPose(0, 0, 5, [0, 0, 0]), 50, 1, 800, 600);
    expect(view.to([0, 0, 6])).toBeNull();
    expect(view.to([0, 0, 0])).toMatchObject({ x: expect.closeTo(400, 6), y: expect.closeTo(300, 6) });
  });
  it('agrees with three.js’ own camera however steeply it looks', () => {
    for (const azimuth of [0, 35, -120])
      for (const elevation of [20, 89, 89.7, 89.75, 89.9, 89.999, -89.99]) {
        const pose = orbitPose(azimuth, elevation, 5, [0.2, 0.1, -0.3]);
        const camera = new PerspectiveCamera(verticalFov(50, 4 / 3), 4 / 3, 0.01, 100);
        camera.position.set(...pose.position);
        camera.lookAt(...pose.target);
        camera.updateMatrixWorld();
        const seen = projectionOf(pose, 50, 4 / 3, 800, 600).to([0.7, -0.4, 0.5])!;
        const theirs = new Vector3(0.7, -0.4, 0.5).project(camera);
        expect(seen.x).toBeCloseTo((theirs.x + 1) * 400, 3);
        expect(seen.y).toBeCloseTo((1 - theirs.y) * 300, 3);
      }
  });
});
