import { choice, toggle } from '../../declare/params';
import { defineOutput, needsTrueLight } from '../kind';

export const exr = defineOutput({
  kind: 'exr',
  title: 'OpenEXR pictures',
  help: 'Light itself, with passes',
  group: 'pictures',
  icon: 'layers',
  ending: 'exr',
  many: true,
  params: {
    precision: choice(
      'Precision',
      'half',
      [
        { value: 'half', title: 'Half' },
        { value: 'float', title: 'Float' },
      ],
      'Half is enough for light; float keeps depth and place exact.',
    ),
    passes: toggle(
      'Passes',
      true,
      'Depth, place, normal, albedo, movement, every light by itself, masks of ribbons and a colour for each copy, as layers.',
    ),
  },
  sheet: (v) => `${v.precision}${v.passes ? '-passes' : ''}` as const,
  refusal: ({ light }) => needsTrueLight(light, 'Light that is not cut off'),
});
