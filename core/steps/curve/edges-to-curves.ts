import { choice, number, toggle } from '../../declare/params';
import { curvesFrom } from '../../shape/curves/curves';
import { chained } from '../../shape/curves/net';
import { edgesSharperThan } from '../../shape/sharp';
import type { Connectivity } from '../../shape/mesh';
import { topologyOf } from '../../shape/topology';
import { defineStep } from '../step';

const known = new WeakMap<Connectivity, Map<string, Connectivity>>();

/** Turns the edges of a form into curves, as a net to draw, relax or sweep along. */
export const edgesToCurves = defineStep({
  kind: 'edges-to-curves',
  title: 'Edges to curves',
  help: 'Makes curves of the edges of a form, all or the sharp ones, for wires, nets and sweeps.',
  icon: 'edges-to-curves',
  group: 'curve',
  needs: 'faces',
  params: {
    which: choice(
      'Which',
      'all',
      [
        { value: 'all', title: 'All' },
        { value: 'sharp', title: 'Sharp' },
        { value: 'border', title: 'Borders' },
      ],
      'Which edges.',
    ),
    angle: number('Angle', 30, 'Edges where faces meet at more than this are sharp.', {
      unit: '°',
      min: 0,
      max: 180,
      soft: [0, 180],
      step: 1,
      shownWhen: { param: 'which', is: ['sharp'] },
    }),
    joined: toggle('Joined', true, 'Makes one curve of edges that follow one another where no others meet them.'),
    keep: toggle('Keep faces', false, 'Leaves the faces as well.'),
  },
  summary: (v) => `${v.which} edges`,
  evaluate(v, input) {
    const c = input.connectivity;
    const { edges, borderEdge } = topologyOf(c);
    const sharp = v.which === 'sharp' ? edgesSharperThan(input, v.angle) : null;
    const chosen: number[] = [];
    for (let e = 0; e < borderEdge.length; e++)
      if (v.which === 'all' || (sharp ? sharp[e] === 1 || borderEdge[e] === 1 : borderEdge[e] === 1))
        chosen.push(edges[2 * e], edges[2 * e + 1]);
    const key = `${v.joined}/${v.keep}/${v.which === 'sharp' ? chosen.join() : v.which}`;
    let own = known.get(c);
    if (!own) known.set(c, (own = new Map()));
    let out = own.get(key);
    if (!out) {
      const lines = v.joined
        ? chained(chosen, c.vertexCount)
        : Array.from({ length: chosen.length / 2 }, (_, i) => ({
            vertices: [chosen[2 * i], chosen[2 * i + 1]],
            closed: false,
          }));
      const curves = curvesFrom(lines);
      out = v.keep
        ? { ...c, curves }
        : { vertexCount: c.vertexCount, faceStart: new Uint32Array(1), corners: new Uint32Array(0), curves };
      if (own.size > 30) own.clear();
      own.set(key, out);
    }
    return { connectivity: out, positions: input.positions };
  },
});
