import type { Param, StoredValue } from '../declare/params';
import { addressKey, ownerKey, valuesOf, type Address } from '../piece/addresses';
import { linkedValue, linkPiece, ribbonsNamed, sourcesOf } from '../piece/link';
import { ownersOf, type Owned } from '../piece/walk';
import type { Piece, RibbonDoc } from '../piece/piece';
import { facesShown } from '../copies/copies';
import { MeshCache } from '../evaluate/mesh-cache';
import { evaluateRibbon } from '../evaluate/ribbon';
import { evaluateValues } from '../time/values';
import { stepKind } from '../steps/index';
import type { Detail } from '../steps/step';
import { evaluateNumber, isMoving } from '../time/value';
import { applyRepair, type Finding, type Repair } from './finding';
import { ribbonCloses } from './measure';

/** Most trials for one ribbon, and most faces evaluated in all. */
const MOST_TRIALS = 80;
const MOST_FACES = 20_000_000;
/** Most causes reported. */
const MOST_CAUSES = 2;

/** One thing held still, and the words of its repair. */
interface Trial {
  readonly owned: Owned;
  readonly title: string;
  readonly address?: Address;
  readonly repair: Repair;
}

/** A ribbon and everything its steps take shapes from or its values follow (the scene too), recursively. */
export function dependencesOf(piece: Piece, id: string): ReadonlySet<string> {
  const out = new Set<string>();
  const open = [id];
  for (let next; (next = open.pop()) !== undefined;) {
    if (out.has(next)) continue;
    out.add(next);
    for (const step of piece.ribbons.find((r) => r.id === next)?.steps ?? []) {
      open.push(...ribbonsNamed(step).map(([, name]) => name));
      // An address key begins with its ribbon or, for the scene, with another owner.
      for (const value of Object.values(step.values)) open.push(...sourcesOf(value).map((key) => key.split('/')[0]));
    }
  }
  return out;
}

/**
 * Why a shape differs at f = N though no value says so: every switch and choice, every moving value, and finally every
 * step of it and its dependencies is held still in turn. What closes the shape, with as much visible as before, is a
 * cause and its own repair. If nothing alone does, the first step with an open result is named.
 *
 * @param goOn asked before each trial; false ends the work with null
 * @returns at least one finding
 */
export async function openCauses(
  piece: Piece,
  ribbon: RibbonDoc,
  detail: Detail,
  goOn: () => Promise<boolean> | boolean = () => true,
): Promise<Finding[] | null> {
  const seen = facesOf(piece, ribbon.id, detail);
  const all = trials(piece, ribbon.id);
  const tried = all.slice(0, Math.max(6, Math.min(MOST_TRIALS, Math.floor(MOST_FACES / (2 * Math.max(1, seen))))));
  const causes: Trial[] = [];
  for (const trial of tried) {
    // Switching a step off says less than naming the value that causes it.
    if (causes.length >= MOST_CAUSES || (!trial.address && causes.length > 0)) break;
    if (causes.some((c) => c.owned.owner.item === trial.owned.owner.item && c.title === trial.title)) continue;
    if (!(await goOn())) return null;
    const held = applyRepair(piece, trial.repair);
    const faces = facesOf(held, ribbon.id, detail);
    if (trial.address ? faces !== seen : faces === 0) continue;
    if (
      ribbonCloses(
        held,
        held.ribbons.find((r) => r.id === ribbon.id)!,
        detail,
      )
    )
      causes.push(trial);
  }
  if (causes.length > 0) return causes.map(causeFinding);
  const more = all.length > tried.length ? ` Only ${tried.length} of ${all.length} ways were tried: it is large.` : '';
  return [nothingAlone(piece, ribbon, detail, more)];
}

/** Visible faces of a ribbon at f = 0. */
function facesOf(piece: Piece, id: string, detail: Detail): number {
  const linked = linkPiece(piece).ribbons.find((r) => r.id === id);
  return linked ? facesShown(evaluateRibbon(linked, piece.loop, 0, detail, new MeshCache()).mesh) : 0;
}

function trials(piece: Piece, id: string): Trial[] {
  const of = dependencesOf(piece, id);
  // Its own owners first, the last step first: late steps are most visible.
  const owners = ownersOf(piece)
    .filter((o) => o.owner.type === 'step' && of.has(o.owner.ribbon) && o.item.on)
    .reverse()
    .sort((a, b) => Number(b.ribbon?.id === id) - Number(a.ribbon?.id === id));
  return [
    ...owners.flatMap((o) => closingTrials(piece, o)),
    ...owners.flatMap((o) => switchTrials(o)),
    ...owners.flatMap((o) => stillTrials(piece, o)),
    ...owners.filter((o) => stepKind(o.item.kind).group !== 'form').map(offTrial),
  ];
}

