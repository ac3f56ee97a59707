import { number, source, toggle, type NumberValue } from '../../declare/params';
import { closedGains, type Candidate } from '../closing';
import { defineMotion, type Prepared } from '../motion';
import { splitTime } from '../phase';
import { rational } from '../../maths/rational';
import { springResponse } from '../spring';
import { withTiming } from '../timing';

/**
 * Follows another value. A stored piece has its address in `of`; piece/link.ts adds that value as `source`, so that
 * evaluation needs nothing else.
 */
export const follow = defineMotion({
  kind: 'follow',
  title: 'Follow',
  help: 'Follows another value: scaled, delayed, on a spring.',
  ofValue: { offset: 'change', otherwise: 'value' },
  turns: true,
  words: () => 'follows',
  closing(motion, param, course) {
    const out: Candidate[] = [];
    if (param.cyclic && course.adds !== 0) {
      const of = course.adds / (motion.scale as number);
      for (const gain of closedGains(course.adds, param.cyclic))
        if (gain !== 0)
          out.push({ words: `Scale ${Number((gain / of).toPrecision(6))}`, motion: { ...motion, scale: gain / of } });
    }
    if (course.turns.den > 1) out.push({ words: 'Stand still', motion: motion.otherwise as number });
    return out;
  },
  params: {
    of: source('Follows', 'The value it takes its motion from.'),
    scale: number('Scale', 1, 'Factor on the other value.', {
      unit: '×',
      min: -10_000,
      max: 10_000,
      soft: [-2, 2],
      step: 0.05,
      moves: false,
    }),
    offset: number('Offset', 0, 'Added after scaling.', { moves: false }),
    delay: number('Delay', 0, 'How much later it does the same, as a part of the loop.', {
      unit: '%',
      time: true,
      perLoop: -1,
      min: -1000,
      max: 1000,
      soft: [0, 100],
      step: 1,
      moves: false,
    }),
    springy: toggle('Springy', false, 'Lags and overshoots, as on a spring.'),
    swings: number('Stiffness', 3, 'Swings a loop that the spring would make by itself: more is stiffer.', {
      unit: '/loop',
      min: 0.1,
      max: 200,
      soft: [0.5, 16],
      step: 0.1,
      moves: false,
      shownWhen: { param: 'springy', is: [true] },
    }),
    damping: number('Damping', 30, '100 % comes to rest without swinging past.', {
      unit: '%',
      min: 1,
      max: 1000,
      soft: [1, 150],
      step: 1,
      moves: false,
      shownWhen: { param: 'springy', is: [true] },
    }),
    otherwise: number('Otherwise', 0, 'The value if what it follows no longer exists.', { moves: false }),
  },
  start: (value) => ({
    of: '',
    scale: 1,
    offset: 0,
    delay: 0,
    springy: false,
    swings: 3,
    damping: 30,
    otherwise: value,
  }),
  prepare(settings, frames, prepareNumber) {
    const { source: from } = settings as { source?: NumberValue };
    const { scale, offset, otherwise } = settings;
    if (from === undefined) {
      const lost: Prepared = {
        course: { turns: rational(0), adds: 0, by: 'proof', open: false, sharp: false },
        base: () => otherwise,
        speed: () => 0,
      };
      return lost;
    }
    let inner = prepareNumber(from);
    if (settings.springy)
      inner = springResponse(inner, { swings: settings.swings, damping: settings.damping / 100 }, frames);
    if (settings.delay !== 0) inner = delayed(inner, settings.delay / 100);
    return {
      course: { ...inner.course, adds: inner.course.adds * scale },
      base: (clock) => scale * inner.base(clock) + offset,
      speed: (clock) => scale * inner.speed(clock),
    };
  },
});

function delayed(inner: Prepared, delay: number): Prepared {
  const loops = inner.course.turns.den;
  if (loops === 1) return withTiming(inner, { shift: delay });
  // With a period of several loops, the position within one loop is not enough.
  const { adds, open } = inner.course;
  const shifted = (clock: { frame: number; frames: number; loops?: number }) => {
    const at = splitTime(clock, loops);
    return { at, clock: { frame: at.frame - delay * clock.frames, frames: clock.frames } };
  };
  return {
    course: inner.course,
    base(clock) {
      const { clock: then } = shifted(clock);
      return inner.base(then) + (adds === 0 || open ? 0 : adds * splitTime(then, loops).cycles);
    },
    speed: (clock) => inner.speed(shifted(clock).clock),
  };
}
