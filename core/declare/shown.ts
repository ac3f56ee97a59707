import type { Param, Params, When } from './params';

/** The conditions under which a row is shown; all must hold. */
export function conditionsOf({ shownWhen }: Pick<Param, 'shownWhen'>): readonly When[] {
  return shownWhen === undefined ? [] : 'param' in shownWhen ? [shownWhen] : shownWhen;
}

/** Whether a value meets a condition. */
export function meets(when: When, value: unknown): boolean {
  const v = value as string | boolean;
  return 'is' in when ? when.is.includes(v) : !when.not.includes(v);
}

/** Whether a value matters now: what it depends on has the right values, and matters itself. */
export function isShown(params: Params, values: Readonly<Record<string, unknown>>, name: string): boolean {
  const param = params[name];
  if (!param) return true;
  return conditionsOf(param).every((when) => {
    const by = when.param;
    const other = params[by];
    if (other === undefined) return false;
    return meets(when, values[by] ?? other.default) && isShown(params, values, by);
  });
}
