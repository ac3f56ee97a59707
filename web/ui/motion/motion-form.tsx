'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { NumberParam, NumberValue, VectorParam } from '@maypole/core/declare/params';
import { addressKey, type Address } from '@maypole/core/piece/addresses';
import { motionFor, motionInto } from '@maypole/core/looks/kept-parts';
import { tellDropped } from '../looks/take-look';
import { linkedValue } from '@maypole/core/piece/link';
import type { MotionDoc } from '@maypole/core/time/motion';
import { motionKind, motionKinds } from '@maypole/core/time/motions/index';
import { formatRational, isWhole } from '@maypole/core/maths/rational';
import { closes, courseOf, evaluateNumber, isMoving } from '@maypole/core/time/value';
import { Link2 } from 'lucide-react';
import { useRef } from 'react';
import { formatNumber } from '../fields/number-field';
import { PlainButton } from '../parts/buttons';
import { tieTogether } from '../state/multi-edit';
import { LiveText } from '../state/live';
import { useEditor } from '../state/store';
import { ActionRow } from './action-row';
import { Fold } from './fold';
import { KindPicker } from './kind-picker';
import { LayersList } from './layers-list';
import { MotionClips } from './motion-clips';
import { MotionDrawing } from './motion-drawing';
import { MotionSettings } from './motion-settings';
import { TimingSettings } from './timing-settings';

interface Props {
  readonly address: Address;
  /** Other values edited together with it. */
  readonly others: readonly Address[];
  readonly param: NumberParam | VectorParam;
  readonly value: NumberValue;
  readonly label: string;
  readonly colour: string;
}

const STILL = { kind: 'still', title: 'Still', help: 'Stands still.' };

/** How a value moves: kind, settings, graph, timing, layers, repairs. */
export function MotionForm({ address, others, param, value, label, colour }: Props) {
  const setAll = useEditor((s) => s.setValues);
  const frames = useEditor((s) => s.piece.loop.frames);
  const key = addressKey(address);
  const linked = useEditor((s) => linkedValue(s.piece, address) as NumberValue);
  const preview = useEditor((s) => (s.preview?.key === key ? (s.preview.value as NumberValue) : undefined));
  // Settings return when their kind is chosen again.
  const left = useRef(new Map<string, NumberValue>());
  const kind = isMoving(value) ? value.motion : 'still';
  const nowAt = (frame: number) => evaluateNumber(linked, { frame, frames }, param.cyclic);
  const all = [address, ...others];
  const set = (title: string, next: NumberValue, gesture?: string) =>
    setAll(title, all, next, gesture && `${key}/${gesture}`);

  const choose = (next: string) => {
    if (next === kind) return;
    left.current.set(kind, value);
    const now = nowAt(useEditor.getState().frame);
    const plain = Math.max(param.min, Math.min(param.max, Number(now.toPrecision(6))));
    const fresh =
      next === 'still'
        ? param.integer
          ? Math.round(plain)
          : plain
        : ({ motion: next, ...motionKind(next).start(plain, param) } as MotionDoc);
    set(`Motion of ${label}`, left.current.get(next) ?? fresh);
    useEditor.setState({ preview: null, ...(next === 'keys' ? { openLane: key } : {}) });
  };
  const course = courseOf(linked, frames);
  const edit = (motion: MotionDoc, title: string, gesture?: string) => set(title, motion, gesture);

  return (
    <>
      <FormHead
        label={label}
        param={param}
        nowAt={nowAt}
        others={others.length}
        onTie={() => tieTogether(label, address, others, value)}
      />
      <MotionClips
        value={value}
        linked={linked}
        label={label}
        onUse={(motion, words) => {
          const into = motionInto(useEditor.getState().piece, motion);
          set(words, isMoving(into.motion) ? motionFor(into.motion, value, param, frames) : into.motion);
          tellDropped(into.dropped);
        }}
      />
      <KindPicker kinds={[STILL, ...motionKinds]} chosen={kind} onChoose={choose} />
      {!isMoving(value) ? (
        <Text mt="3" fontSize="12.5px" color="muted" lineHeight="1.5">
          Stands still over the loop. Choose how it should move.
        </Text>
      ) : (
        <>
          <MotionDrawing value={linked} preview={preview} label={label} unit={param.unit} colour={colour} />
          <Box mt="2">
            <MotionSettings motion={value} target={param} own={key} onChange={edit} />
          </Box>
          {value.motion === 'keys' && (
            <chakra.button
              type="button"
              mt="1.5"
              fontSize="12.5px"
              fontWeight="600"
              color="sky"
              cursor="pointer"
              onClick={() => useEditor.setState({ openLane: key, motionOf: null })}
            >
              Shape the keys in the lane
            </chakra.button>
          )}
          {!closes(course, param.cyclic) && !(value.motion === 'wave' && value.low === value.high) && (
            <NotClosing
              motion={value}
              turns={isWhole(course.turns) ? null : formatRational(course.turns)}
              adds={course.adds}
              unit={param.unit}
              open={course.open}
            />
          )}
          {course.by === 'measure' && !course.open && (
            <Text mt="1.5" fontSize="11.5px" color="muted">
              Turns measured, not proven.
            </Text>
          )}
          <Box mt="2.5">
            <ActionRow
              motion={value}
              linked={linked as MotionDoc}
              param={param}
              own={key}
              onApply={(motion, title) => edit(motion, title)}
            />
          </Box>
          {param.type === 'vector' && (
            <Flex mt="1.5" justify="flex-end">
              <PlainButton
                size="xs"
                title="x, y and z move like this one from now on"
                onClick={() => setAll(`${label}, all three axes`, all.flatMap(axesOf), value)}
              >
                The same for all three axes
              </PlainButton>
            </Flex>
          )}
          <Folds motion={value} param={param} colour={colour} own={key} onEdit={edit} />
        </>
      )}
    </>
  );
}

