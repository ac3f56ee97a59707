'use client';

import { Stack } from '@chakra-ui/react';
import type { Params } from '@maypole/core/declare/params';
import type { Owner } from '@maypole/core/piece/addresses';
import type { Values } from '@maypole/core/piece/piece';
import { ValueRow } from './value-row';

interface Props {
  readonly owner: Owner;
  readonly params: Params;
  readonly values: Values;
  readonly colour: string;
  /** Places whose values are edited along with these. */
  readonly others?: readonly { readonly owner: Owner; readonly values: Values }[];
}

/** All rows of a set of declared values, leaving out those of no use now. */
export function ValuesPanel({ owner, params, values, colour, others }: Props) {
  return (
    <Stack gap="0.5">
      {Object.entries(params)
        .filter(([, p]) => !p.shownWhen || p.shownWhen.is.includes((values[p.shownWhen.param] ?? params[p.shownWhen.param]?.default) as string | boolean))
        .map(([name, param]) => (
          <ValueRow key={name} owner={owner} name={name} param={param} stored={values[name] ?? param.default} colour={colour} others={others?.map((o) => ({ owner: o.owner, stored: o.values[name] ?? param.default }))} />
        ))}
    </Stack>
  );
}
