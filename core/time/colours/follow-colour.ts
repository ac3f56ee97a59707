import { colour, number, source, type ColourValue } from '../../declare/params';
import { closedCourse } from '../motion';
import { splitTime } from '../phase';
import { defineColourMotion } from './colour-motion';

/** Takes its colour from another value; piece/link.ts adds that value as `source`. */
export const followColour = defineColourMotion({
  kind: 'follow',
  title: 'Follow',
  help: 'Follows another colour, now or a part of the loop ago.',
  params: {
    of: source('Follows', 'The colour it takes its own from.'),
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
    otherwise: colour('Otherwise', '#888888', 'The colour if what it follows no longer exists.', { moves: false }),
  },
  start: (from) => ({ of: '', delay: 0, otherwise: from }),
  prepare(s, frames, prepareOther) {
    const { source: from } = s as { source?: ColourValue };
    if (from === undefined) return { course: closedCourse({ num: 0, den: 1 }), colour: () => s.otherwise };
    const inner = prepareOther(from);
    const loops = inner.course.turns.den;
    return {
      course: inner.course,
      // The fraction is taken first, so that whole percents of whole frames stay exact around the loop.
      colour: (clock) => inner.colour({ frame: splitTime(clock, loops).frame - (s.delay / 100) * frames, frames }),
    };
  },
});
