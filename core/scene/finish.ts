import { colour, number } from '../declare/params';

/** The surface of a ribbon: a metal/rough physically based finish, as in glTF 2.0. */
export const finishParams = {
  colour: colour('Colour', '#D9483B', 'Colour of the surface.'),
  roughness: number('Roughness', 45, 'From mirror to chalk.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
  metalness: number('Metalness', 0, 'From plastic to metal.', { unit: '%', min: 0, max: 100, soft: [0, 100], step: 1 }),
} as const;
