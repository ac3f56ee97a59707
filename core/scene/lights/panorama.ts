import { asset } from '../../declare/params';
import { defineLight } from '../kind';
import { shadeOf, shadeParams } from './shade';
import { strengthParam, turnedParams } from './turned';

export const panorama = defineLight({
  kind: 'panorama',
  title: 'Picture of light',
  help: 'Light from all round, photographed somewhere (HDRI): a Radiance (.hdr) or OpenEXR (.exr) picture, twice as wide as high.',
  icon: 'M3 6c6 3 12 3 18 0v12c-6-3-12-3-18 0zM8 14l3-4 3 4M15.500 10.500h.01',
  one: 'round',
  params: {
    file: asset('File', 'light', 'A picture of all directions, .hdr or .exr.'),
    strength: strengthParam,
    ...turnedParams,
    ...shadeParams,
  },
  at: (v) => ({
    type: 'panorama',
    file: v.file,
    strength: v.strength / 100,
    turn: v.turn,
    tilt: v.tilt,
    ...shadeOf(v),
  }),
});
