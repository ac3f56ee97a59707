'use client';

import { Stack } from '@chakra-ui/react';
import type { Params, StoredValue } from '@maypole/core/declare/params';
import { isShown } from '@maypole/core/declare/shown';
import type { Owner } from '@maypole/core/piece/addresses';
import type { Values } from '@maypole/core/piece/piece';
import { Fragment, type ReactNode } from 'react';
import { Fold } from '../motion/fold';
import { ValueRow } from './value-row';

interface Props {
  readonly owner: Owner;
  readonly params: Params;
  readonly values: Values;
  readonly colour: string;
  /** Prefix of every title, where the same values appear several times: “Inside colour”. */
  readonly of?: string;
  /** Owners whose values are edited together with these. */
  readonly others?: readonly { readonly owner: Owner; readonly values: Values }[];
  /** Extra elements of a value, by its name. */
  readonly beside?: Beside;
}

/** Extra elements of a value besides field and motion. */
export interface Beside {
  /** At the end of the row. */
  swatch(name: string, title: string, stored: StoredValue): ReactNode;
  /** Under the row. */
  below(name: string): ReactNode;
  /** What of it the row shows: the row is rendered again when it changes. */
  told(name: string): unknown;
}

/** All rows of declared values; hides those without effect and folds rarer ones away. */
export function ValuesPanel({ owner, params: declared, values, colour, of, others, beside }: Props) {
  const params = of ? titledBy(declared, of) : declared;
  const shown = Object.entries(params).filter(([name]) => isShown(params, values, name));
  const rarer = shown.filter(([, p]) => p.more);
  const changed = rarer.filter(
    ([name, p]) => values[name] !== undefined && JSON.stringify(values[name]) !== JSON.stringify(p.default),
  ).length;
  const row = ([name, param]: (typeof shown)[number]) => {
    const stored = values[name] ?? param.default;
    return (
      <Fragment key={name}>
        <ValueRow
          owner={owner}
          name={name}
          param={param}
          stored={stored}
          values={values}
          colour={colour}
          others={others?.map((o) => ({ owner: o.owner, stored: o.values[name] ?? param.default }))}
          beside={beside?.swatch(name, param.title, stored)}
          told={beside?.told(name)}
        />
        {beside?.below(name)}
      </Fragment>
    );
  };
  return (
    <Stack gap="0.5" data-values>
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

/** Parameters with prefixed titles; the same objects for the same prefix. */
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
