'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { addressKey, isColourPlace, type Owner } from '@maypole/core/piece/addresses';
import { Magnet, ZoomIn, ZoomOut } from 'lucide-react';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { PictureButton } from '../parts/buttons';
import { useChoice } from '../parts/use-choice';
import type { SelfMoving } from '@maypole/core/piece/self-moving';
import { movingOf, selfMoving, type MovingPlace } from '../state/derived';
import { useEditor } from '../state/store';
import { CurveEditor } from './curve-editor';
import { LaneCurve, LaneName } from './lane-row';
import { mainPart, seamsBetween, toldApart } from './lane-math';
import { LANE, NAMES, OPEN_LANE, USUAL_SPAN, panTime, useLaneView, viewFrom, zoomTime } from './lane-view';
import { Playhead, scrub } from './playhead';
import { Ruler } from './ruler';
import { SelfLane } from './self-lane';

/** Lanes of the whole piece, or of the open ribbon. */
const LANES_OF = ['piece', 'ribbon'] as const;

const isOf = (owner: Owner, ribbon: string | null) => 'ribbon' in owner && owner.ribbon === ribbon;

/** Every moving value over the loop, with faded neighbouring loops, so that the seam is visible from both sides. */
export function Lanes() {
  const all = useEditor((s) => movingOf(s.piece));
  const only = useLaneView((s) => s.only);
  const chosen = useEditor((s) => s.ribbonId);
  const itself = useEditor((s) => selfMoving(s.piece));
  const ofRibbon = only === 'piece' ? null : chosen;
  const selves = useMemo(
    () => (ofRibbon === null ? itself : itself.filter((n) => isOf(n.owner, ofRibbon))),
    [itself, ofRibbon],
  );
  const shown = useMemo(
    () => (ofRibbon === null ? all : all.filter((n) => isOf(n.address.owner, ofRibbon))),
    [all, ofRibbon],
  );
  return (
    <Flex direction="column" flex="1" minW="0">
      <LanesHead shown={shown.length + selves.length} all={all.length + itself.length} />
      {shown.length + selves.length === 0 ? (
        <Flex flex="1" align="center" justify="center" color="muted" fontSize="13px" px="6" textAlign="center">
          {all.length + itself.length === 0
            ? 'Click the dashed line beside any value to make it move; it is then drawn here over the loop.'
            : 'Nothing of this ribbon moves yet.'}
        </Flex>
      ) : (
        <>
          <Ruler />
          <LaneList places={shown} selves={selves} />
        </>
      )}
    </Flex>
  );
}

const LanesHead = memo(function LanesHead({ shown, all }: { shown: number; all: number }) {
  const only = useLaneView((s) => s.only);
  const { group, option } = useChoice(LANES_OF, only, (w) => useLaneView.setState({ only: w }));
  const snap = useLaneView((s) => s.snap);
  const middle = useLaneView((s) => Math.abs(s.centre - Math.round(s.centre)) < 0.01);
  const zoomed = useLaneView((s) => s.span !== USUAL_SPAN);
  return (
    <Flex h="34px" align="center" px="3" gap="2" borderBottomWidth="1px" borderColor="line" flexShrink={0}>
      <Text fontWeight="600" fontSize="12.5px">
        Moving
      </Text>
      <Text fontSize="12.5px" color="muted" whiteSpace="nowrap">
        {all === 0 ? 'nothing yet' : shown === all ? `${all} ${all === 1 ? 'thing' : 'things'}` : `${shown} of ${all}`}
      </Text>
      <Flex {...group} aria-label="Which lanes" bg="field" borderRadius="6px" p="2px" ml="1">
        {LANES_OF.map((w) => (
          <chakra.button
            key={w}
            {...option(w)}
            px="2"
            h="24px"
            fontSize="11.5px"
            borderRadius="5px"
            cursor="pointer"
            bg={only === w ? 'raised' : undefined}
            color={only === w ? 'ink' : 'muted'}
            fontWeight={only === w ? 600 : 500}
          >
            {w === 'piece' ? 'All' : 'This ribbon'}
          </chakra.button>
        ))}
      </Flex>
      <Box flex="1" />
      <chakra.button
        type="button"
        h="24px"
        fontSize="12px"
        color="muted"
        cursor="pointer"
        whiteSpace="nowrap"
        _hover={{ color: 'ink' }}
        onClick={() => useLaneView.setState({ centre: middle ? 0.5 : 0 })}
        title="Turns the lanes round by half a loop"
      >
        {middle ? 'Seam at the sides' : 'Seam in the middle'}
      </chakra.button>
      <PictureButton
        label={snap ? 'Keys snap to frames' : 'Keys go anywhere'}
        aria-pressed={snap}
        color={snap ? 'ink' : 'muted'}
        bg={snap ? 'field' : undefined}
        onClick={() => useLaneView.setState({ snap: !snap })}
      >
        <Magnet size={15} />
      </PictureButton>
      <PictureButton
        label="Less time, larger"
        color="muted"
        onClick={() => zoomTime(0.7, useLaneView.getState().centre)}
      >
        <ZoomIn size={15} />
      </PictureButton>
      <PictureButton
        label="More time, smaller"
        color="muted"
        onClick={() => zoomTime(1 / 0.7, useLaneView.getState().centre)}
      >
        <ZoomOut size={15} />
      </PictureButton>
      {zoomed && (
        <chakra.button
          type="button"
          fontSize="12px"
          color="muted"
          cursor="pointer"
          _hover={{ color: 'ink' }}
          onClick={() => useLaneView.setState({ span: USUAL_SPAN, centre: middle ? 0 : 0.5, valueZoom: 1 })}
        >
          Whole loop
        </chakra.button>
      )}
    </Flex>
  );
});

