import { Registry } from '../declare/registry';
import { mp4 } from './kinds/mp4';
import { png } from './kinds/png';
import { webm } from './kinds/webm';

/** Every kind of output, in the order of the menu. A new one is added here and nowhere else. */
export const outputs = new Registry('kind of output', [png, mp4, webm]);
