import type { DistanceField } from '@maypole/core/shape/fractals/field';
import type { Drawable, DrawablePart, DrawableTopology, Instances, ViewFrame } from './frame';

/**
 * Frames sent to a worker that draws. Buffers of the previous frame are named and not sent again: a static shape costs
 * nothing, a deforming one its vertices alone.
 */
export interface PackedPart {
  readonly key: string;
  readonly topologyKey: string;
  readonly topology?: DrawableTopology;
  readonly points?: Points;
  readonly instances?: Instances;
  readonly field?: DistanceField;
}

type Points = Pick<DrawablePart, 'positions' | 'normals' | 'occlusion'>;

export interface PackedFrame extends Omit<ViewFrame, 'ribbons'> {
  readonly ribbons: readonly (Omit<ViewFrame['ribbons'][number], 'shape'> & {
    readonly key: string;
    /** Absent if the receiver has the whole shape. */
    readonly parts?: readonly PackedPart[];
  })[];
}

/** What the receiver holds after a frame: shapes, vertices, connectivities. */
class Held<Shape, Points, Topology> {
  readonly shapes = new Map<string, Shape>();
  readonly points = new Map<string, Points>();
  readonly topologies = new Map<string, Topology>();
}

/** Packs frames for one receiver, in order. */
export class Packer {
  private held = new Held<true, true, true>();

  pack(frame: ViewFrame): PackedFrame {
    const next = new Held<true, true, true>();
    const ribbons = frame.ribbons.map(({ shape, ...rest }) => {
      next.shapes.set(shape.key, true);
      const parts = shape.parts.map((part): PackedPart => {
        const { key, topology, positions, normals, occlusion, instances, field } = part;
        const knownTopology = this.held.topologies.has(topology.key) || next.topologies.has(topology.key);
        const knownPoints = this.held.points.has(key) || next.points.has(key);
        next.topologies.set(topology.key, true);
        next.points.set(key, true);
        return {
          key,
          topologyKey: topology.key,
          ...(knownTopology ? {} : { topology: plain(topology) }),
          ...(knownPoints ? {} : { points: { positions, normals, ...(occlusion ? { occlusion } : {}) } }),
          ...(instances ? { instances } : {}),
          ...(field ? { field } : {}),
        };
      });
      return { ...rest, key: shape.key, ...(this.held.shapes.has(shape.key) ? {} : { parts }) };
    });
    this.held = next;
    return { ...frame, ribbons };
  }
}

/** Sends only what drawing needs of a connectivity. */
function plain({ key, triangles, edges, lines, groups, uv, closed }: DrawableTopology): DrawableTopology {
  return { key, triangles, edges, lines, groups, ...(uv ? { uv } : {}), closed };
}

/** Unpacks frames, in the order they were packed. */
export class Unpacker {
  private held = new Held<Drawable, Points, DrawableTopology>();

  unpack(packed: PackedFrame): ViewFrame {
    const next = new Held<Drawable, Points, DrawableTopology>();
    const ribbons = packed.ribbons.map(({ key, parts, ...rest }) => {
      const shape = parts ? { key, parts: parts.map((p) => this.part(p, next)) } : this.held.shapes.get(key);
      if (!shape) throw new Error(`The shape ${key} was named and never sent.`);
      next.shapes.set(key, shape);
      for (const p of shape.parts) {
        next.points.set(p.key, p);
        next.topologies.set(p.topology.key, p.topology);
      }
      return { ...rest, shape };
    });
    this.held = next;
    return { ...packed, ribbons };
  }

  private part(
    { key, topologyKey, topology, points, instances, field }: PackedPart,
    next: typeof this.held,
  ): DrawablePart {
    const sides = topology ?? next.topologies.get(topologyKey) ?? this.held.topologies.get(topologyKey);
    const body = points ?? next.points.get(key) ?? this.held.points.get(key);
    if (!sides || !body) throw new Error(`The part ${key} was named and never sent.`);
    next.topologies.set(topologyKey, sides);
    next.points.set(key, body);
    const { positions, normals, occlusion } = body;
    return {
      key,
      topology: sides,
      positions,
      normals,
      ...(occlusion ? { occlusion } : {}),
      ...(instances ? { instances } : {}),
      ...(field ? { field } : {}),
    };
  }
}
