import type { Param, StoredValue } from '../declare/params';
import { isMoving } from './value';

/** A value as it is written in its row, or how it moves. */
export function valueWords(value: StoredValue, param: Param): string {
  if (isMoving(value)) {
    const { motion, low, high } = value as { motion: string; low?: unknown; high?: unknown };
    return typeof low === 'number' && typeof high === 'number'
      ? `${motion} ${plain(low)}…${plain(high)}${unitOf(param)}`
      : motion;
  }
  if (typeof value === 'number') return `${plain(value)}${unitOf(param)}`;
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  if (param.type === 'choice') return param.options.find((o) => o.value === value)?.title ?? String(value);
  if (param.type === 'vector' && Array.isArray(value))
    return value.map((x) => (isMoving(x as StoredValue) ? 'moves' : plain(x as number))).join(', ') + unitOf(param);
  if (typeof value === 'string') return value.length > 24 ? `${value.slice(0, 23)}…` : value;
  return `${(value as readonly unknown[]).length} parts`;
}

const plain = (x: number) => String(Number(x.toFixed(2)));
function unitOf(param: Param): string {
  if (param.type !== 'number' && param.type !== 'vector') return '';
  return param.unit === '' ? '' : ['°', '%', '×'].includes(param.unit) ? param.unit : ` ${param.unit}`;
}
