import { Registry } from '../../declare/registry';
import { along } from './along';
import { around } from './around';
import { bands } from './bands';
import { copies } from './copies';
import { crevices } from './crevices';
import { depth } from './depth';
import { distance } from './distance';
import { even } from './even';
import { facing } from './facing';
import { image } from './image';
import { noise } from './noise';
import { region } from './region';

/** Every pattern, in menu order. A new one is added here and nowhere else. */
export const patterns = new Registry('pattern', [
  noise,
  bands,
  image,
  facing,
  crevices,
  along,
  around,
  distance,
  region,
  depth,
  copies,
  even,
]);
