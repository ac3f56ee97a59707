'use client';

import { Box, Flex } from '@chakra-ui/react';
import type { PieceSummary } from '@/contract/pieces';
import { SelectField } from '../fields/select-field';
import { isKind, isLong, isShaped, KINDS, LENGTHS, SHAPES, SORTS, type Sought } from './order';

interface Props {
  readonly pieces: readonly PieceSummary[];
  readonly labels: readonly string[];
  readonly sought: Sought;
  readonly onSeek: (part: Partial<Sought>) => void;
}

/** Filters and order of the shelf. Choices that would make no difference are hidden. */
export function Sorter({ pieces, labels, sought, onSeek }: Props) {
  /** Choices that match some pieces but not all, and the present one. */
  const telling = <K extends string>(titles: Record<K, string>, now: K, is: (p: PieceSummary, k: K) => boolean) =>
    (Object.keys(titles) as K[])
      .filter((k) => k === 'all' || k === now || (pieces.some((p) => is(p, k)) && !pieces.every((p) => is(p, k))))
      .map((value) => ({ value, title: titles[value] }));
  const selects = [
    { label: 'Which pieces', part: 'only', options: telling(KINDS, sought.only, isKind) },
    { label: 'How long', part: 'length', options: telling(LENGTHS, sought.length, isLong) },
    { label: 'Which format', part: 'shape', options: telling(SHAPES, sought.shape, isShaped) },
    {
      label: 'With which label',
      part: 'label',
      options: [{ value: '', title: 'All labels' }, ...labels.map((l) => ({ value: l, title: l }))],
    },
  ] as const;
  return (
    <Flex gap="2" alignSelf="center" wrap="wrap" justify="flex-end">
      {selects.map(
        ({ label, part, options }) =>
          options.length > 1 && (
            <Box key={part} w="124px">
              <SelectField
                label={label}
                value={options.some((o) => o.value === sought[part]) ? sought[part] : options[0].value}
                options={options}
                onChange={(value) => onSeek({ [part]: value })}
              />
            </Box>
          ),
      )}
      <Box w="124px">
        <SelectField
          label="In which order"
          value={sought.sort}
          options={(Object.keys(SORTS) as (keyof typeof SORTS)[]).map((value) => ({ value, title: SORTS[value] }))}
          onChange={(value) => onSeek({ sort: value as Sought['sort'] })}
        />
      </Box>
    </Flex>
  );
}
