import { JULIA_SIZE, type DistanceField } from '@maypole/core/shape/fractals/field';
import {
  acos,
  abs,
  atan,
  Break,
  cos,
  float,
  If,
  int,
  length,
  log,
  Loop,
  max,
  min,
  pow,
  round,
  select,
  sin,
  sqrt,
  vec2,
  vec3,
  vec4,
} from 'three/tsl';
import type { Node } from 'three/webgpu';
import { four, rgb, scalar, type Int, type Rgb, type Scalar, type Variable } from '../surfaces/tsl';

type Vec4 = Node<'vec4'>;

/** A distance bound as nodes; see core/shape/fractals/distance for the formulas and their sources. */
type BoundNode = (p: Rgb, numbers: Vec4, rounds: Int) => Scalar;

const number = (x: unknown) => scalar(float(x as number).toVar()) as Scalar & Variable;
const place = (x: unknown) => rgb(vec3(x as Rgb).toVar()) as Rgb & Variable;
const times = (rounds: Int, round: () => void) =>
  Loop({ start: int(0), end: int(rounds), type: 'int', condition: '<' }, round);

const box: BoundNode = (p, { x: scale, y: turn }, rounds) => {
  const reach = scale.greaterThan(1).select(scale.add(1).mul(2).div(scale.sub(1)), float(2));
  const size = number(scalar(reach).mul(Math.sqrt(3)));
  const c = place(p.mul(size));
  const z = place(c);
  const dr = number(1);
  const [co, si] = [number(cos(turn)), number(sin(turn))];
  times(rounds, () => {
    z.assign(z.clamp(-1, 1).mul(2).sub(z));
    const r2 = number(z.dot(z));
    const k = number(
      select(r2.lessThan(0.25), float(4), select(r2.lessThan(1), float(1).div(max(r2, 0.25)), float(1))),
    );
    const turned = vec3(co.mul(z.x).sub(si.mul(z.z)), z.y, si.mul(z.x).add(co.mul(z.z)));
    z.assign(turned.mul(k).mul(scale).add(c));
    dr.assign(dr.mul(abs(scale)).mul(k).add(1));
    If(z.dot(z).greaterThan(1e12), () => Break());
  });
  return scalar(max(float(0), length(z).sub(size)).div(dr).div(size));
};

const sponge: BoundNode = (p, { x: hole, y: turn }, rounds) => {
  const edge = 1 / Math.sqrt(3);
  const [c, s] = [cos(turn), sin(turn).mul(edge)];
  const m0 = number(c.add(float(1).sub(c).div(3)));
  const m1 = number(float(1).sub(c).div(3).sub(s));
  const m2 = number(float(1).sub(c).div(3).add(s));
  const z = place(p.div(edge));
  const largest = abs(p);
  const d = number(max(largest.x, max(largest.y, largest.z)).sub(edge));
  const cell = number(edge);
  times(rounds, () => {
    z.assign(z.mul(m0).add(z.yzx.mul(m1)).add(z.zxy.mul(m2)));
    const a = place(abs(z.sub(round(z.mul(0.5)).mul(2))));
    const across = min(max(a.x, a.y), min(max(a.y, a.z), max(a.z, a.x)));
    d.assign(max(d, hole.div(3).sub(across).mul(cell)));
    z.assign(z.mul(3));
    cell.assign(cell.div(3));
  });
  return scalar(d);
};

const bulb: BoundNode = (c, { x: power, y: phase }, rounds) => {
  const z = place(c);
  const dr = number(1);
  const r = number(length(z));
  times(rounds, () => {
    If(r.greaterThan(8).or(r.equal(0)), () => Break());
    const theta = number(acos(z.z.div(r).clamp(-1, 1)).mul(power).add(phase));
    const phi = number(atan(z.y, z.x).mul(power).add(phase));
    const grown = number(pow(r, power.sub(1)));
    dr.assign(power.mul(grown).mul(dr).add(1));
    const s = sin(theta);
    z.assign(
      vec3(s.mul(cos(phi)), s.mul(sin(phi)), cos(theta))
        .mul(grown.mul(r))
        .add(c),
    );
    r.assign(length(z));
  });
  return scalar(select(r.greaterThan(1), log(r).mul(r).mul(0.25).div(dr), float(0)));
};

const julia: BoundNode = (p, c, rounds) => {
  const q = four(vec4(p.mul(JULIA_SIZE), 0).toVar()) as Vec4 & Variable;
  const dr = number(1);
  const square = number(q.dot(q));
  times(rounds, () => {
    If(square.greaterThanEqual(16), () => Break());
    dr.assign(dr.mul(2).mul(sqrt(square)));
    q.assign(vec4(q.x.mul(q.x).sub(q.yzw.dot(q.yzw)), q.yzw.mul(q.x).mul(2)).add(c));
    square.assign(q.dot(q));
  });
  const r = sqrt(square);
  return scalar(select(r.greaterThan(1), r.mul(log(r)).mul(0.25).div(max(1e-12, dr)), float(0)).div(JULIA_SIZE));
};

const net: BoundNode = (p, { x: grow, y: angle }, rounds) => {
  const z = place(p.mul(1.6).add(vec3(cos(angle), 0, sin(angle)).mul(0.12)));
  const scale = number(1.6);
  times(rounds, () => {
    z.assign(z.sub(round(z.mul(0.5)).mul(2)));
    const k = number(grow.div(max(1e-9, z.dot(z))));
    z.assign(z.mul(k));
    scale.assign(scale.mul(k));
  });
  return scalar(abs(z.y).mul(0.25).div(scale));
};

const lattice: BoundNode = (p, { x: spacing, y: solid, z: rod, w: along }) => {
  const half = spacing.mul(solid);
  const rounded = half.mul(0.35);
  const moved = p.sub(along.mul(spacing));
  const a = place(abs(moved.sub(round(moved.div(spacing)).mul(spacing))));
  const q = place(a.sub(half).add(rounded));
  const cube = length(max(q, vec3(0)))
    .add(min(max(q.x, max(q.y, q.z)), 0))
    .sub(rounded);
  const rods = min(length(vec2(a.x, a.y)), min(length(vec2(a.y, a.z)), length(vec2(a.z, a.x)))).sub(rod.mul(spacing));
  return scalar(min(cube, rods));
};

/** A bound for each form; all numbers are uniforms, so that changing one compiles nothing. */
export const boundNodes: Readonly<Record<DistanceField['form'], BoundNode>> = {
  box,
  sponge,
  bulb,
  julia,
  net,
  lattice,
};
