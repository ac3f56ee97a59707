'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { LIMITS } from '@maypole/core/declare/limits';
import { deliveredSize } from '@maypole/core/output/render-settings';
import { NumberField } from '../fields/number-field';
import { useEditor } from '../state/store';

const SIZES = [
  [1080, 1080],
  [1280, 1280],
  [1920, 1080],
  [1080, 1920],
  [3840, 2160],
] as const;

/** What size the files have, where it is not that of the picture. */
function FilesSize() {
  const piece = useEditor((s) => s.piece);
  const { width, height } = deliveredSize(piece);
  if (width === piece.format.width && height === piece.format.height) return null;
  return (
    <Text fontSize="12px" color="muted" mb="1" data-testid="files-size">
      Files are {width} × {height}; the picture stays as it is.
    </Text>
  );
}

/** Width and height of the picture, and of files where they differ. */
export function SizeFields() {
  const format = useEditor((s) => s.piece.format);
  const edit = useEditor((s) => s.edit);
  const size = (width: number, height: number, gesture: string) =>
    edit('Picture size', (p) => ({ ...p, format: { width, height } }), `format/${gesture}`);
  const field = (label: string, value: number, onChange: (v: number, g: string) => void) => (
    <Box flex="1">
      <NumberField
        label={label}
        value={value}
        unit="px"
        min={16}
        max={LIMITS.side.most}
        soft={[100, 4000]}
        step={2}
        integer
        onChange={onChange}
      />
    </Box>
  );
  return (
    <>
      <Flex gap="2" align="center" mb="2">
        {field('Width', format.width, (v, g) => size(v, format.height, `w${g}`))}
        <Text color="muted">×</Text>
        {field('Height', format.height, (v, g) => size(format.width, v, `h${g}`))}
      </Flex>
      <Flex gap="1.5" flexWrap="wrap" mb="3">
        {SIZES.map(([w, h]) => {
          const is = w === format.width && h === format.height;
          return (
            <chakra.button
              key={`${w}x${h}`}
              type="button"
              aria-pressed={is}
              px="2"
              py="0.5"
              borderRadius="field"
              fontFamily="mono"
              fontSize="12px"
              bg={is ? 'ink' : 'field'}
              color={is ? 'inverse' : 'ink'}
              cursor="pointer"
              onClick={() => size(w, h, `${w}x${h}`)}
            >
              {w} × {h}
            </chakra.button>
          );
        })}
      </Flex>
      <FilesSize />
    </>
  );
}
