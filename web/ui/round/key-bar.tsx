'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { NumberParam, VectorParam } from '@maypole/core/declare/params';
import { moveKeys, setSegment } from '@maypole/core/time/keys/edit';
import { SEGMENTS, USUAL_EASE, type KeyDoc, type Segment } from '@maypole/core/time/keys/key';
import { Link2, Plus, Trash2, Unlink2 } from 'lucide-react';
import { NumberField } from '../fields/number-field';
import { SelectField } from '../fields/select-field';
import { PictureButton } from '../parts/buttons';

interface Props {
  readonly keys: readonly KeyDoc[];
  readonly adds: number;
  readonly chosen: readonly number[];
  readonly frames: number;
  readonly param: NumberParam | VectorParam;
  readonly onKeys: (keys: readonly KeyDoc[], label: string, gesture?: string, chosen?: readonly number[]) => void;
  readonly onAdd: () => void;
  readonly onRemove: () => void;
}

/** The selected keys in numbers. */
export function KeyBar({ keys, adds, chosen, frames, param, onKeys, onAdd, onRemove }: Props) {
  const some = chosen.map((i) => keys[i]).filter(Boolean);
  const first = some[0];
  const same = <T,>(of: (k: KeyDoc) => T) => some.every((k) => of(k) === of(first));
  const way = first && same((k) => k.to) ? first.to : 'mixed';
  const put = (part: Partial<KeyDoc>, label: string, gesture?: string) =>
    onKeys(
      keys.map((k, i) => (chosen.includes(i) ? { ...k, ...part } : k)),
      label,
      gesture,
      chosen,
    );
  return (
    <Flex
      align="center"
      gap="2"
      h="30px"
      px="2.5"
      fontSize="12px"
      whiteSpace="nowrap"
      overflowX="auto"
      overflowY="hidden"
    >
      <PictureButton label="Add a key at the playhead (Insert)" minW="24px" onClick={onAdd}>
        <Plus size={15} />
      </PictureButton>
      {!first ? (
        <Text color="muted">Double-click to add a key, drag to move; drag over some to choose them.</Text>
      ) : (
        <>
          <PictureButton
            label={`Remove ${some.length === 1 ? 'the key' : `${some.length} keys`} (Delete)`}
            minW="24px"
            disabled={keys.length <= some.length}
            onClick={onRemove}
          >
            <Trash2 size={14} />
          </PictureButton>
          <Text color="muted" data-testid="key-count">
            {some.length === 1 ? `Key ${chosen[0] + 1} of ${keys.length}` : `${some.length} of ${keys.length} keys`}
          </Text>
          {some.length === 1 && (
            <>
              <Text>Frame</Text>
              <Box w="72px" flexShrink={0}>
                <NumberField
                  label="Key frame"
                  value={Number((first.at * frames).toFixed(3))}
                  min={-100_000}
                  max={100_000}
                  soft={[0, frames]}
                  step={1}
                  onChange={(v, gesture) => {
                    const out = moveKeys(keys, chosen, { at: v / frames - first.at, value: 0 }, adds);
                    onKeys(out.keys, 'Move a key', `frame/${gesture}`, out.chosen);
                  }}
                />
              </Box>
            </>
          )}
          <Text>Value</Text>
          <Box w="86px" flexShrink={0}>
            <NumberField
              label="Key value"
              value={first.value}
              mixed={!same((k) => k.value)}
              unit={param.unit}
              min={param.min}
              max={param.max}
              soft={param.soft}
              step={param.step}
              onChange={(v, gesture) => put({ value: v }, 'Value of a key', `value/${gesture}`)}
            />
          </Box>
          <Text>then</Text>
          <Box w="92px" flexShrink={0}>
            <SelectField
              label="Way to the next key"
              value={way}
              options={[...(way === 'mixed' ? [{ value: 'mixed', title: 'mixed' }] : []), ...SEGMENTS]}
              onChange={(to) =>
                to !== 'mixed' &&
                onKeys(setSegment(keys, chosen, to as Segment, adds), 'Way to the next key', undefined, chosen)
              }
            />
          </Box>
          {way === 'ease' && (
            <Ease
              ease={first.ease ?? USUAL_EASE}
              onChange={(ease, gesture) => put({ ease }, 'Easing', `ease/${gesture}`)}
            />
          )}
          {some.some((k) => k.to === 'free' || k.in) && (
            <PictureButton
              label={first.broken ? 'Join the tangents' : 'Break the tangents'}
              aria-pressed={Boolean(first.broken)}
              minW="24px"
              onClick={() => put({ broken: !first.broken }, first.broken ? 'Join tangents' : 'Break tangents')}
            >
              {first.broken ? <Unlink2 size={14} /> : <Link2 size={14} />}
            </PictureButton>
          )}
        </>
      )}
    </Flex>
  );
}

function Ease({
  ease,
  onChange,
}: {
  ease: readonly [number, number];
  onChange: (ease: readonly [number, number], gesture?: string) => void;
}) {
  const field = (label: string, i: 0 | 1) => (
    <Box w="64px" flexShrink={0}>
      <NumberField
        label={label}
        value={Number((ease[i] * 100).toFixed(1))}
        unit="%"
        min={0}
        max={100}
        soft={[0, 100]}
        step={1}
        integer={false}
        onChange={(v, g) => onChange(i === 0 ? [v / 100, ease[1]] : [ease[0], v / 100], g)}
      />
    </Box>
  );
  return (
    <>
      {field('Ease away', 0)}
      {field('Ease in', 1)}
    </>
  );
}

/** Gain per loop. */
export function AddsField({
  adds,
  param,
  onAdds,
}: {
  adds: number;
  param: NumberParam | VectorParam;
  onAdds: (adds: number, gesture?: string) => void;
}) {
  const span = param.max - param.min;
  const reach = param.soft[1] - param.soft[0];
  const { cyclic } = param;
  return (
    <Box>
      <Text
        fontSize="12px"
        mb="0.5"
        title="What the value gains from the last key to the first one of the next loop, over and above."
      >
        Adds per loop
      </Text>
      <Flex gap="1" align="center">
        <NumberField
          label="Adds per loop"
          value={adds}
          unit={param.unit}
          min={-span}
          max={span}
          soft={cyclic ? [-2 * cyclic, 2 * cyclic] : [-reach, reach]}
          step={param.step}
          onChange={(v, gesture) => onAdds(v, `adds/${gesture}`)}
        />
        {cyclic &&
          [0, 1].map((k) => (
            <chakra.button
              key={k}
              type="button"
              aria-pressed={adds === k * cyclic}
              onClick={() => onAdds(k * cyclic)}
              px="1.5"
              h="24px"
              borderRadius="5px"
              fontSize="11.5px"
              whiteSpace="nowrap"
              cursor="pointer"
              bg={adds === k * cyclic ? 'ink' : 'field'}
              color={adds === k * cyclic ? 'inverse' : 'muted'}
            >
              {k === 0 ? 'none' : '1 turn'}
            </chakra.button>
          ))}
      </Flex>
    </Box>
  );
}
