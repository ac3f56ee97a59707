'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { addressKey } from '@maypole/core/piece/addresses';
import type { NumberPlace } from '@maypole/core/piece/addresses';
import { formatRational, isWhole } from '@maypole/core/time/rational';
import { isMoving, turnsOf } from '@maypole/core/time/value';
import { useMemo, useRef, type PointerEvent } from 'react';
import { valuePath } from '../fields/drawing';
import { goTo } from '../state/player';
import { movingOf } from '../state/derived';
import { useEditor } from '../state/store';

/** Share of a neighbour loop that is drawn, faded, on each side. */
const SIDE = 0.15;
const SPAN = 1 + 2 * SIDE;
const LANE = 40;

/** Every moving value over the loop, the neighbour loops faded on both sides, so the seam is seen from both. */
export function Lanes() {
  const frames = useEditor((s) => s.piece.loop.frames);
  const moving = useEditor((s) => movingOf(s.piece));
  const area = useRef<HTMLDivElement>(null);
  const scrub = (event: PointerEvent) => {
    if (event.type === 'pointermove' && event.buttons === 0) return;
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId);
    const box = area.current!.getBoundingClientRect();
    const share = ((event.clientX - box.left) / box.width) * SPAN - SIDE;
    goTo(Math.max(0, Math.min(frames - 1, Math.round(share * frames))));
  };
  return (
    <Flex direction="column" flex="1" minW="0">
      <Flex h="34px" align="center" px="3" gap="3" borderBottomWidth="1px" borderColor="line" flexShrink={0}>
        <Text fontWeight="600" fontSize="12.5px">Moving</Text>
        <Text fontSize="12.5px" color="muted">{moving.length === 0 ? 'nothing yet' : `${moving.length} ${moving.length === 1 ? 'value' : 'values'}`}</Text>
      </Flex>
      {moving.length === 0 ? (
        <Flex flex="1" align="center" justify="center" color="muted" fontSize="13px" px="6" textAlign="center">
          Click the dashed line beside any value to make it move; it is then drawn here over the loop.
        </Flex>
      ) : (
        <Box flex="1" overflowY="auto" overflowX="hidden">
          <Flex minH="100%">
            <Box w="186px" flexShrink={0} bg="panel">
              {moving.map((n) => (
                <LaneName key={addressKey(n.address)} place={n} />
              ))}
            </Box>
            <Box ref={area} flex="1" position="relative" bg="band" cursor="pointer" touchAction="none" onPointerDown={scrub} onPointerMove={scrub} minW="0">
              <Box position="absolute" top="0" bottom="0" bg="raised" left={`${(SIDE / SPAN) * 100}%`} right={`${(SIDE / SPAN) * 100}%`} borderXWidth="1px" borderStyle="dashed" borderColor="ink" />
              {moving.map((n) => (
                <Lane key={addressKey(n.address)} place={n} />
              ))}
              <Playhead />
            </Box>
          </Flex>
        </Box>
      )}
    </Flex>
  );
}

function LaneName({ place }: { place: NumberPlace }) {
  const turns = turnsOf(place.value);
  const motion = isMoving(place.value) ? place.value : null;
  const words = motion?.motion === 'wave' ? `${isWhole(turns) ? formatRational(turns) : Number((turns.num / turns.den).toFixed(3))} ${turns.num === 1 && isWhole(turns) ? 'turn' : 'turns'}` : `seed ${motion?.seed}`;
  return (
    <chakra.button
      type="button"
      display="flex"
      alignItems="center"
      gap="2"
      w="100%"
      h={`${LANE}px`}
      px="3"
      textAlign="left"
      cursor="pointer"
      title={`${place.place}: ${place.title}`}
      onClick={() => {
        const { owner } = place.address;
        if (owner.type === 'scene') useEditor.setState({ drawer: 'scene', motionOf: place.address });
        else
          useEditor.setState((s) => ({
            ribbonId: owner.ribbon,
            motionOf: place.address,
            openSteps: { ...s.openSteps, [owner.type === 'step' ? owner.step : `${owner.ribbon}/finish`]: true },
          }));
      }}
    >
      <Box w="4px" h="20px" borderRadius="full" bg={place.colour ?? 'muted'} flexShrink={0} />
      <Text fontSize="12.5px" truncate flex="1">{place.title}</Text>
      <Text fontFamily="mono" fontSize="11px" color={isWhole(turns) ? 'muted' : 'poppyText'} whiteSpace="nowrap">{words}</Text>
    </chakra.button>
  );
}

function Lane({ place }: { place: NumberPlace }) {
  const paths = useMemo(() => {
    const part = (from: number, to: number, samples: number) => valuePath(place.value, 1000 * (to - from), LANE, { from, to, samples, pad: 6 });
    return { before: part(-SIDE, 0, 48), loop: part(0, 1, 320), after: part(1, 1 + SIDE, 48) };
  }, [place.value]);
  const colour = place.colour ?? 'var(--chakra-colors-muted)';
  const line = { fill: 'none', stroke: colour, strokeWidth: 2, vectorEffect: 'non-scaling-stroke' } as const;
  return (
    <Box position="relative" h={`${LANE}px`} borderBottomWidth="1px" borderColor="line/60">
      <svg width="100%" height={LANE} viewBox={`0 0 ${1000 * SPAN} ${LANE}`} preserveAspectRatio="none" role="img" aria-label={`${place.title} over the loop`}>
        <path d={paths.before} {...line} opacity="0.35" />
        <g transform={`translate(${1000 * SIDE} 0)`}><path d={paths.loop} {...line} /></g>
        <g transform={`translate(${1000 * (1 + SIDE)} 0)`}><path d={paths.after} {...line} opacity="0.35" /></g>
      </svg>
    </Box>
  );
}

function Playhead() {
  const share = useEditor((s) => s.frame / s.piece.loop.frames);
  const left = ((Math.max(-SIDE, Math.min(1 + SIDE, share)) + SIDE) / SPAN) * 100;
  return <Box position="absolute" top="0" bottom="0" w="2px" ml="-1px" bg="poppy" pointerEvents="none" style={{ left: `${left}%` }} />;
}
