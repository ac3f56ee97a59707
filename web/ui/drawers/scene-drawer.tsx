'use client';

import { Box, Flex, Heading, Text } from '@chakra-ui/react';
import { LIMITS } from '@maypole/core/declare/limits';
import { sceneListNames } from '@maypole/core/scene/index';
import { NumberField } from '../fields/number-field';
import { takeLook } from '../looks/take-look';
import { sceneLook, withSceneLook } from '@maypole/core/looks/look';
import { KeptLooks } from '../looks/kept-looks';
import { SceneItems } from '../items/scene-list';
import { useEditor } from '../state/store';
import { DrawerFrame } from './drawer';

/** Picture size, cameras, lights, backdrop, and everything else of the scene. */
export function SceneDrawer() {
  const format = useEditor((s) => s.piece.format);
  const edit = useEditor((s) => s.edit);
  const size = (part: Partial<typeof format>, gesture: string) =>
    edit('Picture size', (p) => ({ ...p, format: { ...p.format, ...part } }), `format/${gesture}`);
  return (
    <DrawerFrame title="Scene">
      <Box mt="2" mb="4">
        <Flex align="center" mb="1">
          <Heading as="h3" fontSize="12.5px" fontWeight="600" color="muted" flex="1">
            Format
          </Heading>
          <KeptLooks
            kind="scene"
            now={(name) => sceneLook(name, 'scene', useEditor.getState().piece)}
            onUse={(look, name) => takeLook(name, (p) => withSceneLook(p, 'scene', look))}
          />
        </Flex>
        {(['width', 'height'] as const).map((side) => (
          <Flex key={side} align="center" gap="2" minH="28px">
            <Text w="82px" flexShrink={0} fontSize="12.5px">
              {side === 'width' ? 'Width' : 'Height'}
            </Text>
            <Flex w="102px">
              <NumberField
                label={`Picture ${side}`}
                value={format[side]}
                unit="px"
                min={16}
                max={LIMITS.side.most}
                soft={[100, 4000]}
                step={2}
                integer
                onChange={(v, g) => size({ [side]: v }, `${side}/${g}`)}
              />
            </Flex>
          </Flex>
        ))}
      </Box>
      {sceneListNames.map((list) => (
        <SceneItems key={list} list={list} />
      ))}
    </DrawerFrame>
  );
}
