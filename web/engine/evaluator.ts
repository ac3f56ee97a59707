import { fingerprint } from '@maypole/core/evaluate/hash';
import { MeshCache } from '@maypole/core/evaluate/mesh-cache';
import { evaluateRibbon } from '@maypole/core/evaluate/ribbon';
import { drawBuffers, drawTopologyOf } from '@maypole/core/shape/drawable';
import { faceCount, perConnectivity, type Connectivity, type Mesh } from '@maypole/core/shape/mesh';
import { instancesOf } from './instances';
import type { EvaluateJob, FromEvaluator, PartResult, ToEvaluator, Topology } from './protocol';

/** Equal connectivities get equal keys in every worker, so their buffers are shared on screen. */
const topologyKey = perConnectivity((c: Connectivity) => {
  let h = 0x811c9dc5;
  let g = 0x9e3779b9;
  for (const v of c.corners) {
    h = Math.imul(h ^ v, 0x01000193);
    g = Math.imul(g ^ (v + (h >>> 7)), 0x85ebca6b);
  }
  for (const v of c.curves?.points ?? []) h = Math.imul(h ^ (v + 7), 0x01000193);
  for (const s of c.curves?.start ?? []) g = Math.imul(g ^ (s + 11), 0x85ebca6b);
  for (const s of c.slots ?? []) g = Math.imul(g ^ (s + 3), 0x85ebca6b);
  for (const s of c.shadingGroups ?? []) h = Math.imul(h ^ (s + 5), 0x01000193);
  return fingerprint(`${c.vertexCount}/${c.faceStart.length}/${c.corners.length}/${h}/${g}/${c.shadingGroups ? 1 : 0}${c.uv ? 1 : 0}`);
});

interface Answer {
  readonly message: FromEvaluator;
  readonly transfer: Transferable[];
}

/** What a worker does with a message: evaluates a ribbon at a frame, sending no buffer twice. */
export class Evaluator {
  private readonly cache = new MeshCache();
  private readonly sent = new Set<string>();

  /** The answer to a message; null where none is due. A failure is an answer too. */
  handle(data: ToEvaluator): Answer | null {
    if (data.type === 'forget') {
      for (const key of data.topologies) this.sent.delete(key);
      return null;
    }
    try {
      return this.evaluate(data);
    } catch (error) {
      return { message: { type: 'failed', id: data.id, message: error instanceof Error ? error.message : String(error) }, transfer: [] };
    }
  }

  private evaluate(job: EvaluateJob): Answer {
    const { mesh, key, problems, notes } = evaluateRibbon(job.ribbon, job.loop, job.frame, job.detail, this.cache);
    const transfer: Transferable[] = [];
    const have = new Set(job.have);
    if (have.has(key)) return { message: { type: 'evaluated', id: job.id, key, problems, notes }, transfer };
    const { copies } = mesh;
    if (!copies) return { message: { type: 'evaluated', id: job.id, key, parts: [this.part(mesh, key, have, transfer)], problems, notes }, transfer };
    const parts = instancesOf(copies).map(({ source, instances }): PartResult => {
      for (const buffer of [instances.matrices, instances.colours, instances.looks, instances.numbers]) if (buffer) transfer.push(buffer.buffer);
      const shape = copies.sources[source];
      return { ...this.part(shape, this.cache.keyOf(shape), have, transfer), instances };
    });
    const [order, late] = [copies.order.slice(), copies.late?.slice()];
    transfer.push(order.buffer);
    if (late) transfer.push(late.buffer);
    const facts = { count: copies.source.length, places: copies.places, order, ...(late ? { late } : {}) };
    return { message: { type: 'evaluated', id: job.id, key, parts, facts, problems, notes }, transfer };
  }

  private part(mesh: Mesh, key: string, have: ReadonlySet<string>, transfer: Transferable[]): PartResult {
    const name = topologyKey(mesh.connectivity);
    let topology: Topology | undefined;
    if (!this.sent.has(name)) {
      const draw = drawTopologyOf(mesh.connectivity);
      topology = { key: name, vertexCount: draw.vertexCount, triangles: draw.triangles, edges: draw.edges, lines: draw.lines, groups: draw.groups, uv: draw.uv, closed: draw.closed, faces: faceCount(mesh.connectivity) };
      this.sent.add(name);
    }
    if (have.has(key)) return { key, topologyKey: name, topology };
    const made = drawBuffers(mesh);
    transfer.push(made.positions.buffer, made.normals.buffer);
    return { key, topologyKey: name, topology, ...made };
  }
}
