import { fromAxes } from '../../copies/basis';
import { withCopies } from '../../copies/copies';
import type { Mesh } from '../../shape/mesh';
import { blendTable } from '../../time/colours/space';
import { splitTime } from '../../time/phase';
import type { StepContext } from '../step';
import { checkCopies, repeated } from './common';
import type { StreamValues } from './stream-params';
import { streamOf, type Stream } from './stream-set-up';

const ease = (x: number) => (x <= 0 ? 0 : x >= 1 ? 1 : x * x * (3 - 2 * x));

/** The particles alive at a moment. Each follows from its slot and its age alone. */
export function streamAt(v: StreamValues, input: Mesh, context: StepContext): Mesh {
  const stream = streamOf(v, context);
  const { schedule, paths, lands, lives, sizes: shares } = stream;
  const { loops, slots } = schedule;
  const time = splitTime(context.clock, loops).frame / context.clock.frames;
  const capacity = slots * Math.ceil(stream.longest / loops + 1e-9);
  checkCopies(slots * Math.ceil(v.life / loops), 'Release fewer, or let them live shorter.');
  const at = new Float32Array(3 * capacity);
  const turns = v.turned === 'no' ? undefined : new Float32Array(4 * capacity);
  const sizes = new Float32Array(capacity);
  const order = new Float32Array(capacity);
  const ids = new Uint32Array(capacity);
  const ages = new Float32Array(capacity);
  const state = new Float64Array(6);
  let n = 0;
  for (let slot = 0; slot < slots; slot++) {
    const life = lives[slot];
    // If lives are longer than the time until a slot comes round, several particles of a slot are alive at once.
    for (let age = schedule.age(slot, time); age < life; age += loops) {
      const flying = age < lands[slot] ? age : lands[slot];
      paths.at(slot, flying, state, v.turned === 'ahead');
      const share = age / life;
      let size = v.size * (1 - (v.sizeSpread / 100) * shares[slot]);
      if (v.growIn > 0) size *= ease((100 * share) / v.growIn);
      if (v.growOut > 0) size *= ease((100 * (1 - share)) / v.growOut);
      at[3 * n] = state[0];
      at[3 * n + 1] = state[1];
      at[3 * n + 2] = state[2];
      if (turns) {
        if (v.turned === 'tumble') tumble(stream, slot, v.tumbles * flying, turns, 4 * n);
        else ahead(state, turns, 4 * n);
      }
      sizes[n] = size;
      order[n] = slot;
      ids[n] = slot;
      ages[n] = age;
      n++;
    }
  }
  const places = {
    at: at.subarray(0, 3 * n),
    ...(turns ? { turns: turns.subarray(0, 4 * n) } : {}),
    sizes: sizes.subarray(0, n),
    order: order.subarray(0, n),
    ids: ids.subarray(0, n),
    places: slots,
  };
  const moment = v.plays ? (i: number) => Math.round(ages[i] * context.clock.frames) : undefined;
  const mesh = repeated({ ...v, later: 0 }, input, places, context, moment);
  return v.tinted && mesh.copies?.source.length === n ? tinted(v, mesh, ages, lives) : mesh;
}

/** Rotation about the particle's own axis. */
function tumble({ axes, phases, paces }: Stream, slot: number, turned: number, out: Float32Array, o: number): void {
  const half = Math.PI * (phases[slot] + turned * (0.5 + paces[slot]));
  const s = Math.sin(half);
  out[o] = axes[3 * slot] * s;
  out[o + 1] = axes[3 * slot + 1] * s;
  out[o + 2] = axes[3 * slot + 2] * s;
  out[o + 3] = Math.cos(half);
}

/** X points along the flight, Y as far up as that allows. */
function ahead(state: Float64Array, out: Float32Array, o: number): void {
  const [x, y, z] = [state[3], state[4], state[5]];
  const l = Math.hypot(x, y, z);
  if (l < 1e-9) {
    out[o + 3] = 1;
    return;
  }
  const a: [number, number, number] = [x / l, y / l, z / l];
  const side = Math.hypot(a[0], a[2]);
  // Straight up or down has no upright; the x–y plane stands in.
  const across: [number, number, number] = side > 1e-6 ? [-a[2] / side, 0, a[0] / side] : [0, 0, 1];
  out.set(
    fromAxes(
      a,
      [across[1] * a[2] - across[2] * a[1], across[2] * a[0] - across[0] * a[2], across[0] * a[1] - across[1] * a[0]],
      across,
    ),
    o,
  );
}

function tinted(v: StreamValues, mesh: Mesh, ages: Float32Array, lives: Float64Array): Mesh {
  const copies = mesh.copies!;
  const table = blendTable(v.young, v.old);
  const colours = new Float32Array(3 * copies.source.length);
  for (let i = 0; i < copies.source.length; i++) {
    const c = 3 * Math.round(255 * Math.max(0, Math.min(1, ages[i] / lives[copies.ids![i]])));
    colours[3 * i] = table[c];
    colours[3 * i + 1] = table[c + 1];
    colours[3 * i + 2] = table[c + 2];
  }
  return withCopies({ ...copies, channels: { ...copies.channels, baseColor: colours } });
}
