'use client';

import { widened } from '@maypole/core/declare/widen';
import { Box, Flex, Text } from '@chakra-ui/react';
import type { ColourParam, ColourValue } from '@maypole/core/declare/params';
import { addressKey, type Address } from '@maypole/core/piece/addresses';
import { linkedValue } from '@maypole/core/piece/link';
import { colourMotionKind, colourMotionKinds, evaluateColour } from '@maypole/core/time/colours/index';
import { wrapFrame } from '@maypole/core/time/loop';
import type { MotionDoc } from '@maypole/core/time/motion';
import { isMoving } from '@maypole/core/time/value';
import { Link2 } from 'lucide-react';
import { useRef } from 'react';
import { colourStrip } from '../fields/drawing';
import { PlainButton } from '../parts/buttons';
import { LiveText, useLive } from '../state/live';
import { useEditor } from '../state/store';
import { tieTogether } from '../state/multi-edit';
import { KindPicker } from './kind-picker';
import { SettingField } from './setting-field';

interface Props {
  readonly address: Address;
  readonly others: readonly Address[];
  readonly param: ColourParam;
  readonly value: ColourValue;
  readonly label: string;
}

const STILL = { kind: 'still', title: 'Still', help: 'Stays one colour.' };

/** How a colour moves over the loop. */
export function ColourMotionForm({ address, others, value, label }: Props) {
  const setAll = useEditor((s) => s.setValues);
  const frames = useEditor((s) => s.piece.loop.frames);
  const linked = useEditor((s) => linkedValue(s.piece, address) as ColourValue);
  const left = useRef(new Map<string, ColourValue>());
  const key = addressKey(address);
  const kind = isMoving(value) ? value.motion : 'still';
  const nowAt = (frame: number) => evaluateColour(linked, { frame, frames });
  const dot = useLive<HTMLDivElement, string>(
    (s) => nowAt(s.frame),
    (element, colour) => (element.style.background = colour),
  );
  const bar = useLive<HTMLDivElement, number>(
    (s) => wrapFrame(s.frame, frames) / frames,
    (element, share) => (element.style.left = `${share * 100}%`),
  );
  const all = [address, ...others];
  const set = (title: string, next: ColourValue, gesture?: string) =>
    setAll(title, all, next, gesture && `${key}/${gesture}`);
  const choose = (next: string) => {
    if (next === kind) return;
    left.current.set(kind, value);
    const now = nowAt(useEditor.getState().frame);
    set(
      `Motion of ${label}`,
      left.current.get(next) ??
        (next === 'still' ? now : widened<MotionDoc>({ motion: next, ...colourMotionKind(next).start(now) })),
    );
  };
  return (
    <>
      <Flex justify="space-between" align="center" mb="2.5">
        <Text fontFamily="heading" fontWeight="700" fontSize="15px">
          {label}
        </Text>
        <Flex align="center" gap="2">
          <Box ref={dot} w="16px" h="16px" borderRadius="full" borderWidth="1px" borderColor="line" />
          <Text fontFamily="mono" fontSize="12px" color="muted">
            <LiveText of={(s) => nowAt(s.frame).toUpperCase()} />
          </Text>
        </Flex>
      </Flex>
      {others.length > 0 && (
        <Flex align="center" gap="2" mb="2" fontSize="12px" color="muted">
          <Text flex="1">Edits {all.length} colours together.</Text>
          <PlainButton size="xs" onClick={() => tieTogether(label, address, others, value)}>
            <Link2 size={13} />
            Tie together
          </PlainButton>
        </Flex>
      )}
      <KindPicker kinds={[STILL, ...colourMotionKinds]} chosen={kind} onChoose={choose} />
      {!isMoving(value) ? (
        <Text mt="3" fontSize="12.5px" color="muted" lineHeight="1.5">
          Stays one colour over the loop. Choose how it should change.
        </Text>
      ) : (
        <>
          <Box
            mt="3"
            h="34px"
            borderRadius="8px"
            position="relative"
            overflow="hidden"
            style={{ background: colourStrip(linked, frames, 0, 1, 48) }}
            role="img"
            aria-label={`${label} over the loop`}
          >
            <Box
              ref={bar}
              position="absolute"
              top="0"
              bottom="0"
              w="2px"
              ml="-1px"
              bg="white"
              boxShadow="0 0 0 1px rgba(0,0,0,.5)"
            />
          </Box>
          <Box mt="2">
            {Object.entries(colourMotionKind(value.motion).params)
              .filter(([name]) => name !== 'otherwise')
              .map(([name, setting]) => (
                <Flex
                  key={name}
                  align={setting.type === 'stops' || setting.type === 'source' ? 'flex-start' : 'center'}
                  gap="3"
                  minH="29px"
                  py="0.5"
                >
                  <Text w="76px" flexShrink={0} fontSize="12.5px" title={setting.help}>
                    {setting.title}
                  </Text>
                  <Flex flex="1" minW="0">
                    <SettingField
                      setting={setting}
                      value={value[name]}
                      own={key}
                      wantsColour
                      onChange={(v, gesture) =>
                        set(setting.title, { ...value, [name]: v }, gesture && `${name}/${gesture}`)
                      }
                    />
                  </Flex>
                </Flex>
              ))}
          </Box>
          {typeof value.turns === 'number' && !Number.isInteger(value.turns) && (
            <Box mt="2.5" px="2.5" py="2" borderRadius="field" bg="poppyWash" color="poppyText" fontSize="12px">
              {value.turns} turns do not close; a loop needs whole turns.
            </Box>
          )}
        </>
      )}
    </>
  );
}
