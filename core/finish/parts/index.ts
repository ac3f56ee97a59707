import { Registry } from '../../declare/registry';
import { base } from './base';
import { brushed } from './brushed';
import { dots } from './dots';
import { bump } from './bump';
import { cloth } from './cloth';
import { coat } from './coat';
import { cut } from './cut';
import { film } from './film';
import { glass } from './glass';
import { glow } from './glow';
import { metal } from './metal';
import { veil } from './veil';
import { wires } from './wires';

/** Every part of a finish, in the order in which they apply. A new one is added here and nowhere else. */
export const finishParts = new Registry('part of a finish', [
  base,
  metal,
  brushed,
  bump,
  glass,
  film,
  coat,
  cloth,
  glow,
  veil,
  cut,
  wires,
  dots,
]);
