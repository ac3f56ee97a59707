import { describe, expect, it } from 'vitest';
import { OrthographicCamera, PerspectiveCamera, Vector3 } from 'three';
import { randomSource } from '../maths/random';
import { distanceAhead, fitFrame, halfHeight, orbitPose, verticalFov, type CameraPose } from './lens';
import { projectionOf, type CameraView } from './projection';

const random = randomSource(11);
const between = (a: number, b: number) => a + (b - a) * random();

const cameraAt = (pose: CameraPose, focalLength: number): CameraView => ({
  ...pose,
  focalLength,
  parallel: 0,
  roll: 0,
  shift: [0, 0],
});

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
      const view = projectionOf(cameraAt(pose, focal), aspect, width, height);
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
    const view = projectionOf(cameraAt(orbitPose(30, 20, 5, [0, 0, 0]), 50), 1, 800, 600);
    const p = [0.3, -0.2, 0.6] as const;
    const seen = view.to(p)!;
    const by = view.across(40, -25, seen.depth);
    const after = view.to(p.map((x, k) => x + by[k]) as unknown as typeof p)!;
    expect([after.x - seen.x, after.y - seen.y]).toEqual([expect.closeTo(40, 6), expect.closeTo(-25, 6)]);
    expect(after.depth).toBeCloseTo(seen.depth, 9);
  });
  it('what is behind the camera is nowhere', () => {
    const view = projectionOf(cameraAt(orbitPose(0, 0, 5, [0, 0, 0]), 50), 1, 800, 600);
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
        const seen = projectionOf(cameraAt(pose, 50), 4 / 3, 800, 600).to([0.7, -0.4, 0.5])!;
        const theirs = new Vector3(0.7, -0.4, 0.5).project(camera);
        expect(seen.x).toBeCloseTo((theirs.x + 1) * 400, 3);
        expect(seen.y).toBeCloseTo((1 - theirs.y) * 300, 3);
      }
  });
  it('agrees with three.js’ cameras where rays are parallel, rolled and shifted, and finds the way back', () => {
    for (let n = 0; n < 30; n++) {
      const pose = orbitPose(between(-180, 180), between(-80, 80), between(3, 9), [0.2, 0.1, -0.3]);
      const [width, height, aspect] = [between(300, 1600), between(300, 1000), between(0.5, 2)];
      const parallel = n % 2 ? between(2, 9) : 0;
      const [roll, shift] = [between(-90, 90), [between(-0.3, 0.3), between(-0.3, 0.3)] as const];
      const own = { ...pose, focalLength: 50, parallel, roll, shift };
      const half = halfHeight(own, aspect, width / height);
      const w = (half * width) / height;
      const camera = parallel
        ? new OrthographicCamera(-w, w, half, -half, 0.01, 100)
        : new PerspectiveCamera((2 * Math.atan(half) * 180) / Math.PI, width / height, 0.01, 100);
      const frame = fitFrame(50, aspect, width / height);
      camera.position.set(...pose.position);
      camera.lookAt(...pose.target);
      camera.rotateZ((roll * Math.PI) / 180);
      camera.setViewOffset(
        width,
        height,
        -shift[0] * frame.width * width,
        shift[1] * frame.height * height,
        width,
        height,
      );
      camera.updateMatrixWorld();
      const view = projectionOf(own, aspect, width, height);
      const p = [between(-1, 1), between(-1, 1), between(-1, 1)] as const;
      const seen = view.to(p)!;
      const theirs = new Vector3(...p).project(camera);
      expect(seen.x).toBeCloseTo(((theirs.x + 1) / 2) * width, 3);
      expect(seen.y).toBeCloseTo(((1 - theirs.y) / 2) * height, 3);
      const { from, way } = view.ray(seen.x, seen.y);
      from.forEach((x, k) => expect(x + way[k] * seen.depth).toBeCloseTo(p[k], 6));
      expect(distanceAhead(pose, p)).toBeCloseTo(seen.depth, 9);
    }
  });
  it('an isometric view shows the three edges of a cube equally long, 120° apart (ISO 5456-3)', () => {
    const own = {
      ...orbitPose(45, (Math.asin(Math.tan(Math.PI / 6)) * 180) / Math.PI, 9, [0, 0, 0]),
      focalLength: 50,
      parallel: 6,
      roll: 0,
      shift: [0, 0] as const,
    };
    const view = projectionOf(own, 1, 800, 800);
    const o = view.to([0, 0, 0])!;
    const edges = (
      [
        [1, 0, 0],
        [0, 1, 0],
        [0, 0, 1],
      ] as const
    ).map((e) => {
      const q = view.to(e)!;
      return { length: Math.hypot(q.x - o.x, q.y - o.y), angle: (Math.atan2(q.y - o.y, q.x - o.x) * 180) / Math.PI };
    });
    for (const e of edges) expect(e.length).toBeCloseTo(edges[0].length, 9);
    const apart = (a: number, b: number) => Math.abs(((a - b + 540) % 360) - 180);
    expect(apart(edges[0].angle, edges[1].angle)).toBeCloseTo(120, 6);
    expect(apart(edges[1].angle, edges[2].angle)).toBeCloseTo(120, 6);
  });
});