/** Name and present value, and whether others are edited with it. */
function FormHead({
  label,
  param,
  nowAt,
  others,
  onTie,
}: Pick<Props, 'label' | 'param'> & { nowAt: (frame: number) => number; others: number; onTie: () => void }) {
  return (
    <>
      <Flex justify="space-between" align="baseline" mb="2.5" gap="2">
        <Text fontFamily="heading" fontWeight="700" fontSize="15px" truncate>
          {label}
        </Text>
        <Text fontFamily="mono" fontSize="12px" color="muted" whiteSpace="nowrap" data-testid="motion-now">
          <LiveText of={(s) => `${formatNumber(nowAt(s.frame), param.step)} ${param.unit}`} />
        </Text>
      </Flex>
      {others > 0 && (
        <Flex align="center" gap="2" mb="2" fontSize="12px" color="muted">
          <Text flex="1">Edits {others + 1} values together.</Text>
          <PlainButton
            size="xs"
            title="The others follow this one from now on, so that they stay equal"
            onClick={onTie}
          >
            <Link2 size={13} />
            Tie together
          </PlainButton>
        </Flex>
      )}
    </>
  );
}

/** Layers and timing of a motion. */
function Folds({
  motion,
  param,
  colour,
  own,
  onEdit,
}: Pick<Props, 'param' | 'colour'> & {
  motion: MotionDoc;
  own: string;
  onEdit: (motion: MotionDoc, title: string, gesture?: string) => void;
}) {
  return (
    <>
      <Fold
        title="Layers"
        note={motion.layers?.length ? `${motion.layers.length}` : 'none'}
        initially={Boolean(motion.layers?.length)}
      >
        <LayersList
          layers={motion.layers ?? []}
          target={param}
          colour={colour}
          own={own}
          onChange={(layers, gesture) => onEdit({ ...motion, layers }, 'Layers', gesture)}
        />
      </Fold>
      <Fold title="Timing" note={timingWords(motion)} initially={timingWords(motion) !== 'as it is'}>
        <TimingSettings
          timing={motion.timing}
          onChange={(timing, gesture) => onEdit({ ...motion, timing }, 'Timing', gesture && `timing/${gesture}`)}
        />
      </Fold>
    </>
  );
}

/** The three numbers of a vector. */
const axesOf = ({ owner, param }: Address): Address[] => ([0, 1, 2] as const).map((axis) => ({ owner, param, axis }));

function timingWords({ timing }: MotionDoc): string {
  const words: string[] = [];
  if (timing?.shift) words.push(`shifted ${Math.round(timing.shift * 100)} %`);
  if (timing?.way && timing.way !== 'on')
    words.push({ back: 'backwards', there: 'there and back', sway: 'there and back' }[timing.way]);
  if (timing?.times && timing.times > 1) words.push(`× ${timing.times}`);
  if (timing?.rest) words.push('rests');
  return words.join(', ') || 'as it is';
}

function NotClosing({
  motion,
  turns,
  adds,
  unit,
  open,
}: {
  motion: MotionDoc;
  turns: string | null;
  adds: number;
  unit: string;
  open: boolean;
}) {
  const words = open
    ? 'This never comes round; a loop needs it to.'
    : motion.motion === 'wave' && turns
      ? `${String(motion.turns)} turns do not close; a loop needs whole turns.`
      : turns
        ? 'It takes more than one loop to come round.'
        : `It gains ${Number(adds.toPrecision(4))} ${unit} each loop, so it does not come back.`;
  return (
    <Box
      mt="2.5"
      px="2.5"
      py="2"
      borderRadius="field"
      bg="poppyWash"
      color="poppyText"
      fontSize="12px"
      lineHeight="1.4"
    >
      {words}
    </Box>
  );
}
