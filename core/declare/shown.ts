import type { Param, Params, When } from './params';

/** The conditions under which a row is of use; all must hold. */
export function conditionsOf({ shownWhen }: Pick<Param, 'shownWhen'>): readonly When[] {
  return shownWhen === undefined ? [] : 'param' in shownWhen ? [shownWhen] : shownWhen;
}

/** Whether a value is of use now: what it depends on has the right values, and is itself of use. */
export function isShown(params: Params, values: Readonly<Record<string, unknown>>, name: string): boolean {
  const param = params[name];
  if (!param) return true;
  return conditionsOf(param).every(({ param: by, is }) => {
    const other = params[by];
    return (
      other !== undefined &&
      is.includes((values[by] ?? other.default) as string | boolean) &&
      isShown(params, values, by)
    );
  });
}
