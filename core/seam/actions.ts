import type { NumberParam, VectorParam } from '../declare/params';
import { wrapped } from '../time/keys/edit';
import { sortKeys, type KeyDoc } from '../time/keys/key';
import type { MotionDoc, TimingDoc } from '../time/motion';
import { closes, courseOf, evaluateNumber, isMoving } from '../time/value';
import { wholeTurn } from './whole-turn';
import { closingMotions, evenSpeed, smoothed } from './repairs';

/** A repair or change of a whole motion in one action. */
export interface MotionAction {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  /** The changed motion; null if it would change nothing or makes no sense. */
  apply(motion: MotionDoc, context: ActionContext): MotionDoc | null;
}

export interface ActionContext {
  readonly param: NumberParam | VectorParam;
  readonly frames: number;
  /** The playhead. */
  readonly frame: number;
}

function timed(motion: MotionDoc, timing: TimingDoc): MotionDoc {
  return { ...motion, timing: { ...motion.timing, ...timing } };
}

/** Keys in reverse: each segment leads back. */
function reversedKeys(motion: MotionDoc): MotionDoc {
  const keys = sortKeys(motion.keys as readonly KeyDoc[]);
  const adds = motion.adds as number;
  const turn = (t: readonly [number, number] | undefined) => t && ([-t[0], t[1]] as const);
  const mirrored = keys.map((k, i): KeyDoc => {
    const before = keys[(i + keys.length - 1) % keys.length];
    const { in: into, out, ease: _ease, ...plain } = k;
    const ease = before.ease && ([before.ease[1], before.ease[0]] as const);
    const key = {
      ...plain,
      to: before.to,
      ...(ease ? { ease } : {}),
      ...(out ? { in: turn(out) } : {}),
      ...(into ? { out: turn(into) } : {}),
    } as KeyDoc;
    return wrapped(key, -k.at, k.value, -adds);
  });
  return { ...motion, adds: -adds, keys: sortKeys(mirrored) };
}

/** Keys shifted in time, so that a given position becomes the seam. */
function keysFrom(motion: MotionDoc, share: number): MotionDoc {
  const adds = motion.adds as number;
  return {
    ...motion,
    keys: sortKeys((motion.keys as readonly KeyDoc[]).map((k) => wrapped(k, k.at - share, k.value, adds))),
  };
}

export const motionActions: readonly MotionAction[] = [
  {
    id: 'turn',
    title: 'One whole turn',
    help: 'Turns once in each loop, evenly, from where it starts.',
    apply(motion, { param, frames }) {
      if (!param.cyclic) return null;
      const { adds } = courseOf(motion, frames);
      const isTurn = motion.motion === 'keys' && (motion.keys as readonly KeyDoc[]).length === 1 && !motion.timing;
      if (isTurn && adds === param.cyclic) return null;
      return wholeTurn(Number(evaluateNumber(motion, { frame: 0, frames }).toPrecision(9)), param.cyclic);
    },
  },
  {
    id: 'close',
    title: 'Close it',
    help: 'The nearest motion that meets itself at the seam.',
    apply(motion, { param, frames }) {
      if (closes(courseOf(motion, frames), param.cyclic)) return null;
      const found = closingMotions(motion, param, frames)[0]?.motion;
      return isMoving(found) ? found : null;
    },
  },
  {
    id: 'even',
    title: 'Even speed',
    help: 'The same speed all the way round, through the seam too.',
    apply(motion) {
      if (motion.timing?.rest) return timed(motion, { rest: 0 });
      return motion.motion === 'keys' ? evenSpeed(motion) : null;
    },
  },
  {
    id: 'smooth',
    title: 'Smooth',
    help: 'One closed curve through all keys, without a corner.',
    apply: (motion) => (motion.motion === 'keys' ? smoothed(motion) : null),
  },
  {
    id: 'rest',
    title: 'Rest at the seam',
    help: 'Slows down to the seam and starts from there.',
    apply: (motion) => (motion.timing?.rest ? null : timed(motion, { rest: 0.12 })),
  },
  {
    id: 'reverse',
    title: 'Reverse',
    help: 'Runs the other way round.',
    apply(motion) {
      if (motion.motion === 'keys' && !motion.timing) return reversedKeys(motion);
      if (motion.timing?.way === 'there' || motion.timing?.way === 'sway') return null;
      return timed(motion, { way: motion.timing?.way === 'back' ? 'on' : 'back' });
    },
  },
  {
    id: 'there',
    title: 'There and back',
    help: 'Goes through it and back within the loop; always closes.',
    apply: (motion) =>
      motion.timing?.way === 'there' || motion.timing?.way === 'sway' ? null : timed(motion, { way: 'there' }),
  },
  {
    id: 'from-here',
    title: 'Begin here',
    help: 'Shifts it in time: what is at the playhead comes to the seam.',
    apply(motion, { frame, frames }) {
      const share = frame / frames;
      if (share === 0) return null;
      if (motion.motion === 'keys' && !motion.timing) return keysFrom(motion, share);
      const shift = (motion.timing?.shift ?? 0) - share;
      return timed(motion, { shift: shift - Math.floor(shift) });
    },
  },
  {
    id: 'fit',
    title: 'Fit to whole turns',
    help: 'The nearest whole number of turns.',
    apply(motion, { param, frames }) {
      if (motion.motion === 'wave' && !Number.isInteger(motion.turns))
        return { ...motion, turns: Math.round(motion.turns as number) || 1 };
      const { adds } = courseOf(motion, frames);
      if (!param.cyclic || adds === 0 || adds % param.cyclic === 0 || typeof motion.adds !== 'number') return null;
      return { ...motion, adds: (Math.round(motion.adds / param.cyclic) || Math.sign(motion.adds)) * param.cyclic };
    },
  },
];

/**
 * Converts any motion to keys on a smooth closed curve, evenly spaced.
 *
 * @param count keys, ≥ 1
 */
export function asKeys(motion: MotionDoc, count: number, frames: number): MotionDoc {
  const { adds, open } = courseOf(motion, frames);
  const keys = Array.from({ length: count }, (_, i): KeyDoc => {
    const frame = Math.round((i * frames) / count);
    return {
      at: frame / frames,
      value: Number(evaluateNumber(motion, { frame, frames }).toPrecision(9)),
      to: 'spline',
    };
  });
  return { motion: 'keys', adds: open ? 0 : adds, keys: keys.filter((k, i) => i === 0 || k.at > keys[i - 1].at) };
}
