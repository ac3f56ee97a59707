import { copyFile } from 'node:fs/promises';
import { eachFrame, type Maker } from './maker';

/** Sheets of light are OpenEXR files already. */
export const exr: Maker = (making) => eachFrame(making, (index, to) => copyFile(making.sheet(index), to));
