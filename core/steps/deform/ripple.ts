import { choice, number } from '../../declare/params';
import { phaseOf } from '../../time/phase';
import { toRational } from '../../maths/rational';
import { brief, defineStep } from '../step';
import { AXES, axisOptions, inPivot, pivotParams, roundedAbs, type Axis } from './frame';
import { limited, regionMoves, regionParams } from './region';

/** Waves that travel over the form, in rings or in rows. */
export const ripple = defineStep({
  kind: 'ripple',
  title: 'Ripple',
  help: 'Sends waves over the form, in rings or in rows.',
  icon: 'ripple',
  group: 'deform',
  params: {
    height: number('Height', 0.15, 'Of the waves.', { unit: 'm', min: -100, max: 100, soft: [-1, 1] }),
    wavelength: number('Wavelength', 0.6, 'From crest to crest.', {
      unit: 'm',
      min: 0.001,
      max: 1000,
      soft: [0.05, 4],
    }),
    pattern: choice(
      'Pattern',
      'rings',
      [
        { value: 'rings', title: 'Rings' },
        { value: 'rows', title: 'Rows' },
      ],
      'Rings round the line it moves along, or rows.',
    ),
    direction: choice('Moves along', 'y', axisOptions, 'Where points go up and down to.'),
    rows: choice('Runs along', 'x', axisOptions, 'Where rows run to.', {
      shownWhen: { param: 'pattern', is: ['rows'] },
    }),
    fade: number('Fades over', 0, 'Distance over which the waves die away; 0 never.', {
      unit: 'm',
      min: 0,
      max: 1000,
      soft: [0, 6],
    }),
    travels: number('Travels', 1, 'Wavelengths it goes on in a loop; whole numbers close.', {
      unit: 'turns',
      min: -1000,
      max: 1000,
      soft: [-6, 6],
      step: 1,
      counts: true,
    }),
    phase: number('Phase', 0, 'Where in a wave it begins.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [0, 360],
      step: 1,
    }),
    ...pivotParams,
    ...regionParams,
  },
  summary: (v) => `${brief(v.height)} m every ${brief(v.wavelength)} m`,
  reads: { clock: (v) => (v.travels !== 0 && v.height !== 0) || regionMoves(v) },
  evaluate(v, input, context) {
    const { clock } = context;
    if (v.height === 0) return input;
    const turn = phaseOf(toRational(v.travels), clock) - v.phase / 360;
    const to = inPivot(v, input.positions, (p) => {
      const s = AXES[v.direction as Axis];
      const [u, w] = [(s + 1) % 3, (s + 2) % 3];
      const r = AXES[v.rows as Axis];
      const out = p.slice();
      // At the centre of the rings and where fading begins, the surface is smooth, without a cusp.
      const soft = v.wavelength / 8;
      for (let i = 0; i < p.length; i += 3) {
        const d =
          v.pattern === 'rings' ? roundedAbs(Math.sqrt(p[i + u] * p[i + u] + p[i + w] * p[i + w]), soft) : p[i + r];
        const strength = v.fade > 0 ? Math.exp(-roundedAbs(d, v.fade / 4) / v.fade) : 1;
        out[i + s] = p[i + s] + v.height * strength * Math.sin(2 * Math.PI * (d / v.wavelength - turn));
      }
      return out;
    });
    return { connectivity: input.connectivity, positions: limited(v, input, to, context) };
  },
});