/** Only visible lanes are rendered, so that a hundred scroll as smoothly as three. */
const LaneList = memo(function LaneList({
  places,
  selves,
}: {
  places: readonly MovingPlace[];
  selves: readonly SelfMoving[];
}) {
  const openLane = useEditor((s) => s.openLane);
  const holder = useRef<HTMLDivElement>(null);
  const [view, setView] = useState({ top: 0, height: 200 });
  useEffect(() => {
    const element = holder.current!;
    const look = () => setView({ top: element.scrollTop, height: element.clientHeight });
    const wheel = (e: WheelEvent) => {
      const box = element.getBoundingClientRect();
      const s = useLaneView.getState();
      const width = box.width - NAMES;
      if (e.ctrlKey || e.metaKey) {
        e.preventDefault();
        zoomTime(
          Math.exp(e.deltaY * 0.002),
          viewFrom(s) + (Math.max(0, e.clientX - box.left - NAMES) / width) * s.span,
        );
      } else if (e.altKey) {
        e.preventDefault();
        useLaneView.setState({ valueZoom: Math.max(0.1, Math.min(20, s.valueZoom * Math.exp(-e.deltaY * 0.002))) });
      } else if (e.shiftKey || Math.abs(e.deltaX) > Math.abs(e.deltaY)) {
        e.preventDefault();
        panTime(((e.deltaX || e.deltaY) / width) * s.span);
      }
    };
    const observer = new ResizeObserver(look);
    observer.observe(element);
    element.addEventListener('scroll', look);
    // React's own listener is passive and could not keep the page from zooming.
    element.addEventListener('wheel', wheel, { passive: false });
    look();
    return () => {
      observer.disconnect();
      element.removeEventListener('scroll', look);
      element.removeEventListener('wheel', wheel);
    };
  }, []);

  const open = places.findIndex((p) => addressKey(p.address) === openLane && !isColourPlace(p));
  useEffect(() => {
    if (open >= 0) holder.current!.scrollTop = open * LANE;
  }, [open]);
  const topOf = (i: number) => i * LANE + (open >= 0 && i > open ? OPEN_LANE : 0);
  const own = topOf(places.length);
  const total = own + selves.length * LANE;
  const also = useMemo(() => toldApart([...places, ...selves]), [places, selves]);
  const first = places.findIndex((_, i) => topOf(i + 1) > view.top - 80);
  const rows: { place: MovingPlace; i: number }[] = [];
  for (let i = Math.max(0, first); i < places.length && topOf(i) < view.top + view.height + 80; i++)
    rows.push({ place: places[i], i });
  return (
    <Box ref={holder} flex="1" minH="0" overflowY="auto" overflowX="hidden" data-testid="lanes">
      <Box position="relative" minH="100%" style={{ height: total }}>
        <Backdrop />
        {rows.map(({ place, i }) => (
          <Box
            key={addressKey(place.address)}
            position="absolute"
            left="0"
            right="0"
            style={{ top: topOf(i) }}
            borderBottomWidth="1px"
            borderColor="line/60"
          >
            <Flex>
              <LaneName place={place} open={i === open} also={also[i]} />
              <Box
                flex="1"
                minW="0"
                position="relative"
                cursor="pointer"
                touchAction="none"
                onPointerDown={scrub}
                onPointerMove={scrub}
              >
                <LaneCurve place={place} />
                <Veils />
              </Box>
            </Flex>
            {i === open && <CurveEditor place={place as Extract<MovingPlace, { param: { unit: string } }>} />}
          </Box>
        ))}
        {selves.map((self, i) => (
          <Box
            key={self.key}
            position="absolute"
            left="0"
            right="0"
            style={{ top: own + i * LANE }}
            borderBottomWidth="1px"
            borderColor="line/60"
            data-testid="self-lane"
          >
            <SelfLane self={self} also={also[places.length + i]} />
          </Box>
        ))}
        <Box position="absolute" top="0" bottom="0" right="0" pointerEvents="none" style={{ left: NAMES }}>
          <Playhead />
        </Box>
      </Box>
    </Box>
  );
});

/** The background of the lanes: the loop in the middle, darker neighbours, dashed seams. */
const Backdrop = memo(function Backdrop() {
  const from = useLaneView(viewFrom);
  const span = useLaneView((s) => s.span);
  const share = (t: number) => `${((t - from) / span) * 100}%`;
  const [a, b] = mainPart(from, span);
  return (
    <Box position="absolute" top="0" bottom="0" right="0" bg="band" overflow="hidden" style={{ left: NAMES }}>
      <Box
        position="absolute"
        top="0"
        bottom="0"
        bg="raised"
        style={{ left: share(a), width: `${((b - a) / span) * 100}%` }}
      />
      {seamsBetween(from, from + span).map((k) => (
        <Box
          key={k}
          position="absolute"
          top="0"
          bottom="0"
          borderLeftWidth="1px"
          borderStyle="dashed"
          borderColor="ink"
          style={{ left: share(k) }}
        />
      ))}
    </Box>
  );
});

/** Fades neighbouring loops. */
const Veils = memo(function Veils() {
  const from = useLaneView(viewFrom);
  const span = useLaneView((s) => s.span);
  const [a, b] = mainPart(from, span);
  const veil = {
    position: 'absolute',
    top: '0',
    bottom: '0',
    bg: 'band',
    opacity: 0.62,
    pointerEvents: 'none',
  } as const;
  return (
    <>
      <Box {...veil} left="0" style={{ width: `${((a - from) / span) * 100}%` }} />
      <Box {...veil} right="0" style={{ width: `${((from + span - b) / span) * 100}%` }} />
    </>
  );
});
