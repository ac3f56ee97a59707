'use client';

import { Flex, Text } from '@chakra-ui/react';
import { number } from '@maypole/core/declare/params';
import type { TimingDoc } from '@maypole/core/time/motion';
import { NumberField } from '../fields/number-field';
import { ParamField } from '../fields/param-field';
import { SelectField } from '../fields/select-field';

const TIME = { unit: '%', time: true, step: 1 } as const;
const SHIFT = number('Shift', 0, 'Later by this part of the loop.', { ...TIME, min: -1000, max: 1000, soft: [0, 100] });
const REST = number('Rest at seam', 0, 'Part of the loop, round the seam, in which it stands still.', {
  ...TIME,
  min: 0,
  max: 95,
  soft: [0, 80],
});

const WAYS = [
  { value: 'on', title: 'Forwards' },
  { value: 'back', title: 'Backwards' },
  { value: 'there', title: 'There and back' },
  { value: 'sway', title: 'There and back, eased' },
] as const;

/** How a motion is laid over the loop. */
export function TimingSettings({
  timing = {},
  onChange,
}: {
  timing?: TimingDoc;
  onChange: (timing: TimingDoc, gesture?: string) => void;
}) {
  const row = (label: string, help: string, children: React.ReactNode) => (
    <Flex align="center" gap="3" minH="29px">
      <Text w="96px" flexShrink={0} fontSize="12.5px" title={help}>
        {label}
      </Text>
      <Flex flex="1">{children}</Flex>
    </Flex>
  );
  return (
    <>
      {row(
        SHIFT.title,
        SHIFT.help,
        <ParamField
          label={SHIFT.title}
          param={SHIFT}
          value={Number(((timing.shift ?? 0) * 100).toFixed(4))}
          onChange={(v, g) => onChange({ ...timing, shift: v / 100 }, `shift/${g}`)}
        />,
      )}
      {row(
        'Direction',
        'Forwards, backwards, or there and back.',
        <SelectField
          label="Direction"
          value={timing.way ?? 'on'}
          options={WAYS}
          onChange={(v) => onChange({ ...timing, way: v as TimingDoc['way'] })}
        />,
      )}
      {row(
        'Times',
        'How often it is gone through in a loop.',
        <NumberField
          label="Times"
          value={timing.times ?? 1}
          unit="/loop"
          min={1}
          max={1000}
          soft={[1, 8]}
          step={1}
          integer
          onChange={(v, g) => onChange({ ...timing, times: v }, `times/${g}`)}
        />,
      )}
      {row(
        REST.title,
        REST.help,
        <ParamField
          label={REST.title}
          param={REST}
          value={Number(((timing.rest ?? 0) * 100).toFixed(4))}
          onChange={(v, g) => onChange({ ...timing, rest: v / 100 }, `rest/${g}`)}
        />,
      )}
    </>
  );
}
