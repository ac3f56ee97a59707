'use client';

import { Switch } from '@chakra-ui/react';

/** On or off. */
export function SwitchField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: boolean;
  onChange: (value: boolean) => void;
}) {
  return (
    <Switch.Root size="sm" checked={value} onCheckedChange={(d) => onChange(d.checked)} colorPalette="gray">
      <Switch.HiddenInput aria-label={label} />
      <Switch.Control bg={value ? 'ink' : 'fill'}>
        <Switch.Thumb bg="raised" />
      </Switch.Control>
    </Switch.Root>
  );
}
