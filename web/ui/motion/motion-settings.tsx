'use client';

import { conditionsOf, meets } from '@maypole/core/declare/shown';
import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { NumberParam, VectorParam } from '@maypole/core/declare/params';
import type { KeyDoc } from '@maypole/core/time/keys/key';
import { evaluateNumber } from '@maypole/core/time/value';
import type { MotionDoc } from '@maypole/core/time/motion';
import { motionKind } from '@maypole/core/time/motions/index';
import { Shuffle } from 'lucide-react';
import { NumberField } from '../fields/number-field';
import { SettingField } from './setting-field';

/** The range of the driven value, as far as a motion's settings need it. */
export type Target = Pick<NumberParam | VectorParam, 'unit' | 'min' | 'max' | 'soft' | 'step' | 'integer' | 'cyclic'>;

interface Props {
  readonly motion: MotionDoc;
  readonly target: Target;
  /** Key of the address that the motion belongs to. */
  readonly own: string;
  readonly onChange: (motion: MotionDoc, title: string, gesture?: string) => void;
}

const WIDE = new Set(['formula', 'source', 'curve', 'stops', 'keys']);

const SEAM = { frame: 0, frames: 1 };

/** Keys with all values moved, as far as the limits of the value let them. */
function keysMoved(motion: MotionDoc, by: number, { min, max }: Target): MotionDoc {
  const keys = motion.keys as readonly KeyDoc[];
  const values = keys.map((k) => k.value);
  const way = Math.max(min - Math.min(...values), Math.min(max - Math.max(...values), by));
  return { ...motion, keys: keys.map((k) => ({ ...k, value: Number((k.value + way).toPrecision(12)) })) };
}

/** All settings of a motion; hides those without effect. */
export function MotionSettings({ motion, target, own, onChange }: Props) {
  const kind = motionKind(motion.motion);
  const span = target.max - target.min;
  const begins =
    motion.motion === 'keys' ? evaluateNumber({ ...motion, timing: undefined, layers: undefined }, SEAM) : null;
  const reach = target.soft[1] - target.soft[0];
  return (
    <>
      {begins !== null && (
        <Flex align="center" gap="3" minH="29px">
          <Text w="96px" flexShrink={0} fontSize="12.5px" title="Its value at frame 0; all keys move along.">
            Starts at
          </Text>
          <Box flex="1">
            <NumberField
              label="Starts at"
              value={begins}
              unit={target.unit}
              min={target.min}
              max={target.max}
              soft={target.soft}
              step={target.step}
              onChange={(to, gesture) =>
                onChange(keysMoved(motion, to - begins, target), 'Starts at', `starts/${gesture}`)
              }
            />
          </Box>
        </Flex>
      )}
      {Object.entries(kind.params)
        .filter(([name, p]) => name !== 'otherwise' && conditionsOf(p).every((c) => meets(c, motion[c.param])))
        .map(([name, setting]) => {
          const change = (v: unknown, gesture?: string) =>
            onChange({ ...motion, [name]: v }, setting.title, gesture && `${name}/${gesture}`);
          const of = kind.ofValue[name];
          const wide = WIDE.has(setting.type);
          return (
            <Flex
              key={name}
              align={wide ? 'flex-start' : 'center'}
              direction={wide && setting.type !== 'keys' ? 'column' : 'row'}
              gap={wide && setting.type !== 'keys' ? '1' : '3'}
              minH="29px"
              py={wide ? '1' : undefined}
            >
              <Text w="96px" flexShrink={0} fontSize="12.5px" title={setting.help}>
                {setting.title}
              </Text>
              {of && setting.type === 'number' ? (
                <Box flex="1">
                  <NumberField
                    label={setting.title}
                    value={motion[name] as number}
                    unit={target.unit}
                    min={of === 'value' ? target.min : -span}
                    max={of === 'value' ? target.max : span}
                    soft={of === 'value' ? target.soft : [-reach, reach]}
                    step={target.step}
                    integer={false}
                    onChange={change}
                  />
                </Box>
              ) : (
                <Flex flex="1" w="100%" minW="0">
                  <SettingField setting={setting} value={motion[name]} own={own} onChange={change} />
                </Flex>
              )}
            </Flex>
          );
        })}
      {typeof motion.seed === 'number' && (
        <Flex justify="flex-end" mt="0.5">
          <chakra.button
            type="button"
            onClick={() => onChange({ ...motion, seed: Math.floor(Math.random() * 100_000) }, 'Another one')}
            title="A new seed: the same wandering, another path"
            display="flex"
            alignItems="center"
            gap="1.5"
            px="2"
            py="0.5"
            fontSize="12px"
            borderRadius="5px"
            bg="field"
            color="ink"
            cursor="pointer"
            _hover={{ bg: 'fill' }}
          >
            <Shuffle size={12} />
            Another one
          </chakra.button>
        </Flex>
      )}
      {target.cyclic && typeof motion.adds === 'number' && (
        <Flex gap="1.5" justify="flex-end" mt="0.5">
          {[-1, 0, 1, 2].map((k) => (
            <TurnButton
              key={k}
              turns={k}
              chosen={motion.adds === k * target.cyclic!}
              onChoose={() => onChange({ ...motion, adds: k * target.cyclic! }, 'Adds per loop')}
            />
          ))}
        </Flex>
      )}
    </>
  );
}

function TurnButton({ turns, chosen, onChoose }: { turns: number; chosen: boolean; onChoose: () => void }) {
  return (
    <Box
      as="button"
      aria-pressed={chosen}
      aria-label={`Adds ${turns} turns`}
      onClick={onChoose}
      px="2"
      py="0.5"
      fontSize="11.5px"
      borderRadius="5px"
      cursor="pointer"
      bg={chosen ? 'ink' : 'field'}
      color={chosen ? 'inverse' : 'muted'}
    >
      {turns} {Math.abs(turns) === 1 ? 'turn' : 'turns'}
    </Box>
  );
}
