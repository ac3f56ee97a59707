import { quat, vec3 } from 'gl-matrix';
import { describe, expect, it } from 'vitest';
import { randomSource, randomUnitVector } from '../maths/random';
import { closedPath, splineThrough } from './closed-path';
import { cross } from '../maths/vec3';
import { axisAngle, IDENTITY, matrixOf, multiply, rotate, sinCosDegrees, slerp } from '../maths/quaternion';

const random = randomSource(4);
const close = (a: ArrayLike<number>, b: ArrayLike<number>, digits = 6) =>
  Array.from(a).forEach((x, i) => expect(x).toBeCloseTo(b[i], digits));

describe('quaternions, against npm gl-matrix', () => {
  it('turn about an axis, one after the other, and between two poses', () => {
    for (let n = 0; n < 100; n++) {
      const [p, q] = [randomUnitVector(random), randomUnitVector(random)];
      const [a, b] = [random() * 360 - 180, random() * 360 - 180];
      const rad = Math.PI / 180;
      const [ours, other] = [axisAngle(p, a), axisAngle(q, b)];
      const [peer, peerOther] = [
        quat.setAxisAngle(quat.create(), p, a * rad),
        quat.setAxisAngle(quat.create(), q, b * rad),
      ];
      close(ours, peer);
      close(multiply(ours, other), quat.multiply(quat.create(), peer, peerOther));
      const v = randomUnitVector(random);
      close(rotate(ours, v), vec3.transformQuat(vec3.create(), v, peer));
      const x = random();
      const between = slerp(ours, other, x);
      const peerBetween = quat.slerp(quat.create(), peer, peerOther, x);
      // A quaternion and its negative are the same turn.
      const sign = Math.sign(
        between[3] * peerBetween[3] +
          between[0] * peerBetween[0] +
          between[1] * peerBetween[1] +
          between[2] * peerBetween[2],
      );
      close(
        between,
        [...peerBetween].map((c) => c * sign),
        5,
      );
    }
  });
  it('whole and quarter turns are exact', () => {
    expect(matrixOf(axisAngle([0, 1, 0], 360))).toEqual(matrixOf(IDENTITY).map((x) => expect.closeTo(x, 15)));
    expect([0, 90, 180, 270, 360, -90].map((d) => sinCosDegrees(d).map((x) => x + 0))).toEqual([
      [0, 1],
      [1, 0],
      [0, -1],
      [-1, 0],
      [0, 1],
      [-1, 0],
    ]);
    expect(axisAngle([0, 0, 0], 50)).toEqual(IDENTITY);
  });
});

describe('closed paths', () => {
  const circle = closedPath((u) => [2 * Math.cos(2 * Math.PI * u), 0, 2 * Math.sin(2 * Math.PI * u)]);
  it('a circle of radius 2 has length 4π and even speed', () => {
    expect(circle.length).toBeCloseTo(4 * Math.PI, 5);
    for (const s of [0, 1.3, 7, 12]) {
      const { point, tangent } = circle.at(s);
      expect(Math.atan2(point[2], point[0])).toBeCloseTo(((s / 2 + Math.PI) % (2 * Math.PI)) - Math.PI, 5);
      close(tangent, [-Math.sin(s / 2), 0, Math.cos(s / 2)], 4);
    }
  });
  it('length agrees with independent quadrature (Simpson) of a Lissajous curve', () => {
    const curve = (u: number): [number, number, number] => [
      3 * Math.sin(2 * Math.PI * u),
      2 * Math.sin(4 * Math.PI * u + 1),
      Math.cos(6 * Math.PI * u),
    ];
    const speed = (u: number) =>
      2 *
      Math.PI *
      Math.hypot(3 * Math.cos(2 * Math.PI * u), 4 * Math.cos(4 * Math.PI * u + 1), 3 * Math.sin(6 * Math.PI * u));
    const n = 2000;
    let sum = 0;
    for (let i = 0; i < n; i++) sum += (speed(i / n) + 4 * speed((i + 0.5) / n) + speed((i + 1) / n)) / (6 * n);
    expect(closedPath(curve).length / sum).toBeCloseTo(1, 5);
  });
  it('frames are square to the path, close round it, and turn about it no more than evenly', () => {
    const path = closedPath((u) => [
      3 * Math.sin(2 * Math.PI * u),
      1.5 * Math.sin(4 * Math.PI * u),
      Math.cos(6 * Math.PI * u),
    ]);
    const twists: number[] = [];
    const step = path.length / 400;
    for (let i = 0; i < 400; i++) {
      const [a, b] = [path.at(i * step), path.at((i + 1) * step)];
      expect(a.tangent[0] * a.normal[0] + a.tangent[1] * a.normal[1] + a.tangent[2] * a.normal[2]).toBeCloseTo(0, 9);
      // Turn about the tangent from one frame to the next, the bending taken out.
      const axis = cross(a.tangent, b.tangent);
      const bent =
        Math.hypot(...axis) > 1e-12
          ? rotate(axisAngle(axis, (Math.asin(Math.min(1, Math.hypot(...axis))) * 180) / Math.PI), a.normal)
          : a.normal;
      twists.push(
        Math.asin(
          Math.max(
            -1,
            Math.min(
              1,
              cross(bent, b.normal)[0] * b.tangent[0] +
                cross(bent, b.normal)[1] * b.tangent[1] +
                cross(bent, b.normal)[2] * b.tangent[2],
            ),
          ),
        ) / step,
      );
    }
    const mean = twists.reduce((a, b) => a + b) / 400;
    for (const t of twists) expect(Math.abs(t - mean)).toBeLessThan(0.02 + 0.05 * Math.abs(mean));
    close(path.at(path.length).normal, path.at(0).normal, 9);
  });
  it('a spline goes through its points, and is closed with a continuous direction', () => {
    const points = [
      [0, 0, 0],
      [2, 1, 0],
      [3, 0, 2],
      [0, -1, 3],
    ] as const;
    const spline = splineThrough(points);
    const near = (p: readonly number[]) =>
      Math.min(...Array.from({ length: 4001 }, (_, i) => Math.hypot(...spline(i / 4000).map((x, k) => x - p[k]))));
    for (const p of points) expect(near(p)).toBeLessThan(2e-3);
    const d = (u: number) => spline(u + 1e-6).map((x, k) => (x - spline(u)[k]) / 1e-6);
    close(d(1 - 2e-6), d(0), 2);
  });
});
