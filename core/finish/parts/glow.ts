import { choice, colour, number } from '../../declare/params';
import { definePart } from '../part';

export const glow = definePart({
  kind: 'glow',
  title: 'Glow',
  help: 'The surface shines by itself.',
  icon: 'M12 3v3M12 18v3M3 12h3M18 12h3M6 6l2 2M16 16l2 2M6 18l2-2M16 8l2-2M12 9a3 3 0 1 0 0 6 3 3 0 0 0 0-6z',
  params: {
    of: choice(
      'Shines in',
      'own',
      [
        { value: 'own', title: 'Own colour' },
        { value: 'base', title: 'Colour of the surface' },
      ],
      'A colour of its own, or that of the surface, which may differ from copy to copy.',
    ),
    colour: colour('Colour', '#FFB35C', 'Colour of the light.', { shownWhen: { param: 'of', is: ['own'] } }),
    strength: number(
      'Strength',
      2,
      'Against white in plain light; beyond 1 it dazzles, and blooms where the picture has bloom.',
      {
        unit: '×',
        min: 0,
        max: 10_000,
        soft: [0, 12],
        step: 0.1,
      },
    ),
  },
  feature: 'glow',
  channels: { colour: 'emissiveColor', strength: 'emissiveStrength' },
  surface: (v) => ({ emissiveColor: v.colour, emissiveStrength: v.strength, emissiveTinted: v.of === 'base' }),
});
