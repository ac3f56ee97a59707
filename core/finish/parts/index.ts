import { Registry } from '../../declare/registry';
import { base } from './base';
import { metal } from './metal';

/** Every part a finish can have, in the order in which they act. A new one is added here and nowhere else. */
export const finishParts = new Registry('part of a finish', [base, metal]);
