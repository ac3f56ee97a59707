import { copyFile } from 'node:fs/promises';
import { eachFrame, type Exporter } from './exporter';

/** Frame images of light are OpenEXR files already. */
export const exr: Exporter = (making) => eachFrame(making, (index, to) => copyFile(making.sheet(index), to));
