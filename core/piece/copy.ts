import type { Params, StoredValue } from '../declare/params';
import type { MotionDoc } from '../time/motion';
import { isMoving } from '../time/value';
import { newId, type RibbonDoc, type Values } from './piece';
import { mapRibbon } from './walk';

function retargeted(value: unknown, address: (of: string) => string): unknown {
  if (Array.isArray(value)) return value.map((v) => retargeted(v, address));
  if (!isMoving(value)) return value;
  const out: MotionDoc = typeof value.of === 'string' ? { ...value, of: address(value.of) } : value;
  return out.layers
    ? { ...out, layers: out.layers.map((l) => ({ ...l, motion: retargeted(l.motion, address) as MotionDoc })) }
    : out;
}

/**
 * Values that name other things, with other identifiers: ribbons that are chosen, and what is followed.
 *
 * @param ids what each is called from now on; what is not among them keeps its name
 */
export function renaming(ids: ReadonlyMap<string, string>): (values: Values, params: Params) => Values {
  const other = (id: string) => ids.get(id) ?? id;
  const address = (of: string) => of.split('/').map(other).join('/');
  return (values, params) =>
    Object.fromEntries(
      Object.entries(values).map(([key, x]): [string, StoredValue] => [
        key,
        params[key]?.type === 'ribbon' ? other(x as string) : (retargeted(x, address) as StoredValue),
      ]),
    );
}

/**
 * A copy of a ribbon with identifiers of its own. What followed a value of the ribbon itself follows
 * that of the copy; what followed others goes on doing so. Its chance stays what it was.
 */
export function copyRibbon(ribbon: RibbonDoc, name: string): RibbonDoc {
  return copyRibbons([ribbon], () => name)[0];
}

/** The same of several: what one of them followed or named of another is that of its copy. */
export function copyRibbons(ribbons: readonly RibbonDoc[], name: (ribbon: RibbonDoc) => string): RibbonDoc[] {
  const ids = new Map<string, string>();
  for (const ribbon of ribbons) {
    ids.set(ribbon.id, newId());
    mapRibbon(ribbon, ({ item }) => {
      ids.set(item.id, newId());
      return item;
    });
  }
  const values = renaming(ids);
  return ribbons.map((ribbon) => {
    const copy = mapRibbon(ribbon, ({ item, params }) => ({
      ...item,
      id: ids.get(item.id)!,
      values: values(item.values, params),
    }));
    return {
      ...copy,
      id: ids.get(ribbon.id)!,
      name: name(ribbon),
      finishes: copy.finishes.map((f) => ({ ...f, id: newId() })),
    };
  });
}
