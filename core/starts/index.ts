import { bodies } from './bodies';
import { journeys } from './journeys';
import { many } from './many';

export type { Start } from './start';

/** Every starting point, in menu order. */
export const starts = [...bodies, ...many, ...journeys];
