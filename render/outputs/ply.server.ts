import { writeFile } from 'node:fs/promises';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { brought, cornersIn, placedIn, ShapeTrouble, tracksOf } from '../shapes/moving';
import { eachFrame, type Exporter } from './exporter';

/** Most corners of a file, which is assembled in memory. */
const MOST_CORNERS = 80e6;

/** PLY (G. Turk, 1994), binary: everything as one polygon mesh. */
export const ply: Exporter = async (making) => {
  const tracks = await tracksOf(making.piece, making.frames.slice(0, 1), new MeshCache(), making.signal);
  return eachFrame(making, async (_, to, frame) => {
    const placed = tracks.flatMap((track) => placedIn(track.at(frame)));
    if (cornersIn(placed) > MOST_CORNERS)
      throw new ShapeTrouble(
        `Frame ${frame} has more than ${MOST_CORNERS / 1e6} million corners of faces, too many for one PLY file; ` +
          'deliver fewer copies, or glTF, where copies cost little.',
      );
    let [vertices, faces, corners] = [0, 0, 0];
    for (const { mesh } of placed) {
      vertices += mesh.connectivity.vertexCount;
      faces += mesh.connectivity.faceStart.length - 1;
      corners += mesh.connectivity.corners.length;
    }
    const header = Buffer.from(
      `ply\nformat binary_little_endian 1.0\ncomment frame ${frame}\nelement vertex ${vertices}\nproperty ` +
        `float x\nproperty float y\nproperty float z\nelement face ${faces}\nproperty list uint uint ` +
        'vertex_indices\nend_header\n',
    );
    const out = Buffer.alloc(header.length + 12 * vertices + 4 * (faces + corners));
    header.copy(out);
    let at = header.length;
    let face = at + 12 * vertices;
    let first = 0;
    for (const { mesh, matrix } of placed) {
      for (const v of brought(mesh.positions, matrix)) at = out.writeFloatLE(v, at);
      const { faceStart, corners: c, vertexCount } = mesh.connectivity;
      for (let f = 0; f + 1 < faceStart.length; f++) {
        face = out.writeUInt32LE(faceStart[f + 1] - faceStart[f], face);
        for (let k = faceStart[f]; k < faceStart[f + 1]; k++) face = out.writeUInt32LE(first + c[k], face);
      }
      first += vertexCount;
    }
    await writeFile(to, out);
  });
};
