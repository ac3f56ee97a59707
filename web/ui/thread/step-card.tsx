'use client';

import { Box, Flex, Menu, Text, chakra } from '@chakra-ui/react';
import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { evaluateValues } from '@maypole/core/time/values';
import type { CopiesNote, Problem } from '@maypole/core/evaluate/ribbon';
import { stepsLook } from '@maypole/core/looks/kept-parts';
import { clipText } from '@maypole/core/piece/clip-text';
import type { Piece, StepDoc } from '@maypole/core/piece/piece';
import { stepKind, stepKinds } from '@maypole/core/steps/index';
import { isMoving } from '@maypole/core/time/value';
import type { NumberValue } from '@maypole/core/declare/params';
import {
  ArrowDown,
  ArrowUp,
  CircleHelp,
  ClipboardCopy,
  Copy,
  Dices,
  Ellipsis,
  Eye,
  EyeOff,
  Group,
  Replace,
  Trash2,
} from 'lucide-react';
import { memo, useMemo, type ReactNode } from 'react';
import { Drawing, Fan } from '../fields/drawing';
import { ValuesPanel } from '../fields/values-panel';
import { PictureButton } from '../parts/buttons';
import { StepIcon } from '../parts/icons';
import { shownColour } from '../parts/shown-colour';
import { changeForm, duplicateStep, moveStep, removeStep, switchStep, throwAgain } from '../state/actions';
import { copyText } from '../state/clipboard';
import { linkedStep, takeTogether } from '../state/multi-edit';
import { useLive } from '../state/live';
import { useOfPiece } from '../state/of-piece';
import { useEditor, type EditorState } from '../state/store';
import { CopiesChoice, CopiesReadOut } from './copies-rows';
import { StepTrouble } from './step-trouble';
import { MenuList } from '../parts/menu-list';

/** The round handle of a step on its ribbon. */
export function Knot({ colour, children, ...rest }: { colour: string; children: ReactNode } & Record<string, unknown>) {
  return (
    <Flex
      w="29px"
      h="29px"
      mt="5px"
      flexShrink={0}
      borderRadius="full"
      borderWidth="2px"
      borderColor={shownColour(colour)}
      bg="panel"
      align="center"
      justify="center"
      position="relative"
      {...rest}
    >
      {children}
    </Flex>
  );
}

export function Card({
  open,
  dim,
  marked,
  children,
}: {
  open: boolean;
  dim?: boolean;
  marked?: boolean;
  children: ReactNode;
}) {
  return (
    <Box
      flex="1"
      minW="0"
      mb="2"
      bg="raised"
      borderRadius="card"
      borderWidth="1px"
      borderColor={marked ? 'sky' : open ? 'lineStrong' : 'line'}
      outline={marked ? '1px solid' : undefined}
      outlineColor="sky"
      boxShadow={open ? 'card' : undefined}
      opacity={dim ? 0.55 : 1}
    >
      {children}
    </Box>
  );
}

interface StepProps {
  readonly ribbonId: string;
  readonly colour: string;
  /** Number of steps in the ribbon. */
  readonly count: number;
  readonly step: StepDoc;
  readonly index: number;
  readonly problem?: Problem;
  /** Copies after this step. */
  readonly note?: CopiesNote;
  /** Whether copies come in. */
  readonly copies?: boolean;
  /** Delays of copies, as fractions of the loop, joined as text. */
  readonly fan?: string;
}

/** Compares by content: both are created anew with every shape. */
const toldAlike = (a: Problem | CopiesNote | undefined, b: Problem | CopiesNote | undefined) =>
  a === b || JSON.stringify(a) === JSON.stringify(b);

/** A step: closed it shows a summary, open all its values. */
export const StepCard = memo(
  PlainStepCard,
  (a, b) =>
    toldAlike(a.problem, b.problem) &&
    toldAlike(a.note, b.note) &&
    a.step === b.step &&
    a.index === b.index &&
    a.count === b.count &&
    a.ribbonId === b.ribbonId &&
    a.colour === b.colour &&
    a.copies === b.copies &&
    a.fan === b.fan,
);

