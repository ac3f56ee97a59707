'use client';

import { keepable, LIMITS } from '@maypole/core/declare/limits';
import { Box, Flex, Menu, Text, chakra } from '@chakra-ui/react';
import { DndContext, PointerSensor, closestCenter, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import type { CopiesNote } from '@maypole/core/evaluate/ribbon';
import { ribbonLook, stepsLook } from '@maypole/core/looks/kept-parts';
import { formatCount } from '@maypole/core/steps/step';
import type { RibbonDoc } from '@maypole/core/piece/piece';
import { Copy, Dices, Ellipsis, Eye, EyeOff, Plus, Trash2, Link2 } from 'lucide-react';
import { createContext, memo, useContext, useMemo, useState } from 'react';
import type { RibbonGeometry } from '@/engine/evaluate/loop-cache';
import { KeptLooks } from '../looks/kept-looks';
import { addKeptRibbons, addKeptSteps } from '../looks/keep-parts';
import { PictureButton, PlainButton } from '../parts/buttons';
import { shownColour } from '../parts/shown-colour';
import { addPair, addRibbon, duplicateRibbon, moveStep, removeRibbon, throwAgain } from '../state/actions';
import { facesOf, useGeometry } from '../state/geometry';
import { copiesBefore, fanOf } from '../state/copies';
import { useEditor, useRibbon } from '../state/store';
import { AddMenu } from './add-menu';
import { StepsTogether, TogetherThread } from './together-thread';
import { FinishCard } from './finish-card';
import { FirstTurns } from './first-turns';
import { StepCard } from './step-card';
import { MenuList } from '../parts/menu-list';

/** The selected ribbon: its steps in order, on a thread in its colour. */
export function Thread() {
  const ribbon = useRibbon();
  const also = useEditor((s) => s.alsoRibbons);
  const ribbons = useEditor((s) => s.piece.ribbons);
  if (!ribbon) return <Empty />;
  const together = [ribbon, ...ribbons.filter((r) => also.includes(r.id) && r.id !== ribbon.id)];
  if (together.length > 1) return <TogetherThread ribbons={together} />;
  return <Steps key={ribbon.id} ribbon={ribbon} />;
}

function Empty() {
  return (
    <Flex flex="1" direction="column" align="center" justify="center" gap="4" p="8" textAlign="center">
      <Text fontFamily="heading" fontWeight="700" fontSize="17px">
        No ribbon yet
      </Text>
      <Text color="muted" lineHeight="1.5">
        A ribbon is a form and the steps that shape it. Begin with a form.
      </Text>
      <AddMenu group="form" label="Choose a form" onChoose={(kind) => addRibbon(kind)}>
        <PlainButton data-opens="first-form">
          <Plus size={15} />
          Choose a form
        </PlainButton>
      </AddMenu>
    </Flex>
  );
}

/** The change a step made to the number of copies, shapes or faces; undefined if none. */
function newNote(notes: readonly CopiesNote[], id: string): CopiesNote | undefined {
  const at = notes.findIndex((n) => n.step === id);
  const [note, before] = [notes[at], notes[at - 1]];
  return note && before && note.copies === before.copies && note.shapes === before.shapes && note.faces === before.faces
    ? undefined
    : note;
}

/** What the panel shows of the selected ribbon's shapes. */
const Shapes = createContext<RibbonGeometry | undefined>(undefined);

function Steps({ ribbon }: { ribbon: RibbonDoc }) {
  const geometry = useGeometry(ribbon);
  return (
    <Flex direction="column" flex="1" minW="0" minH="0" as="section" aria-label={`Ribbon ${ribbon.name}`}>
      <Header id={ribbon.id} name={ribbon.name} on={ribbon.on} faces={geometry && facesOf(geometry)} />
      <Box flex="1" overflowY="auto" overflowX="hidden" px="3" pb="5" position="relative">
        <FirstTurns />
        <StepsTogether ribbon={ribbon} />
        <Box position="relative">
          <Line colour={ribbon.colour} />
          <Shapes.Provider value={geometry}>
            <StepList ribbonId={ribbon.id} colour={ribbon.colour} ids={ribbon.steps.map((s) => s.id).join()} />
          </Shapes.Provider>
          <AddRow id={ribbon.id} colour={ribbon.colour} />
          <FinishCard id={ribbon.id} colour={ribbon.colour} finishes={ribbon.finishes} />
        </Box>
      </Box>
    </Flex>
  );
}

/** The line that the steps hang on. */
const Line = memo(function Line({ colour }: { colour: string }) {
  return (
    <Box
      position="absolute"
      left="12px"
      top="14px"
      bottom="-20px"
      w="5px"
      borderRadius="full"
      bg={shownColour(colour)}
    />
  );
});

// Stable objects; otherwise every render would render all cards.
const LIFTED = { activationConstraint: { distance: 4 } };
const SPOKEN = { screenReaderInstructions: { draggable: 'Press the up and down arrow keys to move the step.' } };

interface ListProps {
  readonly ribbonId: string;
  readonly colour: string;
}

/** The cards in order; `ids` are those of the steps, joined as text, so that it renders only when the order changes. */
const StepList = memo(function StepList({ ribbonId, colour, ids }: ListProps & { ids: string }) {
  const order = useMemo(() => ids.split(','), [ids]);
  // Keys move a step from its knot directly, without lifting it first.
  const sensors = useSensors(useSensor(PointerSensor, LIFTED));
  const ended = ({ active, over }: DragEndEvent) => {
    if (over && active.id !== over.id) moveStep(ribbonId, String(active.id), order.indexOf(String(over.id)));
  };
  return (
    <DndContext
      id="steps"
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={ended}
      accessibility={SPOKEN}
    >
      <SortableContext items={order} strategy={verticalListSortingStrategy}>
        {order.map((id, index) => (
          <StepPlace key={id} ribbonId={ribbonId} colour={colour} id={id} index={index} count={order.length} />
        ))}
      </SortableContext>
    </DndContext>
  );
});

/** A step's part of the ribbon: its card renders only when that changes. */
function StepPlace({ ribbonId, colour, id, index, count }: ListProps & { id: string; index: number; count: number }) {
  const ribbon = useEditor((s) => s.piece.ribbons.find((r) => r.id === ribbonId));
  const frames = useEditor((s) => s.piece.loop.frames);
  const geometry = useContext(Shapes);
  const step = ribbon?.steps[index];
  // The list learns a moment later that a step is gone.
  if (step?.id !== id) return null;
  return (
    <StepCard
      ribbonId={ribbonId}
      colour={colour}
      count={count}
      step={step}
      index={index}
      problem={geometry?.problems.find((p) => p.step === id)}
      note={newNote(geometry?.notes ?? [], id)}
      copies={copiesBefore(ribbon!, index)}
      fan={fanOf(ribbon!.steps, index, frames).join()}
    />
  );
}

const Header = memo(function Header({
  id,
  name: known,
  on,
  faces,
}: {
  id: string;
  name: string;
  on: boolean;
  faces?: number;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const edit = useEditor((s) => s.editRibbon);
  return (
    <Flex align="center" px="3" pt="2.5" pb="2" gap="1">
      <chakra.input
        aria-label="Name of the ribbon"
        data-opens="ribbon-name"
        value={typed ?? known}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => {
          const name = typed === null ? '' : keepable(typed.trim(), LIMITS.nameOfRibbon);
          if (name && name !== known) edit('Rename ribbon', id, (r) => ({ ...r, name }));
          setTyped(null);
        }}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        fontFamily="heading"
        fontWeight="700"
        fontSize="16px"
        bg="transparent"
        borderRadius="field"
        px="1"
        flex="1"
        minW="0"
        _hover={{ bg: 'field' }}
      />
      <Text fontSize="12px" color="muted" whiteSpace="nowrap" px="1" data-testid="face-count">
        {faces === undefined ? '' : `${formatCount(faces)} faces`}
      </Text>
      <PictureButton
        label={on ? 'Switch ribbon off' : 'Switch ribbon on'}
        onClick={() => edit('Switch ribbon', id, (r) => ({ ...r, on: !r.on }))}
        color="muted"
      >
        {on ? <Eye size={15} /> : <EyeOff size={15} />}
      </PictureButton>
      <KeptLooks
        kind="ribbon"
        now={(name) => ribbonLook(name, useEditor.getState().piece, [id])}
        onUse={addKeptRibbons}
      />
      <Menu.Root positioning={{ placement: 'bottom-end' }}>
        <Menu.Trigger asChild>
          <PictureButton label="More for this ribbon" color="muted">
            <Ellipsis size={16} />
          </PictureButton>
        </Menu.Trigger>
        <MenuList>
          <Menu.Item value="duplicate" onClick={() => duplicateRibbon(id)}>
            <Copy size={14} />
            Duplicate ribbon
          </Menu.Item>
          <Menu.Item value="pair" onClick={() => addPair(id)}>
            <Link2 size={14} />
            Make a pair
          </Menu.Item>
          <Menu.Item value="throw" onClick={() => throwAgain(id)}>
            <Dices size={14} />
            Another throw
          </Menu.Item>
          <Menu.Item value="remove" color="poppyText" onClick={() => removeRibbon(id)}>
            <Trash2 size={14} />
            Remove ribbon
          </Menu.Item>
        </MenuList>
      </Menu.Root>
    </Flex>
  );
});

const AddRow = memo(function AddRow({ id, colour }: { id: string; colour: string }) {
  return (
    <Flex align="center" gap="2.5" my="2">
      <AddMenu group="steps" label="Add a step" ribbonId={id}>
        <chakra.button
          type="button"
          aria-label="Add step"
          data-opens="add-step"
          display="flex"
          alignItems="center"
          gap="2.5"
          cursor="pointer"
          color="muted"
          fontSize="13px"
          fontWeight="500"
          _hover={{ color: 'ink' }}
          ml="1px"
        >
          <Flex
            w="27px"
            h="27px"
            borderRadius="full"
            borderWidth="2px"
            borderStyle="dashed"
            borderColor={shownColour(colour)}
            bg="panel"
            align="center"
            justify="center"
            position="relative"
          >
            <Plus size={14} />
          </Flex>
          Add step
        </chakra.button>
      </AddMenu>
      <Box flex="1" />
      <KeptLooks
        kind="steps"
        now={(name) => stepsLook(name, useEditor.getState().piece, id)}
        onUse={(look, name) => addKeptSteps(id, look, name)}
      />
    </Flex>
  );
});
