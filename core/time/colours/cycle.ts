import { choice, colour, number } from '../../declare/params';
import { closedCourse } from '../motion';
import { phaseOf } from '../phase';
import { toRational } from '../../maths/rational';
import { defineColourMotion } from './colour-motion';
import { turnHue, type ColourSpace } from './space';

export const SPACES = [
  { value: 'oklch', title: 'As seen', help: 'OKLCH: equal steps look equal.' },
  { value: 'rgb', title: 'RGB', help: 'The display’s own red, green and blue.' },
] as const;

/** The hue circles the wheel. */
export const cycle = defineColourMotion({
  kind: 'cycle',
  title: 'Hue cycle',
  help: 'The hue travels round the wheel, once or more a loop.',
  params: {
    colour: colour('From', '#D9483B', 'The colour at the start of the loop.', { moves: false }),
    turns: number('Turns', 1, 'Times round the wheel per loop; below 0 it goes the other way.', {
      perLoop: 1,
      unit: 'turns',
      min: -100,
      max: 100,
      soft: [-4, 4],
      step: 1,
      moves: false,
    }),
    space: choice('Space', 'oklch', SPACES, 'In which the wheel lies.'),
  },
  start: (from) => ({ colour: from, turns: 1, space: 'oklch' }),
  prepare(s) {
    const turns = toRational(s.turns);
    return {
      course: closedCourse(turns),
      colour: (clock) => turnHue(s.colour, 360 * phaseOf(turns, clock), s.space as ColourSpace),
    };
  },
});
