'use client';

import { Box, chakra } from '@chakra-ui/react';
import { ChevronDown } from 'lucide-react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly options: readonly { readonly value: string; readonly title: string }[];
  readonly onChange: (value: string) => void;
}

/** One of a few. */
export function SelectField({ label, value, options, onChange }: Props) {
  return (
    <Box position="relative" flex="1" minW="0">
      <chakra.select
        aria-label={label}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        onKeyDown={(e) => e.stopPropagation()}
        appearance="none"
        w="100%"
        h="24px"
        pl="2"
        pr="6"
        bg="field"
        color="ink"
        borderRadius="field"
        fontSize="12.5px"
        fontWeight="500"
        cursor="pointer"
      >
        {options.map((o) => (
          <option key={o.value} value={o.value}>
            {o.title}
          </option>
        ))}
      </chakra.select>
      <Box position="absolute" right="6px" top="calc(50% - 7px)" pointerEvents="none" color="muted">
        <ChevronDown size={14} />
      </Box>
    </Box>
  );
}
