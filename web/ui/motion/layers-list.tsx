'use client';

import { Box, Flex, Menu, Text, chakra } from '@chakra-ui/react';
import { layerTarget } from '@maypole/core/piece/motion-faults';
import type { LayerDoc, MotionDoc } from '@maypole/core/time/motion';
import { motionKind, motionKinds } from '@maypole/core/time/motions/index';
import { ArrowDown, ArrowUp, ChevronDown, Eye, EyeOff, Plus, X } from 'lucide-react';
import { useState } from 'react';
import { Drawing } from '../fields/drawing';
import { SelectField } from '../fields/select-field';
import { PictureButton } from '../parts/buttons';
import { MotionSettings, type Target } from './motion-settings';
import { MenuList } from '../parts/menu-list';

const HOW = [
  { value: 'add', title: 'plus' },
  { value: 'multiply', title: 'times' },
] as const;

/** Unit and range of a layer's own settings. */
function targetOf(target: Target, how: LayerDoc['how']): Target {
  const { min, max } = layerTarget(target, how);
  const reach = (target.soft[1] - target.soft[0]) / 2;
  return how === 'multiply'
    ? { ...target, min, max, unit: '×', soft: [0, 2], step: 0.05, integer: false, cyclic: undefined }
    : { ...target, min, max, soft: [-reach, reach] };
}

/** A new layer: a small closed wander to add, a swell to multiply by. */
function freshLayer(kind: string, how: LayerDoc['how'], target: Target): LayerDoc {
  const of = targetOf(target, how);
  const start = motionKind(kind).start(how === 'multiply' ? 1 : 0, { ...of, cyclic: undefined });
  const amount = (target.soft[1] - target.soft[0]) / 20;
  const gentle = how === 'add' && 'low' in start ? { low: -amount, high: amount } : {};
  return { how, on: true, motion: { motion: kind, ...start, ...gentle } as MotionDoc };
}

/** Motions layered on the first one, in order. */
export function LayersList({
  layers,
  target,
  colour,
  own,
  onChange,
}: {
  layers: readonly LayerDoc[];
  target: Target;
  colour: string;
  own: string;
  onChange: (layers: readonly LayerDoc[], gesture?: string) => void;
}) {
  const [open, setOpen] = useState<number | null>(null);
  const put = (i: number, part: Partial<LayerDoc>, gesture?: string) =>
    onChange(
      layers.map((l, k) => (k === i ? { ...l, ...part } : l)),
      gesture && `layer${i}/${gesture}`,
    );
  const move = (i: number, by: number) => {
    const next = [...layers];
    [next[i], next[i + by]] = [next[i + by], next[i]];
    onChange(next);
    setOpen(null);
  };
  return (
    <Box role="list" aria-label="Layers">
      {layers.map((layer, i) => (
        <Box key={i} role="listitem" mb="1.5" bg="field" borderRadius="8px" opacity={layer.on ? 1 : 0.6}>
          <Flex align="center" gap="1" pl="1.5" h="32px">
            <Box w="70px" flexShrink={0}>
              <SelectField
                label={`How layer ${i + 1} acts`}
                value={layer.how}
                options={HOW}
                onChange={(how) =>
                  put(i, {
                    how: how as LayerDoc['how'],
                    motion: freshLayer(layer.motion.motion, how as LayerDoc['how'], target).motion,
                  })
                }
              />
            </Box>
            <chakra.button
              type="button"
              aria-expanded={open === i}
              aria-label={`Layer ${i + 1}, ${motionKind(layer.motion.motion).title}`}
              onClick={() => setOpen(open === i ? null : i)}
              flex="1"
              minW="0"
              display="flex"
              alignItems="center"
              gap="2"
              cursor="pointer"
            >
              <Text fontSize="12.5px" fontWeight="500">
                {motionKind(layer.motion.motion).title}
              </Text>
              <Drawing value={layer.motion} colour={colour} width={44} height={16} />
              <Box ml="auto" color="muted" transform={open === i ? 'rotate(180deg)' : undefined}>
                <ChevronDown size={13} />
              </Box>
            </chakra.button>
            <LayerButtons
              name={`layer ${i + 1}`}
              on={layer.on}
              first={i === 0}
              last={i === layers.length - 1}
              onSwitch={() => put(i, { on: !layer.on })}
              onMove={(by) => move(i, by)}
              onRemove={() => {
                onChange(layers.filter((_, k) => k !== i));
                setOpen(null);
              }}
            />
          </Flex>
          {open === i && (
            <Box px="2" pb="2">
              <MotionSettings
                motion={layer.motion}
                target={targetOf(target, layer.how)}
                own={own}
                onChange={(motion, _title, gesture) => put(i, { motion }, gesture)}
              />
            </Box>
          )}
        </Box>
      ))}
      <AddLayer
        onAdd={(kind) => {
          onChange([...layers, freshLayer(kind, 'add', target)]);
          setOpen(layers.length);
        }}
      />
    </Box>
  );
}

function LayerButtons({
  name,
  on,
  first,
  last,
  onSwitch,
  onMove,
  onRemove,
}: {
  name: string;
  on: boolean;
  first: boolean;
  last: boolean;
  onSwitch: () => void;
  onMove: (by: number) => void;
  onRemove: () => void;
}) {
  const Name = name[0].toUpperCase() + name.slice(1);
  return (
    <>
      <PictureButton label={`Switch ${name} ${on ? 'off' : 'on'}`} minW="24px" color="muted" onClick={onSwitch}>
        {on ? <Eye size={13} /> : <EyeOff size={13} />}
      </PictureButton>
      <PictureButton label={`${Name} earlier`} minW="24px" color="muted" disabled={first} onClick={() => onMove(-1)}>
        <ArrowUp size={13} />
      </PictureButton>
      <PictureButton label={`${Name} later`} minW="24px" color="muted" disabled={last} onClick={() => onMove(1)}>
        <ArrowDown size={13} />
      </PictureButton>
      <PictureButton label={`Remove ${name}`} minW="24px" color="muted" onClick={onRemove}>
        <X size={13} />
      </PictureButton>
    </>
  );
}

function AddLayer({ onAdd }: { onAdd: (kind: string) => void }) {
  return (
    <Menu.Root positioning={{ placement: 'bottom-start' }} lazyMount>
      <Menu.Trigger asChild>
        <chakra.button
          type="button"
          display="flex"
          alignItems="center"
          gap="1.5"
          fontSize="12px"
          color="muted"
          cursor="pointer"
          _hover={{ color: 'ink' }}
          py="1"
        >
          <Plus size={13} />
          Add a layer
        </chakra.button>
      </Menu.Trigger>
      <MenuList>
        {motionKinds.map((m) => (
          <Menu.Item key={m.kind} value={m.kind} onClick={() => onAdd(m.kind)}>
            {m.title}
          </Menu.Item>
        ))}
      </MenuList>
    </Menu.Root>
  );
}
