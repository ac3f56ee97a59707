'use client';

import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import { sceneParts, type ScenePart } from '@maypole/core/scene/scene';
import { MAX_OUTPUT } from '@maypole/core/piece/schema';
import { NumberField } from '../fields/number-field';
import { ValuesPanel } from '../fields/values-panel';
import { useEditor } from '../state/store';
import { DrawerFrame } from './drawer';

/** Camera, light, backdrop, and the size of the delivered picture. */
export function SceneDrawer() {
  const scene = useEditor((s) => s.piece.scene);
  const output = useEditor((s) => s.piece.output);
  const edit = useEditor((s) => s.edit);
  const size = (part: Partial<typeof output>, gesture: string) => edit('Picture size', (p) => ({ ...p, output: { ...p.output, ...part } }), `output/${gesture}`);
  return (
    <DrawerFrame title="Scene">
      <Section title="Picture">
        {(['width', 'height'] as const).map((side) => (
          <Flex key={side} align="center" gap="2" minH="28px">
            <Text w="82px" flexShrink={0} fontSize="12.5px">{side === 'width' ? 'Width' : 'Height'}</Text>
            <Flex w="102px">
              <NumberField label={`Picture ${side}`} value={output[side]} unit="px" min={16} max={MAX_OUTPUT} soft={[100, 4000]} step={2} integer onChange={(v, g) => size({ [side]: v }, `${side}/${g}`)} />
            </Flex>
          </Flex>
        ))}
      </Section>
      {(Object.keys(sceneParts) as ScenePart[]).map((part) => (
        <Section key={part} title={sceneParts[part].title}>
          <ValuesPanel owner={{ type: 'scene', part }} params={sceneParts[part].params} values={scene[part]} colour="var(--chakra-colors-sky)" />
        </Section>
      ))}
    </DrawerFrame>
  );
}

function Section({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Box mt="2" mb="4">
      <Heading as="h3" fontSize="12.5px" fontWeight="600" color="muted" mb="1">{title}</Heading>
      {children}
    </Box>
  );
}
