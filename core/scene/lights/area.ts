import { number, toggle } from '../../declare/params';
import { defineLight } from '../kind';
import { aimOf, lampColour, lampParams, placeOf, strengthOf } from './lamp-params';

export const area = defineLight({
  kind: 'area',
  title: 'Area light',
  help: 'A shining rectangle, such as a window or a soft box. The larger it is, the softer its shadows.',
  icon: 'M4 5h16v10H4zM8 19l-2 2M12 18v3M16 19l2 2',
  aims: true,
  params: {
    strength: strengthOf(
      200,
      '100 % makes white paper white three metres in front of it while it is small. Light of a large one comes from the side, too, and less of it counts: of 2 × 2 m 87 %, of 6 × 6 m 44 %.',
    ),
    place: placeOf([-3, 3, 2]),
    aim: aimOf(),
    width: number('Width', 2, 'From side to side.', { unit: 'm', min: 0.001, max: 1000, soft: [0.1, 6] }),
    height: number('Height', 2, 'From top to bottom.', { unit: 'm', min: 0.001, max: 1000, soft: [0.1, 6] }),
    turn: number('Turn', 0, 'Turns it about the direction it shines in.', {
      unit: '°',
      cyclic: 360,
      min: -36_000,
      max: 36_000,
      soft: [-180, 180],
      step: 1,
      more: true,
    }),
    seen: toggle('Seen', false, 'Whether the camera sees the lamp itself.'),
    ...lampParams,
  },
  at: (v) => ({
    type: 'area',
    // Radiance from the irradiance at three metres, spread over its face.
    radiance: ((v.strength / 100) * Math.PI * 9) / (v.width * v.height),
    colour: lampColour(v),
    at: v.place,
    target: v.aim,
    width: v.width,
    height: v.height,
    turn: v.turn,
    seen: v.seen,
    shadow: v.shadow,
  }),
});
