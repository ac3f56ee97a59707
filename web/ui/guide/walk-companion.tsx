'use client';

import { Box, Flex, Portal, Text } from '@chakra-ui/react';
import type { Stop } from '@maypole/core/guide/walks';
import { X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { lookAtQueue, useRenders } from '../deliver/renders';
import { useSheet } from '../explore/sheet-store';
import { openPast, usePast } from '../explore/history-store';
import { FloatCard } from '../parts/float-card';
import { PictureButton, PlainButton, StrongButton } from '../parts/buttons';
import { useEditor } from '../state/store';
import { besideOf, type Rect } from './beside';
import { goOn, leaveWalk, resumeWalk, useWalk } from './walk-store';

/** Milliseconds between checks whether a stop is done, and before the next one appears. */
const [LOOK, PAUSE] = [250, 500];
const WIDTH = 290;

/** Guides the user: points at what is next, and waits until it is done. */
export function WalkCompanion() {
  const id = useEditor((s) => s.id);
  const { walk, at, piece } = useWalk();
  useEffect(() => resumeWalk(id), [id]);
  if (!walk || piece !== id) return null;
  return (
    <StopCard key={`${walk.id}/${at}`} stop={walk.stops[at]} count={walk.stops.length} at={at} title={walk.title} />
  );
}

interface Props {
  readonly stop: Stop;
  readonly at: number;
  readonly count: number;
  readonly title: string;
}

function StopCard({ stop, at, count, title }: Props) {
  const [before] = useState(() => useEditor.getState().piece);
  const [rect, setRect] = useState<DOMRect | null>(null);
  const [place, setPlace] = useState(() => placeOfCard(null, 150));
  const [done, setDone] = useState(false);
  const card = useRef<HTMLDivElement>(null);
  const last = at === count - 1;

  useEffect(() => {
    // Polls what the page does not watch by itself, while a stop waits for it.
    const { id } = useEditor.getState();
    const watch = setInterval(() => {
      const next = placeOf(stop);
      setRect(next);
      setPlace(placeOfCard(next, card.current?.offsetHeight ?? 150));
      if (stop.until?.(seen(before))) setDone(true);
    }, LOOK);
    const far = setInterval(() => {
      if (stop.until && useEditor.getState().drawer === 'deliver') void lookAtQueue();
      if (stop.until && useSheet.getState().open) void openPast(id);
    }, 2000);
    return () => {
      clearInterval(watch);
      clearInterval(far);
    };
  }, [stop, before]);
  useEffect(() => {
    if (!done) return;
    const timer = setTimeout(goOn, PAUSE);
    return () => clearTimeout(timer);
  }, [done]);

  const target = () => (stop.at ? document.querySelector<HTMLElement>(stop.at) : null);
  const show = () => {
    const element = target();
    element?.scrollIntoView({ block: 'nearest' });
    const first = element?.matches('button, a, input, select')
      ? element
      : element?.querySelector<HTMLElement>('button, input, select');
    first?.focus();
  };
  return (
    <Portal>
      {rect && (
        <Box
          position="fixed"
          pointerEvents="none"
          zIndex="toast"
          borderRadius="10px"
          borderWidth="2.5px"
          borderColor="marigold"
          boxShadow="0 0 0 4px color-mix(in srgb, var(--chakra-colors-marigold) 25%, transparent)"
          style={{ left: rect.left - 4, top: rect.top - 4, width: rect.width + 8, height: rect.height + 8 }}
        />
      )}
      <FloatCard
        ref={card}
        aria-label={`Walk: ${title}`}
        data-testid="walk"
        style={{ width: WIDTH, left: place.left, top: place.top }}
      >
        <Flex align="center" mb="1">
          <Text flex="1" fontSize="12px" color="muted">
            {title} · {at + 1} of {count}
          </Text>
          <PictureButton label="Leave the walk" onClick={leaveWalk}>
            <X size={15} />
          </PictureButton>
        </Flex>
        <Text role="status" fontSize="13.5px" lineHeight="1.5">
          {done ? 'Done.' : stop.words}
        </Text>
        <Flex gap="2" mt="2.5">
          {stop.at && (
            <PlainButton size="xs" onClick={show}>
              Go there
            </PlainButton>
          )}
          {last ? (
            <StrongButton size="xs" onClick={leaveWalk}>
              End the walk
            </StrongButton>
          ) : (
            <PlainButton size="xs" onClick={goOn}>
              {stop.until ? 'Skip' : 'Go on'}
            </PlainButton>
          )}
        </Flex>
      </FloatCard>
    </Portal>
  );
}

function seen(before: ReturnType<typeof useEditor.getState>['piece']) {
  const { piece, playing, drawer, light, id } = useEditor.getState();
  const { open: sheet, picked } = useSheet.getState();
  const { list } = usePast.getState();
  const renders = useRenders.getState().queue?.renders.filter((r) => r.pieceId === id && !r.estimate).length ?? 0;
  const takes = list?.filter((r) => r.mark && !r.sheet).length ?? 0;
  return {
    piece,
    before,
    playing,
    drawer,
    light,
    sheet,
    closer: picked.length > 0,
    takes,
    renders,
  };
}

function placeOf(stop: Stop): DOMRect | null {
  const element = stop.at ? document.querySelector(stop.at) : null;
  const rect = element?.getBoundingClientRect();
  return rect && rect.width > 0 && rect.height > 0 ? rect : null;
}

const placeOfCard = (target: DOMRect | null, height: number) =>
  besideOf(target, { width: WIDTH, height }, { width: window.innerWidth, height: window.innerHeight }, inUse());

/** Open menus and dialogs. */
const inUse = (): Rect[] =>
  [...document.querySelectorAll('[role="dialog"], [role="menu"], [role="listbox"]')]
    .map((e) => e.getBoundingClientRect())
    .filter((r) => r.width > 0 && r.height > 0);