function PlainStepCard({ ribbonId, colour, count, step, index, problem, note, copies, fan = '' }: StepProps) {
  const kind = stepKind(step.kind);
  const isForm = kind.group === 'form';
  const open = useEditor((s) => s.openSteps[step.id] ?? false);
  const summary = useMemo(() => summaryOf(ribbonId, step), [ribbonId, step]);
  const head = useLive<HTMLButtonElement, string>(summary, (button, words) => {
    button.setAttribute('aria-label', `${kind.title}, ${words}`);
    button.querySelector('[data-words]')!.textContent = words;
  });
  const together = useEditor((s) => s.stepsTogether.includes(step.id));
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: step.id,
    disabled: isForm,
  });
  // With Ctrl or Shift a card joins a multiple selection.
  const toggle = (e: { ctrlKey: boolean; metaKey: boolean; shiftKey: boolean }) =>
    e.ctrlKey || e.metaKey || e.shiftKey
      ? takeTogether(step.id)
      : useEditor.setState((s) => ({ openSteps: { ...s.openSteps, [step.id]: !open } }));
  // The active step has its handles in the picture.
  const hold = () => useEditor.getState().held !== step.id && useEditor.setState({ held: step.id });
  const moving = useOfPiece(
    (piece) =>
      Object.entries(linkedStep(piece, ribbonId, step).values).find(
        ([name, v]) => kind.params[name]?.type !== 'colour' && [v].flat().some(isMoving),
      )?.[1],
  );
  const drawn = [moving].flat().find(isMoving) as NumberValue | undefined;

  const shares = useMemo(() => (fan ? fan.split(',').map(Number) : []), [fan]);

  return (
    <Fan.Provider value={shares}>
      <Flex
        ref={setNodeRef}
        align="flex-start"
        gap="2.5"
        position="relative"
        zIndex={isDragging ? 5 : undefined}
        style={{ transform: CSS.Translate.toString(transform), transition }}
        data-testid={`step-${step.kind}`}
        data-step={step.id}
        data-step-kind={step.kind}
        onPointerDownCapture={hold}
        onFocusCapture={hold}
      >
        {isForm ? (
          <Knot colour={colour}>
            <StepIcon name={kind.icon} />
          </Knot>
        ) : (
          <chakra.button
            type="button"
            ref={setActivatorNodeRef}
            {...attributes}
            {...listeners}
            aria-label={`Move ${kind.title}, place ${index + 1} of ${count}`}
            aria-roledescription="Step that can be moved"
            title="Drag to another place, or press the up and down arrow keys"
            onKeyDown={(e) => {
              const by = { ArrowUp: -1, ArrowDown: 1 }[e.key];
              if (!by) return;
              e.preventDefault();
              e.stopPropagation();
              moveStep(ribbonId, step.id, index + by);
            }}
            cursor={isDragging ? 'grabbing' : 'grab'}
            borderRadius="full"
            touchAction="none"
          >
            <Knot colour={colour} boxShadow={isDragging ? 'float' : undefined}>
              <StepIcon name={kind.icon} />
            </Knot>
          </chakra.button>
        )}
        <Card open={open} dim={!step.on} marked={together}>
          <Flex align="center" minH="38px" pl="2.5" pr="1" gap="1">
            <chakra.button
              type="button"
              ref={head}
              aria-expanded={open}
              onClick={toggle}
              flex="1"
              minW="0"
              display="flex"
              alignItems="baseline"
              gap="2"
              textAlign="left"
              cursor="pointer"
              py="2"
            >
              <Text fontWeight="600" fontSize="13.5px" whiteSpace="nowrap">
                {kind.title}
              </Text>
              <Text data-words fontSize="12px" color="muted" truncate />
            </chakra.button>
            {drawn && !open && <Drawing value={drawn} colour={colour} width={40} />}
            <StepSwitch ribbonId={ribbonId} id={step.id} title={kind.title} on={step.on} />
            <StepMenu ribbonId={ribbonId} count={count} id={step.id} of={step.kind} index={index} />
          </Flex>
          {note && !problem && <CopiesReadOut note={note} ribbonId={ribbonId} />}
          {problem && <StepTrouble problem={problem} ribbonId={ribbonId} />}
          {open && (
            <Box borderTopWidth="1px" borderColor="line" px="2.5" py="1.5">
              {copies && <CopiesChoice ribbonId={ribbonId} step={step} />}
              <ValuesPanel
                owner={{ type: 'step', ribbon: ribbonId, item: step.id }}
                params={kind.params}
                values={step.values}
                colour={colour}
              />
            </Box>
          )}
        </Card>
      </Flex>
    </Fan.Provider>
  );
}

