'use client';

import { Box, Text, chakra } from '@chakra-ui/react';
import type { ColourValue, NumberValue } from '@maypole/core/declare/params';
import { addressKey, isColourPlace } from '@maypole/core/piece/addresses';
import { colourCourse } from '@maypole/core/time/colours/index';
import type { MotionDoc } from '@maypole/core/time/motion';
import { motionKind } from '@maypole/core/time/motions/index';
import { formatRational, isWhole } from '@maypole/core/maths/rational';
import { closes, courseOf } from '@maypole/core/time/value';
import { ChevronDown, ChevronRight } from 'lucide-react';
import { memo, useMemo } from 'react';
import { colourStrip, rangeOf, valuePath } from '../fields/drawing';
import type { MovingPlace } from '../state/derived';
import { shownColour } from '../parts/shown-colour';
import { toggleLane } from '../state/show-value';
import { useEditor } from '../state/store';
import { LaneLabel } from './lane-label';
import { LANE, NAMES, useLaneView, viewFrom } from './lane-view';

/** A motion in a few words, and whether it closes. */
function laneWords(place: MovingPlace, frames: number): { words: string; closed: boolean } {
  const motion = place.value as MotionDoc;
  if (isColourPlace(place)) {
    const { turns } = colourCourse(place.value, frames);
    return {
      words:
        motion.motion === 'follow'
          ? 'follows'
          : `${formatRational(turns)} ${turns.num === 1 && isWhole(turns) ? 'turn' : 'turns'}`,
      closed: isWhole(turns),
    };
  }
  const course = courseOf(place.value, frames);
  const { cyclic } = place.param;
  const closed = closes(course, cyclic);
  const turns = isWhole(course.turns)
    ? formatRational(course.turns)
    : `${Number((course.turns.num / course.turns.den).toFixed(3))}`;
  const gain =
    course.adds !== 0 && cyclic
      ? `${course.adds > 0 ? '+' : ''}${Number((course.adds / cyclic).toFixed(3))} ${Math.abs(course.adds) === cyclic ? 'turn' : 'turns'}`
      : '';
  const layered = motion.layers?.some((l) => l.on) ? ' +' : '';
  const kind = motionKind(motion.motion);
  const words =
    gain || kind.words?.(motion) || (kind.turns ? `${turns} ${turns === '1' ? 'turn' : 'turns'}` : motion.motion);
  return { words: `${words}${layered}`, closed };
}

/** The name of a lane: a click opens and closes it for editing. */
export const LaneName = memo(function LaneName({
  place,
  open,
  also,
}: {
  place: MovingPlace;
  open: boolean;
  also?: string;
}) {
  const frames = useEditor((s) => s.piece.loop.frames);
  const { words, closed } = laneWords(place, frames);
  return (
    <chakra.button
      type="button"
      display="flex"
      alignItems="center"
      gap="1.5"
      w={`${NAMES}px`}
      h={`${LANE}px`}
      pl="1.5"
      pr="2.5"
      textAlign="left"
      cursor="pointer"
      aria-expanded={open}
      aria-label={`Lane of ${place.title}, ${words}`}
      title={`${place.place}: ${place.title}. ${open ? 'Close the lane' : 'Open the lane to shape it'}`}
      onClick={() => toggleLane(place.address)}
    >
      <Box color="muted" flexShrink={0}>
        {open ? <ChevronDown size={13} /> : <ChevronRight size={13} />}
      </Box>
      <Box
        w="4px"
        h="20px"
        borderRadius="full"
        bg={place.colour ? shownColour(place.colour) : 'muted'}
        flexShrink={0}
      />
      <LaneLabel of={place.of} name={place.name} also={also} />
      <Text fontFamily="mono" fontSize="11px" color={closed ? 'muted' : 'poppyText'} whiteSpace="nowrap">
        {words}
      </Text>
    </chakra.button>
  );
});

/** A moving value over the visible time. */
export const LaneCurve = memo(function LaneCurve({ place }: { place: MovingPlace }) {
  const frames = useEditor((s) => s.piece.loop.frames);
  const span = useLaneView((s) => s.span);
  const from = useLaneView(viewFrom);
  const preview = useEditor((s) => (s.preview?.key === addressKey(place.address) ? s.preview.value : undefined));
  return isColourPlace(place) ? (
    <Box h={`${LANE}px`} py="12px">
      <Box
        h="16px"
        role="img"
        aria-label={`${place.title} over the loop`}
        style={{ background: colourStrip(place.value as ColourValue, frames, from, from + span, 60) }}
      />
    </Box>
  ) : (
    <NumberCurve
      value={place.value}
      title={place.title}
      colour={place.colour ? shownColour(place.colour) : 'var(--chakra-colors-muted)'}
      frames={frames}
      from={from}
      span={span}
      preview={preview as NumberValue | undefined}
    />
  );
});

function NumberCurve({
  value,
  title,
  colour,
  frames,
  from,
  span,
  preview,
}: {
  value: NumberValue;
  title: string;
  colour: string;
  frames: number;
  from: number;
  span: number;
  preview?: NumberValue;
}) {
  const range = useMemo(() => {
    const own = rangeOf(value, frames);
    if (preview === undefined) return own;
    const other = rangeOf(preview, frames);
    return { low: Math.min(own.low, other.low), high: Math.max(own.high, other.high) };
  }, [value, preview, frames]);
  const options = { frames, from, to: from + span, samples: 380, pad: 7, range };
  const path = useMemo(() => valuePath(value, 1000, LANE, options), [value, frames, from, span, range]); // eslint-disable-line react-hooks/exhaustive-deps -- options is made of these
  return (
    <svg
      width="100%"
      height={LANE}
      viewBox={`0 0 1000 ${LANE}`}
      preserveAspectRatio="none"
      role="img"
      aria-label={`${title} over the loop`}
      style={{ display: 'block' }}
    >
      <path
        d={path}
        fill="none"
        stroke={colour}
        strokeWidth="2"
        vectorEffect="non-scaling-stroke"
        opacity={preview === undefined ? 1 : 0.4}
      />
      {preview !== undefined && (
        <path
          d={valuePath(preview, 1000, LANE, options)}
          fill="none"
          stroke="var(--chakra-colors-ink)"
          strokeWidth="1.8"
          strokeDasharray="5 3"
          vectorEffect="non-scaling-stroke"
          data-testid="preview"
        />
      )}
    </svg>
  );
}
