import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { polylinesOf } from '@maypole/core/shape/curves/curves';
import { brought, placedIn, tracksOf } from '../shapes/moving';
import { short, TextFile } from '../shapes/text-file';
import { eachFrame, type Exporter } from './exporter';

/** Wavefront OBJ: polygons as they are, curves as lines, copies as separate objects. */
export const obj: Exporter = async (making) => {
  const tracks = await tracksOf(making.piece, making.frames.slice(0, 1), new MeshCache(), making.signal);
  return eachFrame(making, async (_, to, frame) => {
    const file = new TextFile(to);
    try {
      let first = 1;
      for (const track of tracks) {
        file.write(`o ${track.name.replace(/\s+/g, '_') || 'Ribbon'}\n`);
        for (const { mesh, matrix } of placedIn(track.at(frame))) {
          const p = brought(mesh.positions, matrix);
          for (let i = 0; i < p.length; i += 3) file.write(`v ${short(p[i])} ${short(p[i + 1])} ${short(p[i + 2])}\n`);
          const { faceStart, corners, vertexCount } = mesh.connectivity;
          for (let f = 0; f + 1 < faceStart.length; f++) {
            const names = Array.from(corners.subarray(faceStart[f], faceStart[f + 1]), (v) => first + v);
            file.write(`f ${names.join(' ')}\n`);
          }
          for (const { vertices, closed } of polylinesOf(mesh.connectivity)) {
            const names = Array.from(vertices, (v) => first + v);
            file.write(`l ${(closed ? [...names, names[0]] : names).join(' ')}\n`);
          }
          first += vertexCount;
        }
        // Yields between ribbons.
        await new Promise((resolve) => setImmediate(resolve));
      }
    } finally {
      file.close();
    }
  });
};