/** Closing changes that a step itself proposes. */
function closingTrials(piece: Piece, owned: Owned): Trial[] {
  const kind = stepKind(owned.item.kind);
  const values = evaluateValues(owned.params, owned.item.values, { frame: 0, frames: piece.loop.frames });
  return (kind.closings?.(values) ?? []).map((r): Trial => {
    const set = Object.entries(r.values).map(([param, value]) => ({ address: { owner: owned.owner, param }, value }));
    const { address } = set[0];
    return { owned, title: owned.params[address.param].title, address, repair: { words: r.words, set } };
  });
}

/** Each switch toggled, and each choice changed. */
function switchTrials(owned: Owned): Trial[] {
  return Object.entries(owned.params).flatMap(([name, param]) => {
    const now = owned.item.values[name] ?? (param as Param).default;
    const address = { owner: owned.owner, param: name };
    const set = (words: string, value: StoredValue): Trial => ({
      owned,
      title: param.title,
      address,
      repair: { words, set: [{ address, value }] },
    });
    if (param.type === 'switch') return [set(`${param.title} ${now === true ? 'off' : 'on'}`, now !== true)];
    if (param.type !== 'choice') return [];
    return param.options.filter((o) => o.value !== now).map((o) => set(`${param.title}: ${o.title}`, o.value));
  });
}

/** Each moving value held at its value at f = 0. */
function stillTrials(piece: Piece, owned: Owned): Trial[] {
  return valuesOf(piece)
    .filter((v) => v.address.owner.item === owned.owner.item && isMoving(v.value))
    .flatMap((v): Trial[] => {
      const linked = linkedValue(piece, v.address);
      if (!isMoving(linked) || v.param.type === 'colour') return [];
      const value = evaluateNumber(linked, { frame: 0, frames: piece.loop.frames });
      return [
        {
          owned,
          title: v.title,
          address: v.address,
          repair: { words: 'Stand still', set: [{ address: v.address, value }] },
        },
      ];
    });
}

function offTrial(owned: Owned): Trial {
  return {
    owned,
    title: owned.title,
    repair: { words: `Switch ${owned.title} off`, off: [owned.owner.item] },
  };
}

const NOTHING = { speedBefore: 0, speedAfter: 0, speedMean: 0, from: 0, to: 0, miss: 0, turns: { num: 1, den: 1 } };

function causeFinding({ owned, title, address, repair }: Trial): Finding {
  const until = address ? (repair.words === 'Stand still' ? 'stands still' : 'is otherwise') : 'is off';
  const words = `The shape at the end of the loop is another than at its beginning; where this ${until}, it closes.`;
  return {
    ...NOTHING,
    kind: 'gap',
    key: address ? addressKey(address) : ownerKey(owned.owner),
    owner: owned.owner,
    ...(address ? { address } : {}),
    title,
    place: owned.place,
    colour: owned.ribbon?.colour,
    unit: '',
    by: 'measure',
    words,
    repairs: [repair],
  };
}

/** Nothing alone closes it: names the first step with an open result. */
function nothingAlone(piece: Piece, ribbon: RibbonDoc, detail: Detail, more: string): Finding {
  const upTo = (count: number) => {
    const off = ribbon.steps.slice(count).map((s) => s.id);
    const held = applyRepair(piece, { words: '', off });
    return ribbonCloses(
      held,
      held.ribbons.find((r) => r.id === ribbon.id)!,
      detail,
    );
  };
  const on = ribbon.steps.map((s, i) => (s.on ? i : -1)).filter((i) => i >= 0);
  const first = on.find((i) => !upTo(i + 1)) ?? on[on.length - 1] ?? 0;
  const step = ribbon.steps[first];
  const title = step ? stepKind(step.kind).title : 'Shape';
  return {
    ...NOTHING,
    kind: 'gap',
    key: `${ribbon.id}/shape/open`,
    owner: { type: 'step', ribbon: ribbon.id, item: step?.id ?? '' },
    title,
    place: ribbon.name,
    colour: ribbon.colour,
    unit: '',
    by: 'measure',
    words: `The shape at the end of the loop is another than at its beginning, from this step on. No single value, switch or step makes it, so no click mends it: hold several of them still, from the last on.${more}`,
    repairs: [],
  };
}
