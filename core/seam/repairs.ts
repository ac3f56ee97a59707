import type { NumberParam, NumberValue, VectorParam } from '../declare/params';
import { sortKeys, type KeyDoc } from '../time/keys/key';
import { MAX_FRAMES } from '../time/loop';
import type { MotionDoc } from '../time/motion';
import { isWhole } from '../maths/rational';
import type { Candidate } from '../time/closing';
import { motionKind } from '../time/motions/index';
import { closes, courseOf, isMoving } from '../time/value';

type Target = NumberParam | VectorParam;

function thereAndBack(motion: MotionDoc): Candidate {
  return {
    words: 'There and back',
    help: 'Goes through it and back within the loop',
    motion: { ...motion, timing: { ...motion.timing, way: 'sway' } },
  };
}

/** Possible changes to a motion without layers that does not close. */
function candidatesFor(motion: MotionDoc, param: Target, frames: number): Candidate[] {
  const { layers: _layers, ...alone } = motion;
  const course = courseOf(alone as MotionDoc, frames);
  const kind = motionKind(motion.motion);
  const out: Candidate[] = [...(kind.closing?.(motion, param, course) ?? [])];
  if (!isWhole(course.turns) && course.turns.den <= 12 && !kind.turns)
    out.push({
      words: course.turns.den === 2 ? 'Twice as fast' : `${course.turns.den} times as fast`,
      motion: { ...motion, timing: { ...motion.timing, times: (motion.timing?.times ?? 1) * course.turns.den } },
    });
  out.push(thereAndBack(motion));
  return out;
}

/**
 * Motions that close, for one that does not: each was tried. Layers are repaired if they are at fault, the base if it
 * is.
 */
export function closingMotions(value: MotionDoc, param: Target, frames: number): Candidate[] {
  const sound = (v: NumberValue) => closes(courseOf(v, frames), param.cyclic);
  const { layers = [], ...rest } = value;
  const base = rest as MotionDoc;
  const baseOptions = sound(base)
    ? [{ words: '', motion: base as NumberValue }]
    : candidatesFor(base, param, frames).filter((c) => sound(c.motion));
  let mended = layers;
  let mendedWords = '';
  if (layers.some((l) => l.on && !sound(l.motion))) {
    mended = layers.map((l) => {
      if (!l.on || sound(l.motion)) return l;
      const fix = candidatesFor(
        l.motion,
        { ...param, cyclic: l.how === 'add' ? param.cyclic : undefined },
        frames,
      ).find((c) => isMoving(c.motion) && sound(c.motion));
      return fix ? { ...l, motion: fix.motion as MotionDoc } : { ...l, on: false };
    });
    mendedWords = 'close the layers';
  }
  const whole = (c: NumberValue, l: typeof layers): NumberValue =>
    isMoving(c) && l.length > 0 ? { ...c, layers: l } : c;
  const words = (a: string, b: string) => [a, b].filter(Boolean).join(', ') || 'Close it';
  const out = baseOptions.map((c) => ({ ...c, words: words(c.words, mendedWords), motion: whole(c.motion, mended) }));
  if (layers.length > 0) {
    out.push(
      ...baseOptions.map((c) => ({
        words: words(c.words, 'without layers'),
        motion: whole(
          c.motion,
          layers.map((l) => ({ ...l, on: false })),
        ),
      })),
    );
    if (sound(thereAndBack(base).motion))
      out.push({ words: 'There and back', motion: whole(thereAndBack(base).motion, mended) });
  }
  const seen = new Set<string>();
  return out.filter((c) => {
    const text = JSON.stringify(c.motion);
    if (seen.has(text) || !sound(c.motion)) return false;
    seen.add(text);
    return true;
  });
}

/** Number of loops in one period of the value; null if it never repeats, or only after too many. */
export function loopsToClose(value: NumberValue, cyclic: number | undefined, frames: number): number | null {
  const { turns, adds, open } = courseOf(value, frames);
  if (open) return null;
  let loops = turns.den;
  if (adds !== 0) {
    if (!cyclic) return null;
    let k = 1;
    while (k <= 360 && Math.abs((adds * k) % cyclic) > 1e-9) k++;
    if (k > 360) return null;
    loops *= k;
  }
  return loops * frames <= MAX_FRAMES ? loops : null;
}

/** Keys redistributed on straight lines so that the value changes at constant speed. */
export function evenSpeed(motion: MotionDoc): MotionDoc {
  const keys = sortKeys(motion.keys as readonly KeyDoc[]);
  const adds = motion.adds as number;
  const rises = keys.map((k, i) =>
    Math.abs((i + 1 < keys.length ? keys[i + 1].value : keys[0].value + adds) - k.value),
  );
  const total = rises.reduce((a, b) => a + b, 0);
  if (total === 0) return motion;
  let at = keys[0].at;
  const even: KeyDoc[] = keys.map((k, i) => {
    const { in: _in, out: _out, broken: _broken, ease: _ease, ...plain } = k;
    const key: KeyDoc = { ...plain, at: at - Math.floor(at), to: 'linear' };
    at += rises[i] / total;
    return key;
  });
  const { rest: _rest, ...timing } = motion.timing ?? {};
  // A key carried across the seam belongs to the next loop, and so is one gain lower here.
  const lowered = even.map((k, i) => (i > 0 && k.at < even[0].at ? { ...k, value: k.value - adds } : k));
  return { ...motion, ...(motion.timing ? { timing } : {}), keys: sortKeys(lowered) };
}

/** All keys joined by one smooth closed curve without overshoot. */
export function smoothed(motion: MotionDoc): MotionDoc {
  return {
    ...motion,
    keys: (motion.keys as readonly KeyDoc[]).map(({ in: _in, out: _out, broken: _broken, ease: _ease, ...k }) => ({
      ...k,
      to: 'smooth' as const,
    })),
  };
}
