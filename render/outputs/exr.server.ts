import { copyFile } from 'node:fs/promises';
import { eachFrame, type Exporter } from './exporter';

/** Sheets of light are OpenEXR files already. */
export const exr: Exporter = (making) => eachFrame(making, (index, to) => copyFile(making.sheet(index), to));
