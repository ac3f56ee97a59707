import { choice, number, toggle, vector } from '../../declare/params';
import { endSize, movedOn } from '../../copies/move-on';
import { brief, defineStep } from '../step';
import { movingSeam } from './moving-seam';
import { checkCopies, repeated, repeatParams, repeatsLater } from './common';

/** Copies in a row. */
export const repeatLine = defineStep({
  kind: 'repeat-line',
  title: 'Line',
  help: 'Repeats the form in a straight line.',
  icon: 'repeat-line',
  group: 'repeat',
  params: {
    count: number('Count', 8, 'How many.', { unit: 'copies', min: 1, max: 1_000_000, soft: [1, 60], integer: true }),
    by: choice(
      'Spread by',
      'spacing',
      [
        { value: 'spacing', title: 'Spacing' },
        { value: 'total', title: 'Total' },
      ],
      'Whether the offset is from copy to copy or spans the whole line.',
    ),
    way: vector('Offset', [1, 0, 0], 'From one copy to the next, or from the first to the last.', {
      unit: 'm',
      min: -10_000,
      max: 10_000,
      soft: [-3, 3],
      handle: 'place',
    }),
    centred: toggle('Centred', true, 'The middle of the line stays where the form was; otherwise its first copy.'),
    advance: number('Move on', 0, 'Places by which the copies move on in a loop; whole numbers look closed.', {
      unit: '/loop',
      min: -1000,
      max: 1000,
      soft: [-3, 3],
      step: 1,
      counts: true,
    }),
    ends: toggle(
      'Grow at the ends',
      true,
      'While they move on, copies grow in at one end and shrink at the other, so that none pops.',
    ),
    ...repeatParams,
  },
  summary: (v) =>
    `${v.count} · ${brief(Math.hypot(...v.way) / (v.by === 'total' ? Math.max(1, v.count - 1) : 1))} m apart`,
  reads: { copies: true, detail: true, clock: (v) => v.advance !== 0, loop: (v) => repeatsLater(v) },
  seam: (v, frames) => movingSeam(v, [v.count], frames, 'count'),
  evaluate(v, input, context) {
    const n = v.count;
    checkCopies(n, 'Use fewer.');
    const share = v.by === 'total' ? 1 / Math.max(1, n - 1) : 1;
    const step = v.way.map((x) => x * share);
    const place = movedOn(v.advance, n, context.clock);
    const [at, order] = [new Float32Array(3 * n), new Float32Array(n)];
    const sizes = v.advance !== 0 && v.ends ? new Float32Array(n) : undefined;
    const first = v.centred ? -(n - 1) / 2 : 0;
    for (let i = 0; i < n; i++) {
      const x = (order[i] = place(i));
      for (let k = 0; k < 3; k++) at[3 * i + k] = step[k] * (first + x);
      if (sizes) sizes[i] = endSize(x, n);
    }
    return repeated(v, input, { at, order, places: n, ...(sizes ? { sizes } : {}) }, context);
  },
});
