import type { StoredValue } from '../declare/params';
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
 * A copy of a ribbon with identifiers of its own. What followed a value of the ribbon itself follows
 * that of the copy; what followed others goes on doing so. Its chance stays what it was.
 */
export function copyRibbon(ribbon: RibbonDoc, name: string): RibbonDoc {
  const id = newId();
  const ids = new Map<string, string>();
  mapRibbon(ribbon, ({ item }) => {
    ids.set(item.id, newId());
    return item;
  });
  const address = (of: string): string => {
    const [owner, item, ...rest] = of.split('/');
    return owner === ribbon.id ? [id, ids.get(item) ?? item, ...rest].join('/') : of;
  };
  const values = (v: Values): Values =>
    Object.fromEntries(
      Object.entries(v).map(([key, x]): [string, StoredValue] => [key, retargeted(x, address) as StoredValue]),
    );
  const copy = mapRibbon(ribbon, ({ item }) => ({ ...item, id: ids.get(item.id)!, values: values(item.values) }));
  return { ...copy, id, name, finishes: copy.finishes.map((f) => ({ ...f, id: newId() })) };
}
