import { fromAxes } from '../../copies/basis';
import { withCopies } from '../../copies/copies';
import type { Mesh } from '../../shape/mesh';
import { axisAngle, type Quaternion } from '../../shape/quaternion';
import { chancesOf, within } from '../../stream/births';
import { agesOf } from '../../stream/schedule';
import { blend } from '../../time/colours/space';
import { splitTime } from '../../time/phase';
import type { StepContext } from '../step';
import { checkCopies, repeated } from './common';
import type { StreamValues } from './stream';
import { streamOf } from './stream-set-up';

const ease = (x: number) => (x <= 0 ? 0 : x >= 1 ? 1 : x * x * (3 - 2 * x));

/** The particles that live at a moment: what each is depends on its slot and its age, and on nothing else. */
export function streamAt(v: StreamValues, input: Mesh, context: StepContext): Mesh {
  const { schedule, paths, lands, lives } = streamOf(v, context);
  const time = splitTime(context.clock, schedule.loops).frame / context.clock.frames;
  const chances = chancesOf(v.seed);
  const capacity = Math.ceil(schedule.slots * (1 + Math.ceil((v.life + v.stays) / schedule.loops)));
  checkCopies(Math.min(capacity, schedule.slots * Math.ceil(v.life / schedule.loops)), 'Release fewer, or let them live shorter.');
  const at = new Float32Array(3 * capacity);
  const turns = new Float32Array(4 * capacity);
  const sizes = new Float32Array(capacity);
  const order = new Float32Array(capacity);
  const ids = new Uint32Array(capacity);
  const ages = new Float64Array(capacity);
  const state = new Float64Array(6);
  let n = 0;
  for (let slot = 0; slot < schedule.slots; slot++)
    for (const age of agesOf(schedule, slot, time, lives[slot])) {
      const chance = chances(slot);
      const flying = Math.min(age, lands[slot]);
      paths.at(slot, flying, state);
      const share = age / lives[slot];
      let size = v.size * (1 - (v.sizeSpread / 100) * chance(21));
      if (v.growIn > 0) size *= ease((100 * share) / v.growIn);
      if (v.growOut > 0) size *= ease((100 * (1 - share)) / v.growOut);
      for (let k = 0; k < 3; k++) at[3 * n + k] = state[k];
      turns.set(turnOf(v, state, flying, chance), 4 * n);
      sizes[n] = size;
      order[n] = slot;
      ids[n] = slot;
      ages[n] = age;
      n++;
    }
  const places = { at: at.slice(0, 3 * n), turns: turns.slice(0, 4 * n), sizes: sizes.slice(0, n), order: order.slice(0, n), ids: ids.slice(0, n), places: schedule.slots };
  const moment = v.plays ? (i: number) => Math.round(ages[i] * context.clock.frames) : undefined;
  const mesh = repeated({ ...v, later: 0 }, input, places, context, moment);
  return v.tinted && mesh.copies && !input.copies && v.takes === 'own' && mesh.copies.source.length === n ? tinted(v, mesh, (i) => ages[i] / lives[ids[i]]) : mesh;
}

function turnOf(v: StreamValues, state: Float64Array, age: number, chance: (salt: number) => number): Quaternion {
  if (v.turned === 'no') return [0, 0, 0, 1];
  if (v.turned === 'tumble') {
    const axis = within([0, 1, 0], 180, chance(31), chance(32));
    return axisAngle(axis, 360 * (chance(33) + v.tumbles * age * (0.5 + chance(34))));
  }
  const [x, y, z] = [state[3], state[4], state[5]];
  const l = Math.hypot(x, y, z);
  if (l < 1e-9) return [0, 0, 0, 1];
  const ahead: [number, number, number] = [x / l, y / l, z / l];
  const side = Math.hypot(ahead[0], ahead[2]);
  // Straight up or down there is no upright way to be turned; the x–y plane stands in for it.
  const across: [number, number, number] = side > 1e-6 ? [-ahead[2] / side, 0, ahead[0] / side] : [0, 0, 1];
  return fromAxes(ahead, [across[1] * ahead[2] - across[2] * ahead[1], across[2] * ahead[0] - across[0] * ahead[2], across[0] * ahead[1] - across[1] * ahead[0]], across);
}

function tinted(v: StreamValues, mesh: Mesh, share: (i: number) => number): Mesh {
  const copies = mesh.copies!;
  const mix = blend(v.young, v.old);
  const table = Array.from({ length: 256 }, (_, i) => [1, 3, 5].map((k) => parseInt(mix(i / 255).slice(k, k + 2), 16) / 255));
  const colours = new Float32Array(3 * copies.source.length);
  for (let i = 0; i < copies.source.length; i++) colours.set(table[Math.round(255 * Math.max(0, Math.min(1, share(i))))], 3 * i);
  return withCopies({ ...copies, colours });
}
