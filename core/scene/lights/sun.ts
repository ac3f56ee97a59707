import { number } from '../../declare/params';
import { defineLight } from '../kind';
import { lampColour, lampParams, strengthOf } from './lamp-params';

export const sun = defineLight({
  kind: 'sun',
  title: 'Sun',
  help: 'Even light from very far away, with a shadow as sharp as its disc is small.',
  icon: 'M12 8a4 4 0 1 0 0 8 4 4 0 0 0 0-8zM12 3v2M12 19v2M3 12h2M19 12h2M6 6l1 1M17 17l1 1M6 18l1-1M17 7l1-1',
  aims: true,
  params: {
    strength: strengthOf(100, '100 % makes white paper white.'),
    azimuth: number('Round', -40, 'Direction it comes from, round the upright axis.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
    }),
    elevation: number('Above', 45, 'Angle above the horizon.', {
      unit: '°',
      min: -90,
      max: 90,
      soft: [-10, 90],
      step: 1,
    }),
    size: number(
      'Size',
      0.53,
      'Angle its disc covers in the sky: 0.53° is the sun’s own; larger makes softer shadows.',
      {
        unit: '°',
        min: 0,
        max: 90,
        soft: [0, 20],
        step: 0.1,
      },
    ),
    ...lampParams,
  },
  at: (v) => {
    const [a, e] = [(v.azimuth * Math.PI) / 180, (v.elevation * Math.PI) / 180];
    return {
      type: 'sun',
      // A surface that faces light of irradiance π is as bright as its colour.
      irradiance: (v.strength / 100) * Math.PI,
      colour: lampColour(v),
      from: [Math.cos(e) * Math.sin(a), Math.sin(e), Math.cos(e) * Math.cos(a)],
      angle: v.size,
      shadow: v.shadow,
    };
  },
});
