import { choice, number } from '../../declare/params';
import { definePictureEffect } from '../kind';

/** Strengths of the curves that have a name. */
const CURVES = { soft: -0.35, neutral: 0, strong: 0.5, stronger: 1 } as const;

export const look = definePictureEffect({
  kind: 'look',
  title: 'Look',
  help: 'Contrast, colour and warmth of the finished picture.',
  icon: 'M4 18c6 0 4-12 16-12M4 20V4M4 20h16',
  params: {
    curve: choice(
      'Curve',
      'own',
      [
        { value: 'soft', title: 'Soft' },
        { value: 'neutral', title: 'Neutral' },
        { value: 'strong', title: 'Strong' },
        { value: 'stronger', title: 'Very strong' },
        { value: 'own', title: 'As set' },
      ],
      'How strong the contrast is, or as set below.',
    ),
    contrast: number('Contrast', 20, 'An S-curve about middle grey; below 0 it is softer.', {
      unit: '%',
      min: -100,
      max: 100,
      soft: [-60, 100],
      step: 1,
      shownWhen: { param: 'curve', is: ['own'] },
    }),
    saturation: number('Saturation', 100, '0 is grey, 100 leaves colours unchanged.', {
      unit: '%',
      min: 0,
      max: 400,
      soft: [0, 200],
      step: 1,
    }),
    warmth: number('Warmth', 0, 'Towards orange, or below 0 towards blue.', {
      unit: '%',
      min: -100,
      max: 100,
      soft: [-50, 50],
      step: 1,
    }),
    lift: number('Lift', 0, 'Raises the darkest parts.', { unit: '%', min: -50, max: 50, soft: [-10, 20], step: 0.5 }),
  },
  at: (v) => ({
    type: 'look',
    contrast: v.curve === 'own' ? v.contrast / 100 : CURVES[v.curve],
    saturation: v.saturation / 100,
    warmth: v.warmth / 100,
    lift: v.lift / 100,
  }),
});
