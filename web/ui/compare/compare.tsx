'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { comparePieces } from '@maypole/core/explore/differences';
import { loopSeconds } from '@maypole/core/time/loop';
import { Pause, Play, X } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { FilmPair } from '@/engine/draw/film';
import { canvas2d } from '@/view/stage/canvas-2d';
import { PictureButton } from '../parts/buttons';
import { Choice } from '../parts/choice';
import { useOverEditor } from '../state/over-editor';
import { closeCompare, useCompare, type Side } from './compare-store';
import { canvasSize, paint, STRONGER, WAYS, type CompareWay } from './paint';
import { SidePicker } from './side-picker';

/** Two versions side by side, one wiped over the other, or their difference. Covers the editor. */
export function Compare() {
  const sides = useCompare((s) => s.sides);
  const [way, setWay] = useState<CompareWay>('beside');
  useOverEditor(closeCompare);
  if (!sides) return null;
  return (
    <Flex
      role="region"
      aria-label="Compare"
      direction="column"
      position="absolute"
      inset="52px 0 0 0"
      zIndex="docked"
      bg="paper"
      data-testid="compare"
    >
      <Flex align="center" gap="3" px="4" h="52px" flexShrink={0} bg="panel" borderBottomWidth="1px" borderColor="line">
        <SidePicker at={0} side={sides[0]} />
        <Text color="muted" fontSize="13px">
          with
        </Text>
        <SidePicker at={1} side={sides[1]} />
        <Box flex="1" />
        <Choice
          label="How to compare"
          value={way}
          options={(Object.keys(WAYS) as CompareWay[]).map((value) => ({ value, title: WAYS[value] }))}
          onChange={(v) => setWay(v as CompareWay)}
        />
        <PictureButton label="Close comparing" onClick={closeCompare}>
          <X size={17} />
        </PictureButton>
      </Flex>
      <Flex flex="1" minH="0">
        <Pictures key={sides.map((s) => s.source).join()} sides={sides} way={way} />
        <Words sides={sides} />
      </Flex>
    </Flex>
  );
}

/** The two films on a common clock. */
function Pictures({ sides, way }: { sides: readonly [Side, Side]; way: CompareWay }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [pair, setPair] = useState<FilmPair | null>(null);
  const [there, setThere] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  const [playing, setPlaying] = useState(() => !window.matchMedia('(prefers-reduced-motion: reduce)').matches);
  const [wipe, setWipe] = useState(0.5);
  /** Seconds since the first frame of both. */
  const clock = useRef(0);
  const place = useRef<HTMLInputElement>(null);
  const lengths = useMemo(() => sides.map((s) => loopSeconds(s.piece.loop)), [sides]);

  useEffect(() => {
    const made = new FilmPair([sides[0].piece, sides[1].piece]);
    setPair(made);
    void made
      .draw(() => setThere((n) => n + 1))
      .catch((e: unknown) => setTrouble(e instanceof Error ? e.message : 'These could not be drawn.'));
    return () => made.dispose();
  }, [sides]);

  useEffect(() => {
    if (!pair) return;
    let last = performance.now();
    const tick = (now: number) => {
      if (playing) clock.current = (clock.current + (now - last) / 1000) % (lengths[0] * 10_000);
      last = now;
      const context = canvas.current && canvas2d(canvas.current);
      if (context) paint(context, pair.films, [clock.current / lengths[0], clock.current / lengths[1]], way, wipe);
      if (place.current) place.current.value = String((clock.current / lengths[0]) % 1);
      asked = requestAnimationFrame(tick);
    };
    let asked = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(asked);
  }, [pair, playing, way, wipe, lengths]);

  if (!pair) return <Box flex="1" />;
  const { width, height } = canvasSize(pair.films, way);
  const all = pair.films.reduce((n, f) => n + f.pictures.length, 0);
  return (
    <Flex flex="1" minW="0" direction="column" px="6" py="4" gap="3">
      <Box flex="1" minH="0" position="relative" display="flex" alignItems="center" justifyContent="center">
        <canvas
          ref={canvas}
          width={width}
          height={height}
          role="img"
          aria-label={way === 'beside' ? 'Both, beside each other' : WAYS[way]}
          style={{ position: 'absolute', inset: 0, width: '100%', height: '100%', objectFit: 'contain' }}
        />
      </Box>
      <Text role="status" fontSize="12.5px" color={trouble ? 'poppyText' : 'muted'} textAlign="center">
        {trouble ??
          (there < all
            ? `${there} of ${all} pictures drawn`
            : way === 'difference'
              ? `What differs, ${STRONGER} times as strong; black is the same`
              : lengths[0] === lengths[1]
                ? 'Both in step'
                : 'Each at its own length')}
      </Text>
      {way === 'wipe' && (
        <Flex>
          <Slider label="Where the second begins" from={0.5} onChange={setWipe} />
        </Flex>
      )}
      <Flex align="center" gap="3">
        <PictureButton label={playing ? 'Pause both' : 'Play both'} onClick={() => setPlaying(!playing)}>
          {playing ? <Pause size={16} /> : <Play size={16} />}
        </PictureButton>
        <Slider
          label="Place in the loop"
          from={0}
          field={place}
          onChange={(share) => {
            setPlaying(false);
            clock.current = share * lengths[0];
          }}
        />
      </Flex>
    </Flex>
  );
}

interface SliderProps {
  readonly label: string;
  readonly from: number;
  readonly field?: RefObject<HTMLInputElement | null>;
  readonly onChange: (share: number) => void;
}

/** A fraction. Uncontrolled: playback moves it sixty times a second, without a render. */
function Slider({ label, from, field, onChange }: SliderProps) {
  return (
    <chakra.input
      ref={field}
      type="range"
      min={0}
      max={1}
      step={0.001}
      aria-label={label}
      defaultValue={from}
      onChange={(e) => onChange(Number(e.target.value))}
      flex="1"
      css={{ accentColor: 'var(--chakra-colors-ink)' }}
    />
  );
}

/** Most lines of differences. */
const MOST_SAID = 200;

function Words({ sides }: { sides: readonly [Side, Side] }) {
  const said = useMemo(() => comparePieces(sides[0].piece, sides[1].piece), [sides]);
  return (
    <Box
      as="aside"
      aria-label="What differs"
      w="300px"
      flexShrink={0}
      overflowY="auto"
      px="4"
      py="3"
      bg="panel"
      borderLeftWidth="1px"
      borderColor="line"
      tabIndex={0}
    >
      <Text fontWeight="600" fontSize="13.5px" mb="1.5">
        {said.length === 0
          ? 'Nothing differs'
          : `${said.length} ${said.length === 1 ? 'thing differs' : 'things differ'}`}
      </Text>
      {said.slice(0, MOST_SAID).map((d, i) => (
        <Box key={i} py="1.5" borderTopWidth="1px" borderColor="line">
          <Text fontSize="12.5px" truncate title={`${d.what}, ${d.place}`}>
            {d.what}
          </Text>
          <Text fontSize="11.5px" color="muted" truncate>
            {d.place}
          </Text>
          <Text fontSize="11.5px" fontFamily="mono" truncate title={d.from ? `${d.from} → ${d.to}` : d.to}>
            {d.from ? `${d.from} → ${d.to}` : d.to}
          </Text>
        </Box>
      ))}
    </Box>
  );
}
