import { choice, stops } from '../../declare/params';
import { rampOf } from '../../pattern/ramp';
import { defineLight } from '../kind';
import { shadeOf, shadeParams } from './shade';
import { strengthParam, turnedParams } from './turned';

export const gradientLight = defineLight({
  kind: 'gradient',
  title: 'Gradient surroundings',
  help: 'Light from all round in a gradient, from below to above or once round the horizon.',
  icon: 'M12 3a9 9 0 1 0 0 18 9 9 0 0 0 0-18zM4 9h16M3.500 13h17M5 17h14',
  one: 'round',
  params: {
    strength: strengthParam,
    along: choice(
      'Goes',
      'up',
      [
        { value: 'up', title: 'Upwards', help: 'From straight below to straight above.' },
        { value: 'round', title: 'Round', help: 'Once round the horizon, and into itself.' },
      ],
      'The direction of the gradient.',
    ),
    colours: {
      ...stops(
        'Colours',
        [
          { at: 0, colour: '#2B2440' },
          { at: 0.5, colour: '#F0B48A' },
          { at: 1, colour: '#A9C7E8' },
        ],
        'Colours from below to above, or round.',
      ),
      open: true,
    },
    ...turnedParams,
    ...shadeParams,
  },
  at: (v) => ({
    type: 'gradient',
    ramp: rampOf(v.colours, 'oklch', v.along === 'round'),
    round: v.along === 'round',
    strength: v.strength / 100,
    turn: v.turn,
    tilt: v.tilt,
    ...shadeOf(v),
  }),
});
