'use client';

import { Box, Flex, Popover, Portal, Text, chakra } from '@chakra-ui/react';
import type { NumberParam, NumberValue, VectorParam } from '@maypole/core/declare/params';
import { addressKey, type Address } from '@maypole/core/piece/addresses';
import { readable } from '@maypole/core/seam/check';
import type { MotionDoc } from '@maypole/core/time/motion';
import { motionKind, motionKinds } from '@maypole/core/time/motions/index';
import { isWhole } from '@maypole/core/time/rational';
import { evaluateNumber, isMoving, turnsOf } from '@maypole/core/time/value';
import { useRef, type ReactNode } from 'react';
import { valuePath } from '../fields/drawing';
import { NumberField, formatNumber } from '../fields/number-field';
import { SelectField } from '../fields/select-field';
import { useEditor } from '../state/store';

interface Props {
  readonly address: Address;
  readonly param: NumberParam | VectorParam;
  readonly value: NumberValue;
  readonly label: string;
  readonly colour: string;
  readonly open: boolean;
  readonly children: ReactNode;
}

/** How one value moves: its kind, its settings, its drawing over the loop. */
export function MotionPopover({ open, children, ...rest }: Props) {
  return (
    <Popover.Root
      open={open}
      onOpenChange={(d) => !d.open && useEditor.setState({ motionOf: null })}
      positioning={{ placement: 'right-start', gutter: 10, strategy: 'fixed' }}
      lazyMount
      unmountOnExit
      autoFocus={false}
    >
      <Popover.Trigger asChild>{children}</Popover.Trigger>
      <Portal>
        <Popover.Positioner>
          <Popover.Content width="300px" bg="panel" borderRadius="12px" borderWidth="1px" borderColor="line" boxShadow="float" aria-label={`Motion of ${rest.label}`}>
            <Popover.Body p="3.5">
              <MotionForm {...rest} />
            </Popover.Body>
          </Popover.Content>
        </Popover.Positioner>
      </Portal>
    </Popover.Root>
  );
}

function MotionForm({ address, param, value, label, colour }: Omit<Props, 'open' | 'children'>) {
  const set = useEditor((s) => s.setValue);
  const frame = useEditor((s) => s.frame);
  const frames = useEditor((s) => s.piece.loop.frames);
  const key = addressKey(address);
  // Settings tried and left again come back when their kind is chosen once more.
  const left = useRef(new Map<string, NumberValue>());
  const kind = isMoving(value) ? value.motion : 'still';
  const now = evaluateNumber(value, { frame, frames });

  const choose = (next: string) => {
    if (next === kind) return;
    left.current.set(kind, value);
    const known = left.current.get(next);
    const plain = Number(now.toPrecision(6));
    const fresh = next === 'still' ? (param.integer ? Math.round(plain) : plain) : ({ motion: next, ...motionKind(next).start(now, param) } as unknown as MotionDoc);
    set(`Motion of ${label}`, address, known ?? fresh);
  };

  return (
    <>
      <Flex justify="space-between" align="baseline" mb="2.5">
        <Text fontFamily="heading" fontWeight="700" fontSize="15px">{label}</Text>
        <Text fontFamily="mono" fontSize="12px" color="muted">{formatNumber(now, param.step)} {param.unit}</Text>
      </Flex>
      <Flex role="radiogroup" aria-label="Kind of motion" bg="field" borderRadius="8px" p="3px" gap="2px">
        {[{ kind: 'still', title: 'Still', help: 'Stands still.' }, ...motionKinds].map((m) => (
          <chakra.button
            key={m.kind}
            type="button"
            role="radio"
            aria-checked={m.kind === kind}
            title={m.help}
            flex="1"
            py="1"
            borderRadius="6px"
            fontSize="12.5px"
            fontWeight={m.kind === kind ? 600 : 500}
            bg={m.kind === kind ? 'raised' : undefined}
            boxShadow={m.kind === kind ? 'card' : undefined}
            color={m.kind === kind ? 'ink' : 'muted'}
            cursor="pointer"
            onClick={() => choose(m.kind)}
          >
            {m.title}
          </chakra.button>
        ))}
      </Flex>
      {isMoving(value) ? (
        <>
          <Box position="relative" mt="3" bg="field" borderRadius="8px" overflow="hidden">
            <svg width="100%" height="74" viewBox="0 0 270 74" preserveAspectRatio="none" role="img" aria-label={`${label} over the loop`}>
              <path d={valuePath(value, 270, 74, { samples: 240, pad: 10 })} fill="none" stroke={colour} strokeWidth="2" vectorEffect="non-scaling-stroke" />
              <path d={`M${((((frame % frames) + frames) % frames) / frames) * 270} 0V74`} stroke="var(--chakra-colors-poppy)" strokeWidth="1.5" vectorEffect="non-scaling-stroke" />
            </svg>
            <Text position="absolute" left="6px" top="2px" fontSize="10px" fontFamily="mono" color="muted">{readable(Math.max(value.low as number, value.high as number))}</Text>
            <Text position="absolute" left="6px" bottom="2px" fontSize="10px" fontFamily="mono" color="muted">{readable(Math.min(value.low as number, value.high as number))}</Text>
          </Box>
          <Settings address={address} param={param} value={value} owner={key} />
          {!isWhole(turnsOf(value)) && value.low !== value.high && (
            <Box mt="2.5" px="2.5" py="2" borderRadius="field" bg="poppyWash" color="poppyText" fontSize="12px" lineHeight="1.4">
              {value.turns} turns do not close; a loop needs whole turns.
            </Box>
          )}
        </>
      ) : (
        <Text mt="3" fontSize="12.5px" color="muted" lineHeight="1.5">Stands still over the loop. Choose how it should move.</Text>
      )}
    </>
  );
}

function Settings({ address, param, value, owner }: { address: Address; param: NumberParam | VectorParam; value: MotionDoc; owner: string }) {
  const set = useEditor((s) => s.setValue);
  const kind = motionKind(value.motion);
  return (
    <Box mt="3">
      {Object.entries(kind.params).filter(([, p]) => !p.shownWhen || p.shownWhen.is.includes(value[p.shownWhen.param] as string)).map(([name, setting]) => {
        const change = (v: number | string | boolean, gesture?: string) =>
          set(setting.title, address, { ...value, [name]: v }, gesture === undefined ? undefined : `${owner}/${name}/${gesture}`);
        const ends = name === 'low' || name === 'high';
        return (
          <Flex key={name} align="center" gap="3" minH="29px">
            <Text w="84px" fontSize="12.5px" title={setting.help}>{setting.title}</Text>
            {setting.type === 'choice' && <SelectField label={setting.title} value={value[name] as string} options={setting.options} onChange={(v) => change(v)} />}
            {setting.type === 'number' && (
              <NumberField
                label={setting.title}
                value={value[name] as number}
                unit={ends ? param.unit : setting.unit}
                min={ends ? param.min : setting.min}
                max={ends ? param.max : setting.max}
                soft={ends ? param.soft : setting.soft}
                step={ends ? param.step : setting.step}
                integer={setting.integer}
                onChange={change}
              />
            )}
          </Flex>
        );
      })}
    </Box>
  );
}
