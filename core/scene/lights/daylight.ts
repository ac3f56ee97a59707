import { colour, number, toggle } from '../../declare/params';
import { ABOVE_THE_AIR, sunlightLeft } from '../daylight';
import { defineLight, type LightAt } from '../kind';
import { shadeOf, shadeParams } from './shade';
import { strengthParam, turnedParams } from './turned';

/** A clear sky at noon is about as bright as a studio: thousand candela per square metre to light of the picture. */
const SCALE = 0.09;

const direction = (height: number, turn: number) => {
  const [h, a] = [(height * Math.PI) / 180, (turn * Math.PI) / 180];
  return [Math.cos(h) * Math.sin(a), Math.sin(h), Math.cos(h) * Math.cos(a)] as const;
};

export const daylight = defineLight({
  kind: 'daylight',
  title: 'Daylight',
  help: 'A clear sky and its sun, by how high the sun stands and how hazy the air is.',
  icon: 'M3 18h18M7 18a5 5 0 0 1 10 0M12 4v4M4.500 9.500l2.500 2.500M19.500 9.500L17 12',
  one: 'round',
  params: {
    strength: strengthParam,
    height: number('Sun height', 35, 'Above the horizon.', {
      unit: '°',
      min: 0.5,
      max: 90,
      soft: [0.5, 90],
      step: 0.5,
    }),
    turn: { ...turnedParams.turn, help: 'Which way the sun stands, round the upright axis.' },
    haze: number('Haze', 3, 'Turbidity: 2 is mountain air, 10 a hazy day.', {
      min: 1.8,
      max: 12,
      soft: [1.8, 10],
      step: 0.1,
    }),
    sun: number('Sun', 100, 'Brightness of the sun itself; its shadows go with it.', {
      unit: '%',
      min: 0,
      max: 1000,
      soft: [0, 200],
      step: 1,
    }),
    size: number('Sun size', 0.53, 'Width of its disc: the larger, the softer its shadows.', {
      unit: '°',
      min: 0,
      max: 90,
      soft: [0, 20],
      step: 0.1,
    }),
    shadow: toggle('Shadows', true, 'Whether the sun casts shadows.'),
    below: colour('Ground', '#6B655C', 'Colour of the ground, lit by sky and sun.'),
    ...shadeParams,
  },
  at: (v) => ({
    type: 'daylight',
    strength: v.strength / 100,
    scale: SCALE,
    // The sky is made once for each height and turned as a whole.
    sun: direction(v.height, 0),
    turn: v.turn,
    turbidity: v.haze,
    below: v.below,
    ...shadeOf(v),
  }),
  also: (v) => {
    const from = direction(v.height, v.turn);
    const left = sunlightLeft(from, v.haze);
    const most = Math.max(...left);
    if (v.sun === 0 || most < 1e-6) return [];
    const sun: LightAt = {
      type: 'sun',
      irradiance: (ABOVE_THE_AIR * SCALE * most * v.strength * v.sun) / 10_000,
      colour: left.map((c) => c / most) as [number, number, number],
      from: [...from],
      angle: v.size,
      shadow: v.shadow,
    };
    return [sun];
  },
});
