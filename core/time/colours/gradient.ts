import { choice, number, stops } from '../../declare/params';
import { closedCourse } from '../motion';
import { fract, phaseOf } from '../phase';
import { toRational } from '../../maths/rational';
import { defineColourMotion } from './colour-motion';
import { SPACES } from './cycle';
import { between, turnHue, type ColourSpace } from './space';

/** A closed gradient: after the last colour comes the first. */
export const gradient = defineColourMotion({
  kind: 'gradient',
  title: 'Gradient',
  help: 'Moves along colours on a ring; the last leads into the first.',
  params: {
    stops: stops(
      'Colours',
      [
        { at: 0, colour: '#D9483B' },
        { at: 0.5, colour: '#3A86B7' },
      ],
      'Colours and their places on the ring.',
    ),
    blend: choice(
      'Blend',
      'smooth',
      [
        { value: 'linear', title: 'Even' },
        { value: 'smooth', title: 'Eased' },
        { value: 'hold', title: 'Hold' },
      ],
      'How one colour blends into the next.',
    ),
    turns: number('Turns', 1, 'Times along the ring per loop.', {
      perLoop: 1,
      unit: 'turns',
      min: -100,
      max: 100,
      soft: [-4, 4],
      step: 1,
      moves: false,
    }),
    phase: number('Phase', 0, 'Where on the ring the loop starts.', {
      unit: 'turns',
      min: -100,
      max: 100,
      soft: [0, 1],
      step: 0.01,
      moves: false,
    }),
    space: choice('Space', 'oklch', SPACES, 'In which colours are mixed.'),
  },
  start: (from) => ({
    stops: [
      { at: 0, colour: from },
      { at: 0.5, colour: turnHue(from, 150, 'oklch') },
    ],
    blend: 'smooth',
    turns: 1,
    phase: 0,
    space: 'oklch',
  }),
  prepare(s) {
    const ring = [...s.stops].sort((a, b) => a.at - b.at);
    const space = s.space as ColourSpace;
    const parts = ring.map((from, i) => {
      const to = ring[(i + 1) % ring.length];
      const length = i + 1 < ring.length ? to.at - from.at : to.at + 1 - from.at;
      return { at: from.at, length, mix: between(from.colour, to.colour, space) };
    });
    const turns = toRational(s.turns);
    const phase = s.phase;
    const ease = (x: number) => (s.blend === 'hold' ? 0 : s.blend === 'smooth' ? x * x * (3 - 2 * x) : x);
    return {
      course: closedCourse(turns, s.blend === 'hold'),
      colour(clock) {
        const p = fract(phaseOf(turns, clock) + phase);
        let part = parts[parts.length - 1];
        for (const candidate of parts) if (candidate.at <= p) part = candidate;
        if (p < parts[0].at) part = parts[parts.length - 1];
        const gone = p >= part.at ? p - part.at : p + 1 - part.at;
        return part.mix(part.length > 0 ? ease(Math.min(1, gone / part.length)) : 0);
      },
    };
  },
});
