import type { MotionDoc } from '../declare/documents';
import type { Param, StoredValue } from '../declare/params';
import { unitWord } from '../declare/unit-word';
import { motionKinds } from './motions/index';
import { isMoving } from './value';

/**
 * A value as it is written in its row, or how it moves.
 *
 * @param ribbons names of ribbons by identifier, for values that name one
 */
export function valueWords(value: StoredValue, param: Param, ribbons?: ReadonlyMap<string, string>): string {
  const unit = unitOf(param);
  if (isMoving(value)) return motionWords(value, unit);
  if (typeof value === 'number') return `${plain(value)}${unitOf(param, value)}`;
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (param.type === 'choice') return param.options.find((o) => o.value === value)?.title ?? String(value);
  if (param.type === 'vector' && Array.isArray(value)) return vectorWords(value as readonly StoredValue[], unit);
  if (param.type === 'ribbon' || param.type === 'asset') {
    const known = param.type === 'ribbon' ? (ribbons?.get(value as string) ?? 'a ribbon') : 'a file';
    return value === '' ? 'none' : known;
  }
  if (typeof value === 'string') return value.length > 24 ? `${value.slice(0, 23)}…` : value;
  return `${(value as readonly unknown[]).length} parts`;
}

const AXES = ['x', 'y', 'z'] as const;

/** Three numbers; if any moves, each with its axis. */
function vectorWords(value: readonly StoredValue[], unit: string): string {
  if (!value.some(isMoving)) return value.map((x) => plain(x as number)).join(', ') + unit;
  return value
    .map((x, i) => `${AXES[i]} ${isMoving(x) ? motionWords(x, unit) : `${plain(x as number)}${unit}`}`)
    .join(', ');
}

function motionWords(doc: MotionDoc, unit: string): string {
  const { motion, low, high, turns, rate, adds, keys } = doc as MotionDoc & Readonly<Record<string, unknown>>;
  const title = (motionKinds.find((k) => k.kind === motion)?.title ?? motion).toLowerCase();
  if (typeof low === 'number' && typeof high === 'number') {
    const often = typeof turns === 'number' && turns !== 1 ? `, ${plain(turns)} times` : '';
    const pace = typeof rate === 'number' ? `, rate ${plain(rate)}` : '';
    return `${title} ${plain(low)}…${plain(high)}${unit}${often}${pace}`;
  }
  if (typeof adds === 'number' && adds !== 0) return `${adds > 0 ? '+' : ''}${plain(adds)}${unit} a loop`;
  return Array.isArray(keys) ? `${keys.length} ${keys.length === 1 ? 'key' : 'keys'}` : title;
}

/** Two decimals; of small numbers three digits that count. */
const plain = (x: number) => String(Number(Math.abs(x) < 1 ? x.toPrecision(3) : x.toFixed(2)));

function unitOf(param: Param, of = 2): string {
  if (param.type !== 'number' && param.type !== 'vector') return '';
  const { unit } = param;
  return unit === '' ? '' : ['°', '%', '×'].includes(unit) ? unit : ` ${unitWord(unit, of)}`;
}
