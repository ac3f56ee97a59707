'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { ColourStop } from '@maypole/core/declare/params';
import { Plus, X } from 'lucide-react';
import { ColourField } from '../fields/colour-field';
import { NumberField } from '../fields/number-field';
import { PictureButton } from '../parts/buttons';

/** The colour stops of a gradient, periodic or open. */
export function StopsField({
  label,
  open = false,
  value,
  onChange,
}: {
  label: string;
  /** Not periodic, so that a stop may stand at its very end. */
  open?: boolean;
  value: readonly ColourStop[];
  onChange: (value: readonly ColourStop[], gesture?: string) => void;
}) {
  const change = (i: number, part: Partial<ColourStop>, gesture?: string) =>
    onChange(
      value.map((s, k) => (k === i ? { ...s, ...part } : s)),
      gesture && `${i}/${gesture}`,
    );
  const add = () => {
    // In the middle of the widest gap.
    const sorted = [...value].sort((a, b) => a.at - b.at);
    const end = (s: ColourStop) => (open ? Math.max(1, s.at) : sorted[0].at + 1);
    const gaps = sorted.map((s, i) => ({
      s,
      gap: (i + 1 < sorted.length ? sorted[i + 1].at : end(s)) - s.at,
    }));
    const widest = gaps.reduce((a, b) => (b.gap > a.gap ? b : a));
    const at = (widest.s.at + widest.gap / 2) % 1;
    onChange([...value, { at: Number(at.toFixed(4)), colour: widest.s.colour }]);
  };
  return (
    <Box w="100%" role="group" aria-label={label}>
      {value.map((stop, i) => (
        <Flex key={i} gap="1.5" mb="1" align="center">
          <Flex w="62px" flexShrink={0}>
            <NumberField
              label={`Place of colour ${i + 1}`}
              value={Number((stop.at * 100).toFixed(2))}
              unit="%"
              min={0}
              max={open ? 100 : 99.99}
              soft={[0, 100]}
              step={1}
              onChange={(v, g) => change(i, { at: v / 100 }, g)}
            />
          </Flex>
          <ColourField label={`Colour ${i + 1}`} value={stop.colour} onChange={(v, g) => change(i, { colour: v }, g)} />
          <PictureButton
            label={`Remove colour ${i + 1}`}
            disabled={value.length <= 1}
            color="muted"
            minW="24px"
            onClick={() => onChange(value.filter((_, k) => k !== i))}
          >
            <X size={13} />
          </PictureButton>
        </Flex>
      ))}
      {value.length < 16 && (
        <chakra.button
          type="button"
          onClick={add}
          display="flex"
          alignItems="center"
          gap="1.5"
          fontSize="12px"
          color="muted"
          cursor="pointer"
          _hover={{ color: 'ink' }}
          py="0.5"
        >
          <Plus size={13} />
          Add a colour
        </chakra.button>
      )}
    </Box>
  );
}
