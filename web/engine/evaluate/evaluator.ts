import { fingerprint } from '@maypole/core/maths/hash';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { askingFirst } from '@maypole/core/steps/allowance';
import { ambientOcclusionOf } from '@maypole/core/shape/ambient-occlusion';
import { drawBuffers, drawTopologyOf } from '@maypole/core/shape/drawable';
import { faceCount, perConnectivity, type Connectivity, type Mesh } from '@maypole/core/shape/mesh';
import { instanceBuffers, instancesOf } from './instances';
import type { EvaluateJob, FromEvaluator, PartResult, ToEvaluator, Topology } from './protocol';

/**
 * Equal connectivities get equal keys in every worker, so that their buffers are shared: keys cover everything drawing
 * depends on.
 */
export const topologyKey = perConnectivity((c: Connectivity) => {
  let h = 0x811c9dc5;
  let g = 0x9e3779b9;
  const mix = (list: ArrayLike<number> | undefined, salt: number) => {
    h = Math.imul(h ^ salt, 0x01000193);
    g = Math.imul(g ^ (list ? list.length + salt : 0), 0x85ebca6b);
    if (!list) return;
    for (let i = 0; i < list.length; i++) {
      h = Math.imul(h ^ list[i], 0x01000193);
      g = Math.imul(g ^ (list[i] + (h >>> 7)), 0x85ebca6b);
    }
  };
  mix(c.faceStart, 1);
  mix(c.corners, 2);
  mix(c.shadingGroups, 3);
  mix(c.slots, 4);
  mix(c.uv && new Uint32Array(c.uv.buffer, c.uv.byteOffset, c.uv.length), 5);
  mix(c.curves?.start, 6);
  mix(c.curves?.points, 7);
  mix(c.curves?.closed, 8);
  return fingerprint(`${c.vertexCount}/${c.faceStart.length}/${c.corners.length}/${h}/${g}`);
});

interface Answer {
  readonly message: FromEvaluator;
  readonly transfer: Transferable[];
}

/** Handles a worker's messages: evaluates a ribbon at a frame, sending no buffer twice. */
export class Evaluator {
  private readonly cache = new MeshCache();
  private readonly sent = new Set<string>();

  /** @param onStep called with the step under way */
  constructor(private readonly onStep?: (id: number, step: string) => void) {}

  /** The answer to a message; null if none is due. A failure is an answer too. */
  handle(data: ToEvaluator): Answer | null {
    if (data.type === 'forget') {
      for (const key of data.topologies) this.sent.delete(key);
      return null;
    }
    try {
      return this.evaluate(data);
    } catch (error) {
      return {
        message: { type: 'failed', id: data.id, message: error instanceof Error ? error.message : String(error) },
        transfer: [],
      };
    }
  }

  private evaluate(job: EvaluateJob): Answer {
    const { occlusion } = job;
    const {
      mesh,
      key: own,
      problems,
      notes,
    } = askingFirst(job.asksFirst ?? false, () =>
      evaluateRibbon(job.ribbon, job.loop, job.frame, job.detail, this.cache, undefined, (step) =>
        this.onStep?.(job.id, step.id),
      ),
    );
    const key = occlusion ? `${own}/crevices` : own;
    const transfer: Transferable[] = [];
    const have = new Set(job.have);
    if (have.has(key)) return { message: { type: 'evaluated', id: job.id, key, problems, notes }, transfer };
    const { copies } = mesh;
    if (!copies)
      return {
        message: {
          type: 'evaluated',
          id: job.id,
          key,
          parts: [this.part(mesh, key, have, transfer, occlusion)],
          problems,
          notes,
        },
        transfer,
      };
    const parts = instancesOf(copies).map(({ source, instances }): PartResult => {
      for (const buffer of instanceBuffers(instances)) transfer.push(buffer.buffer);
      const shape = copies.sources[source];
      const name = this.cache.keyOf(shape);
      return { ...this.part(shape, occlusion ? `${name}/crevices` : name, have, transfer, occlusion), instances };
    });
    const [order, late] = [copies.order.slice(), copies.late?.slice()];
    transfer.push(order.buffer);
    if (late) transfer.push(late.buffer);
    const facts = { count: copies.source.length, places: copies.places, order, ...(late ? { late } : {}) };
    return { message: { type: 'evaluated', id: job.id, key, parts, facts, problems, notes }, transfer };
  }

  private part(
    mesh: Mesh,
    key: string,
    have: ReadonlySet<string>,
    transfer: Transferable[],
    occlusion = false,
  ): PartResult {
    const name = topologyKey(mesh.connectivity);
    let topology: Topology | undefined;
    if (!this.sent.has(name)) {
      const draw = drawTopologyOf(mesh.connectivity);
      topology = {
        key: name,
        vertexCount: draw.vertexCount,
        triangles: draw.triangles,
        edges: draw.edges,
        lines: draw.lines,
        groups: draw.groups,
        uv: draw.uv,
        closed: draw.closed,
        faces: faceCount(mesh.connectivity),
      };
      this.sent.add(name);
    }
    const named = { key, topologyKey: name, topology, ...(mesh.field ? { field: mesh.field } : {}) };
    if (have.has(key)) return named;
    const made = drawBuffers(mesh);
    transfer.push(made.positions.buffer, made.normals.buffer);
    if (!occlusion) return { ...named, ...made };
    const { source } = drawTopologyOf(mesh.connectivity);
    const depths = ambientOcclusionOf(mesh);
    const drawn = Float32Array.from(source, (v) => depths[v]);
    transfer.push(drawn.buffer);
    return { ...named, ...made, occlusion: drawn };
  }
}
