'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import type { MadeAgain, RenderDetail } from '@/contract/renders';

/** Log lines shown. */
const MOST = 12;

/** Who made how much of a render, and the last frames that were made or failed. */
export function RenderLog({ render, again }: { readonly render: RenderDetail; readonly again: MadeAgain }) {
  const { parts, shares, memory } = render;
  const most = Math.max(1, ...shares.map((s) => s.frames));
  const failed = parts.filter((p) => p.message);
  const last = parts
    .filter((p) => p.doneAt && !p.takenOver)
    .sort((a, b) => b.doneAt!.localeCompare(a.doneAt!))
    .slice(0, MOST);
  return (
    <Box mt="2" pt="2" borderTopWidth="1px" borderColor="line" fontSize="12px" data-testid="render-log">
      {shares.map((s) => (
        <Flex key={s.worker} align="center" gap="2" py="0.5">
          <Text w="110px" truncate title={s.worker}>
            {s.worker}
          </Text>
          <Box flex="1" h="6px" borderRadius="full" bg="field" overflow="hidden">
            <Box h="100%" bg="sky" style={{ width: `${(100 * s.frames) / most}%` }} />
          </Box>
          <Text color="muted" whiteSpace="nowrap" fontVariantNumeric="tabular-nums">
            {s.frames} frames, {(s.seconds / s.frames).toFixed(1)} s each
          </Text>
        </Flex>
      ))}
      {memory !== null && memory > 0 && <Text color="muted">A frame takes {memory} MB of memory at most.</Text>}
      {again.same > 0 && (
        <Text color="muted">
          {again.same === 1
            ? 'One frame was made again by another machine: it is the same in every byte.'
            : `${again.same} frames were made again by another machine: they are the same in every byte.`}
        </Text>
      )}
      {failed.map((p) => (
        <Text key={p.index} color="poppyText" lineHeight="1.5">
          Frame {p.frame}: {p.message}
        </Text>
      ))}
      {last.length > 0 && (
        <Box as="details" mt="1" color="muted">
          <Box as="summary" cursor="pointer">
            Last frames
          </Box>
          {last.map((p) => (
            <Text key={p.index} fontVariantNumeric="tabular-nums">
              {new Date(p.doneAt!).toLocaleTimeString('en-GB')} frame {p.frame}, {p.worker ?? 'somebody'},{' '}
              {(p.seconds ?? 0).toFixed(1)} s
            </Text>
          ))}
        </Box>
      )}
    </Box>
  );
}
