import type { Course, LayerDoc, Prepared } from './motion';
import type { Clock } from './loop';
import { cyclesGone } from './phase';
import { lcm, rational } from '../maths/rational';

/** Value at a moment, less the steady gain of `adds` per `loops` loops. */
function baseOver(p: Prepared, clock: Clock, loops: number): number {
  const { adds, turns, open } = p.course;
  if (adds === 0 || open) return p.base(clock);
  return p.base(clock) + adds * (cyclesGone(clock, turns.den) - cyclesGone(clock, loops) * (loops / turns.den));
}

/** The full, unwrapped value at a moment. */
export function totalOf(p: Prepared, clock: Clock): number {
  const { adds, turns, open } = p.course;
  return adds === 0 || open ? p.base(clock) : p.base(clock) + adds * cyclesGone(clock, turns.den);
}

function bothTurns(a: Course, b: Course) {
  const den = lcm(a.turns.den, b.turns.den);
  // The common period: how many loops until both have repeated.
  return den === 1 ? rational(Math.max(1, Math.abs(a.turns.num))) : rational(1, den);
}

function added(a: Prepared, b: Prepared): Prepared {
  const turns = bothTurns(a.course, b.course);
  const loops = turns.den;
  const course: Course = {
    turns,
    adds: a.course.adds * (loops / a.course.turns.den) + b.course.adds * (loops / b.course.turns.den),
    by: a.course.by === 'proof' && b.course.by === 'proof' ? 'proof' : 'measure',
    open: a.course.open || b.course.open,
    sharp: a.course.sharp || b.course.sharp,
  };
  return {
    course,
    base: (clock) =>
      course.open ? totalOf(a, clock) + totalOf(b, clock) : baseOver(a, clock, loops) + baseOver(b, clock, loops),
    speed: (clock) => a.speed(clock) + b.speed(clock),
  };
}

function multiplied(a: Prepared, b: Prepared): Prepared {
  const turns = bothTurns(a.course, b.course);
  // A steady gain multiplied by something that varies never repeats.
  const open = a.course.open || b.course.open || a.course.adds !== 0 || b.course.adds !== 0;
  return {
    course: {
      turns,
      adds: 0,
      by: a.course.by === 'proof' && b.course.by === 'proof' ? 'proof' : 'measure',
      open,
      sharp: a.course.sharp || b.course.sharp,
    },
    base: (clock) => totalOf(a, clock) * totalOf(b, clock),
    speed: (clock) => a.speed(clock) * totalOf(b, clock) + totalOf(a, clock) * b.speed(clock),
  };
}

/** Applies layers to a motion, each to the result so far. */
export function withLayers(
  inner: Prepared,
  layers: readonly LayerDoc[] | undefined,
  prepare: (motion: LayerDoc['motion']) => Prepared,
): Prepared {
  let out = inner;
  for (const layer of layers ?? [])
    if (layer.on) out = (layer.how === 'add' ? added : multiplied)(out, prepare(layer.motion));
  return out;
}
