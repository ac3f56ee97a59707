'use client';

import { Stack } from '@chakra-ui/react';
import type { Params } from '@maypole/core/declare/params';
import { isShown } from '@maypole/core/declare/shown';
import type { Owner } from '@maypole/core/piece/addresses';
import type { Values } from '@maypole/core/piece/piece';
import { Fold } from '../motion/fold';
import { ValueRow } from './value-row';

interface Props {
  readonly owner: Owner;
  readonly params: Params;
  readonly values: Values;
  readonly colour: string;
  /** Put before every title, where the same values stand several times side by side: “Inside colour”. */
  readonly of?: string;
  /** Places whose values are edited along with these. */
  readonly others?: readonly { readonly owner: Owner; readonly values: Values }[];
}

/** All rows of a set of declared values, leaving out those of no use now and folding away the rarer ones. */
export function ValuesPanel({ owner, params: declared, values, colour, of, others }: Props) {
  const params = of ? titledBy(declared, of) : declared;
  const shown = Object.entries(params).filter(([name]) => isShown(params, values, name));
  const rarer = shown.filter(([, p]) => p.more);
  const changed = rarer.filter(
    ([name, p]) => values[name] !== undefined && JSON.stringify(values[name]) !== JSON.stringify(p.default),
  ).length;
  const row = ([name, param]: (typeof shown)[number]) => (
    <ValueRow
      key={name}
      owner={owner}
      name={name}
      param={param}
      stored={values[name] ?? param.default}
      values={values}
      colour={colour}
      others={others?.map((o) => ({ owner: o.owner, stored: o.values[name] ?? param.default }))}
    />
  );
  return (
    <Stack gap="0.5">
      {shown.filter(([, p]) => !p.more).map(row)}
      {rarer.length > 0 && (
        <Fold title="More" note={changed > 0 ? `${changed} set` : undefined} initially={changed > 0}>
          <Stack gap="0.5">{rarer.map(row)}</Stack>
        </Fold>
      )}
    </Stack>
  );
}

const titled = new WeakMap<Params, Map<string, Params>>();

/** Parameters with a word before their titles; the same objects for the same word. */
function titledBy(params: Params, of: string): Params {
  let known = titled.get(params);
  if (!known) titled.set(params, (known = new Map()));
  let out = known.get(of);
  if (!out)
    known.set(
      of,
      (out = Object.fromEntries(
        Object.entries(params).map(([name, p]) => [name, { ...p, title: `${of} ${p.title.toLowerCase()}` }]),
      )),
    );
  return out;
}
