import { FINISH, type Connectivity, type Mesh } from './mesh';

/** Collects faces with any number of sides. */
export class ConnectivityBuilder {
  private readonly starts: number[] = [0];
  private readonly list: number[] = [];
  private readonly groups: number[] = [];
  private readonly slots: number[] = [];
  private readonly uv: number[] = [];

  /** @param places `read` keeps texture coordinates from a file as they are, mirrored or not */
  constructor(private readonly places: 'own' | 'read' = 'own') {}

  /**
   * Add a face by its vertices, counter-clockwise from outside, with its shading group, the finish it
   * has, and two numbers a corner for its place on the surface, the second upwards (for all faces or for none).
   * A picture there is read from left to right: places that run clockwise are turned over in the first number.
   */
  face(vertices: readonly number[], group = 0, slot: number = FINISH.main, uv?: readonly number[]): void {
    for (const v of vertices) this.list.push(v);
    if (uv) {
      const over = this.places === 'own' && signedArea(uv) < 0;
      uv.forEach((x, i) => this.uv.push(over && i % 2 === 0 ? 1 - x : x));
    }
    this.starts.push(this.list.length);
    this.groups.push(group);
    this.slots.push(slot);
  }

  get faces(): number {
    return this.groups.length;
  }

  finish(vertexCount: number): Connectivity {
    const grouped = this.groups.some((g) => g !== this.groups[0]);
    return {
      vertexCount,
      faceStart: Uint32Array.from(this.starts),
      corners: Uint32Array.from(this.list),
      ...(grouped ? { shadingGroups: Uint16Array.from(this.groups) } : {}),
      ...(this.slots.some((s) => s !== 0) ? { slots: Uint8Array.from(this.slots) } : {}),
      ...(this.uv.length > 0 && this.uv.length === 2 * this.list.length ? { uv: Float32Array.from(this.uv) } : {}),
    };
  }
}

/** Twice the signed area of a flat polygon, x and y of each corner; negative if clockwise. */
function signedArea(corners: readonly number[]): number {
  const n = corners.length;
  let sum = 0;
  for (let i = 0; i < n; i += 2) {
    const j = (i + 2) % n;
    sum += corners[i] * corners[j + 1] - corners[j] * corners[i + 1];
  }
  return sum;
}

/** A small cache of a form's last connectivities, by its segment counts. */
export function connectivityStore(limit = 12): (key: string, make: () => Connectivity) => Connectivity {
  const known = new Map<string, Connectivity>();
  return (key, make) => {
    let c = known.get(key);
    if (!c) {
      c = make();
      if (known.size >= limit) known.delete(known.keys().next().value!);
      known.set(key, c);
    }
    return c;
  };
}

/** A mesh, checked for size. */
export function meshOf(connectivity: Connectivity, positions: Float32Array): Mesh {
  if (positions.length !== connectivity.vertexCount * 3)
    throw new RangeError(`${positions.length} coordinates do not fit ${connectivity.vertexCount} vertices.`);
  return { connectivity, positions };
}