/** A step's summary at every frame; computed only if it moves or was edited. */
function summaryOf(ribbonId: string, step: StepDoc): (s: EditorState) => string {
  const kind = stepKind(step.kind);
  let [piece, moves, words]: [Piece | null, boolean, string] = [null, false, ''];
  return (s) => {
    if (s.piece === piece && !moves) return words;
    const { values } = linkedStep(s.piece, ribbonId, step);
    if (s.piece !== piece) moves = Object.values(values).some((v) => [v].flat().some(isMoving));
    piece = s.piece;
    return (words = kind.summary(evaluateValues(kind.params, values, { frame: s.frame, frames: piece.loop.frames })));
  };
}

/** Switches a step on and off. */
const StepSwitch = memo(function StepSwitch({
  ribbonId,
  id,
  title,
  on,
}: {
  ribbonId: string;
  id: string;
  title: string;
  on: boolean;
}) {
  return (
    <PictureButton
      label={on ? `Switch ${title} off` : `Switch ${title} on`}
      color="muted"
      minW="24px"
      onClick={() => switchStep(ribbonId, id)}
    >
      {on ? <Eye size={15} /> : <EyeOff size={15} />}
    </PictureButton>
  );
});

interface MenuProps {
  readonly ribbonId: string;
  readonly count: number;
  readonly id: string;
  readonly of: string;
  readonly index: number;
}

const StepMenu = memo(function StepMenu({ ribbonId, count, id, of, index }: MenuProps) {
  const kind = stepKind(of);
  const isForm = kind.group === 'form';
  return (
    <Menu.Root positioning={{ placement: 'bottom-end' }} lazyMount>
      <Menu.Trigger asChild>
        <PictureButton label={`More for ${kind.title}`} color="muted" minW="24px">
          <Ellipsis size={15} />
        </PictureButton>
      </Menu.Trigger>
      <MenuList minW="180px">
        {isForm ? (
          stepKinds
            .filter((k) => k.group === 'form' && k.kind !== of)
            .map((k) => (
              <Menu.Item key={k.kind} value={k.kind} onClick={() => changeForm(ribbonId, k.kind)}>
                <Replace size={14} />
                Change to {k.title.toLowerCase()}
              </Menu.Item>
            ))
        ) : (
          <>
            <Menu.Item value="copy" onClick={() => copyStep(ribbonId, id, kind.title)}>
              <ClipboardCopy size={14} />
              Copy step
            </Menu.Item>
            <Menu.Item value="duplicate" onClick={() => duplicateStep(ribbonId, id)}>
              <Copy size={14} />
              Duplicate step
            </Menu.Item>
            {Object.values(kind.params).some((p) => p.type === 'number' && p.seeds) && (
              <Menu.Item value="throw" onClick={() => throwAgain(ribbonId, [id])}>
                <Dices size={14} />
                Another throw
              </Menu.Item>
            )}
            <Menu.Item value="together" onClick={() => takeTogether(id)}>
              <Group size={14} />
              Edit together with others
            </Menu.Item>
            <Menu.Item value="up" disabled={index <= 1} onClick={() => moveStep(ribbonId, id, index - 1)}>
              <ArrowUp size={14} />
              Move up
            </Menu.Item>
            <Menu.Item value="down" disabled={index >= count - 1} onClick={() => moveStep(ribbonId, id, index + 1)}>
              <ArrowDown size={14} />
              Move down
            </Menu.Item>
            <Menu.Item value="remove" color="poppyText" onClick={() => removeStep(ribbonId, id)}>
              <Trash2 size={14} />
              Remove step
            </Menu.Item>
          </>
        )}
        <Menu.Item value="about" asChild>
          <a href={`/guide/${kind.group}#${kind.kind}`} target="_blank" rel="noreferrer">
            <CircleHelp size={14} />
            About {kind.title.toLowerCase()}
          </a>
        </Menu.Item>
      </MenuList>
    </Menu.Root>
  );
});

/** Copies a step as text, with the ribbons that it names. */
function copyStep(ribbonId: string, id: string, title: string): void {
  const { piece } = useEditor.getState();
  void copyText(
    clipText('steps', stepsLook(title, piece, ribbonId, [id])),
    `${title} is copied; paste it into any piece, or into a mail.`,
  );
}
