'use client';

import { Box, Flex, chakra } from '@chakra-ui/react';
import type { NumberValue, Param, StoredValue } from '@maypole/core/declare/params';
import { evaluateParam } from '@maypole/core/evaluate/values';
import { addressKey, ownerKey, type Address, type Owner } from '@maypole/core/piece/addresses';
import type { NumberParam, VectorParam } from '@maypole/core/declare/params';
import { isMoving } from '@maypole/core/time/value';
import { useEditor } from '../state/store';
import { memo } from 'react';
import { MotionPopover } from '../editor/motion-popover';
import { ColourField } from './colour-field';
import { Drawing } from './drawing';
import { NumberField } from './number-field';
import { SelectField } from './select-field';
import { SwitchField } from './switch-field';

interface ValueProps {
  readonly owner: Owner;
  readonly name: string;
  readonly param: Param;
  readonly stored: StoredValue;
  readonly colour: string;
}

/** One declared value: name, field, and the drawing of how it moves. Drawn anew only when it changed, so that a scrub costs one row. */
export const ValueRow = memo(
  PlainValueRow,
  (a, b) => a.stored === b.stored && a.param === b.param && a.name === b.name && a.colour === b.colour && ownerKey(a.owner) === ownerKey(b.owner),
);

function PlainValueRow({ owner, name, param, stored, colour }: ValueProps) {
  const set = useEditor((s) => s.setValue);
  const address: Address = { owner, param: name };
  const change = (value: StoredValue, gesture?: string) => set(param.title, address, value, gesture === undefined ? undefined : `${addressKey(address)}/${gesture}`);

  if (param.type === 'number') return <NumberRow address={address} title={param.title} label={param.title} param={param} value={stored as NumberValue} colour={colour} />;
  if (param.type === 'vector')
    return (
      <>
        {([0, 1, 2] as const).map((axis) => (
          <NumberRow
            key={axis}
            address={{ ...address, axis }}
            title={axis === 0 ? param.title : ''}
            suffix={'xyz'[axis]}
            label={`${param.title} ${'xyz'[axis]}`}
            param={param}
            value={(stored as readonly NumberValue[])[axis]}
            colour={colour}
          />
        ))}
      </>
    );
  return (
    <Row title={param.title} help={param.help}>
      {param.type === 'choice' && <SelectField label={param.title} value={stored as string} options={param.options} onChange={(v) => change(v)} />}
      {param.type === 'switch' && <SwitchField label={param.title} value={stored as boolean} onChange={(v) => change(v)} />}
      {param.type === 'colour' && <ColourField label={param.title} value={stored as string} onChange={change} />}
    </Row>
  );
}

function Row({ title, suffix, help, children, drawing }: { title: string; suffix?: string; help: string; children: React.ReactNode; drawing?: React.ReactNode }) {
  return (
    <Flex align="center" gap="2" minH="28px">
      <Flex w="82px" flexShrink={0} fontSize="12.5px" title={help} justify="space-between" lineHeight="1.15">
        <Box>{title}</Box>
        {suffix && <Box color="muted" fontFamily="mono" fontSize="11px" pr="1">{suffix}</Box>}
      </Flex>
      <Flex w="102px" flexShrink={0} align="center">{children}</Flex>
      <Flex flex="1" justify="flex-end">{drawing}</Flex>
    </Flex>
  );
}

function NumberRow({ address, title, suffix, label, param, value, colour }: { address: Address; title: string; suffix?: string; label: string; param: NumberParam | VectorParam; value: NumberValue; colour: string }) {
  const set = useEditor((s) => s.setValue);
  const moving = isMoving(value);
  const key = addressKey(address);
  const shown = useEditor((s) => (moving ? settled(param, value, s.frame, s.piece.loop.frames) : (value as number)));
  const open = useEditor((s) => s.motionOf !== null && addressKey(s.motionOf) === key);
  const openMotion = () => useEditor.setState({ motionOf: address });
  return (
    <Row
      title={title}
      suffix={suffix}
      help={param.help}
      drawing={
        param.moves && (
          <MotionPopover address={address} param={param} value={value} label={label} colour={colour} open={open}>
            <chakra.button
              type="button"
              aria-label={`Motion of ${label}${moving ? '' : ', still'}`}
              title={moving ? 'Its motion over the loop' : 'Stands still; click to make it move'}
              px="0.5"
              py="1"
              borderRadius="field"
              cursor="pointer"
              _hover={{ bg: 'field' }}
              bg={open ? 'field' : undefined}
              onClick={openMotion}
            >
              <Drawing value={value} colour={colour} width={46} />
            </chakra.button>
          </MotionPopover>
        )
      }
    >
      <NumberField
        label={label}
        value={shown}
        unit={param.unit}
        min={param.min}
        max={param.max}
        soft={param.soft}
        step={param.step}
        integer={param.integer}
        driven={moving}
        onDriven={openMotion}
        onChange={(v, gesture) => set(label, address, v, `${key}/${gesture}`)}
      />
    </Row>
  );
}

function settled(param: NumberParam | VectorParam, value: NumberValue, frame: number, frames: number): number {
  return evaluateParam({ ...param, type: 'number', default: 0 } as NumberParam, value, { frame, frames }) as number;
}
