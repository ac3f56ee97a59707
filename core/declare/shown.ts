import type { Params } from './params';

/** Whether a value is of use now: what it depends on has the right value, and is itself of use. */
export function isShown(params: Params, values: Readonly<Record<string, unknown>>, name: string): boolean {
  const when = params[name]?.shownWhen;
  if (!when) return true;
  const other = params[when.param];
  return other !== undefined && when.is.includes((values[when.param] ?? other.default) as string | boolean) && isShown(params, values, when.param);
}
