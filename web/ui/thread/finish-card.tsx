'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { surfaceOf } from '@maypole/core/finish/finish';
import { FACE_WORDS, faceKinds, type FaceKind } from '@maypole/core/finish/surface';
import { finishLook } from '@maypole/core/looks/look';
import { linkPiece } from '@maypole/core/piece/link';
import { finishOf, newFinish, type RibbonDoc } from '@maypole/core/piece/piece';
import { Palette } from 'lucide-react';
import { memo } from 'react';
import { SwitchField } from '../fields/switch-field';
import { wearKept } from '../looks/drag-look';
import { KeptLooks } from '../looks/kept-looks';
import { FinishParts } from './finish-parts';
import { PresetPicker } from './preset-picker';
import { Fold } from '../motion/fold';
import { useLive } from '../state/live';
import { useEditor } from '../state/store';
import { Card, Knot } from './step-card';

interface Props {
  readonly id: string;
  readonly colour: string;
  readonly finishes: RibbonDoc['finishes'];
}

/** The finishes of a ribbon: the main one, and those of other kinds of faces. */
export const FinishCard = memo(function FinishCard({ id, colour, finishes }: Props) {
  const key = `${id}/finish`;
  const open = useEditor((s) => s.openSteps[key] ?? false);
  const shown = useLive<HTMLDivElement, string>(
    (s) => {
      const main = linkPiece(s.piece).ribbons.find((r) => r.id === id)?.finishes[0];
      return main ? surfaceOf(main, { frame: s.frame, frames: s.piece.loop.frames }).baseColor : '#ffffff';
    },
    (dot, colour) => (dot.style.background = colour),
  );
  const others = faceKinds.filter((of) => of !== 'main');
  const worn = others.filter((of) => finishes.some((f) => f.of === of && f.on));
  return (
    <Flex align="flex-start" gap="2.5" position="relative" data-testid="finish">
      <Knot colour={colour}>
        <Palette size={14} strokeWidth={1.9} />
      </Knot>
      <Card open={open}>
        <Flex align="center" minH="38px" px="2.5" gap="2">
          <chakra.button
            type="button"
            aria-expanded={open}
            onClick={() => useEditor.setState((s) => ({ openSteps: { ...s.openSteps, [key]: !open } }))}
            flex="1"
            display="flex"
            alignItems="center"
            gap="2"
            textAlign="left"
            cursor="pointer"
            py="2"
            minW="0"
          >
            <Text fontWeight="600" fontSize="13.5px">
              Finish
            </Text>
            <Text fontSize="12px" color="muted" truncate>
              surface of the ribbon
            </Text>
          </chakra.button>
          <Box ref={shown} w="18px" h="18px" borderRadius="full" borderWidth="1px" borderColor="line" flexShrink={0} />
        </Flex>
        {open && (
          <Box borderTopWidth="1px" borderColor="line" px="2.5" py="1.5">
            {finishes[0] && (
              <>
                <Flex gap="1" align="flex-start">
                  <Box flex="1">
                    <PresetPicker ribbon={id} of="main" />
                  </Box>
                  <KeptLooks
                    kind="finish"
                    now={(name) =>
                      finishLook(
                        name,
                        useEditor.getState().piece.ribbons.find((r) => r.id === id)!,
                        finishes[0],
                      )
                    }
                    onUse={(look, name) => wearKept(id, look, name)}
                  />
                </Flex>
                <FinishParts ribbon={id} finish={finishes[0]} colour={colour} />
              </>
            )}
            <Fold title="More" note={worn.length > 0 ? `${worn.length} set` : undefined} initially={worn.length > 0}>
              {others.map((of) => (
                <Other key={of} ribbon={id} of={of} finishes={finishes} colour={colour} />
              ))}
            </Fold>
          </Box>
        )}
      </Card>
    </Flex>
  );
});

/** A kind of faces that may have its own finish. */
function Other({
  ribbon,
  of,
  finishes,
  colour,
}: {
  ribbon: string;
  of: FaceKind;
  finishes: RibbonDoc['finishes'];
  colour: string;
}) {
  const { title, help } = FACE_WORDS[of];
  const finish = finishOf({ finishes }, of);
  const on = finish?.on ?? false;
  const change = (next: boolean) =>
    useEditor.getState().editRibbon(`${title} finish`, ribbon, (r) => {
      const known = finishOf(r, of);
      return {
        ...r,
        finishes: known
          ? r.finishes.map((f) => (f.of === of ? { ...f, on: next } : f))
          : [...r.finishes, newFinish(of)],
      };
    });
  return (
    <>
      <Flex align="center" gap="2" minH="28px">
        <Text w="82px" fontSize="12.5px" title={help}>
          {title}
        </Text>
        <SwitchField label={title} value={on} onChange={change} />
      </Flex>
      {finish && on && (
        <>
          <PresetPicker ribbon={ribbon} of={of} />
          <FinishParts ribbon={ribbon} finish={finish} colour={colour} of={title} />
        </>
      )}
    </>
  );
}
