'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { describeGap, readable } from '@maypole/core/seam/check';
import { seamRatio } from '@maypole/core/seam/measure';
import type { Gap } from '@maypole/core/seam/proof';
import type { MotionDoc } from '@maypole/core/time/motion';
import { numbersOf, addressKey } from '@maypole/core/piece/addresses';
import { lengthenLoop } from '@maypole/core/piece/lengthen';
import { MAX_FRAMES } from '@maypole/core/time/loop';
import { Check } from 'lucide-react';
import dynamic from 'next/dynamic';
import { PlainButton, StrongButton } from '../parts/buttons';
import { goTo } from '../state/player';
import { proofOf } from '../state/derived';
import { useEditor } from '../state/store';
import { DrawerFrame } from './drawer';
import { PictureComparison } from './picture-comparison';

const StepsChart = dynamic(() => import('./steps-chart').then((m) => m.StepsChart), { ssr: false });

/** Whether the piece closes: proof by turns, then the geometry at frame N against frame 0. */
export function SeamDrawer() {
  const piece = useEditor((s) => s.piece);
  const measure = useEditor((s) => s.measure);
  const proof = proofOf(piece);
  const frames = piece.loop.frames;
  const worst = measure.ribbons.reduce<(typeof measure.ribbons)[number] | null>((a, r) => (!a || r.largest > a.largest ? r : a), null);
  const known = measure.state === 'gaps' || measure.state === 'complete';
  const exact = proof.moving - proof.gaps.length;
  return (
    <DrawerFrame title="Seam">
      <Text fontSize="13px" lineHeight="1.5" data-testid="seam-words">
        {measure.state === 'failed' ? (
          <>The shape could not be measured: {measure.message}</>
        ) : !known ? (
          'Measuring frame 0 against frame ' + frames + '…'
        ) : !worst || worst.largest === 0 ? (
          <>Frame {frames} is frame 0: every point of every ribbon is in the same place, to the last bit.</>
        ) : (
          <>Frame {frames} should be frame 0. Largest distance now <Mono>{readable(worst.largest)} m</Mono>, at {worst.name}.</>
        )}
      </Text>
      <Box mt="3" mb="4">
        <Text fontSize="12px" color="muted" mb="1">Step from frame to frame, seam in the middle</Text>
        {measure.state === 'complete' ? (
          <StepsChart ribbons={measure.ribbons.map((r) => ({ ...r, colour: piece.ribbons.find((x) => x.id === r.id)?.colour ?? '#888888' }))} ratio={Math.max(0, ...measure.ribbons.map((r) => seamRatio(r.steps ?? [])))} />
        ) : (
          <Flex h="128px" align="center" justify="center" bg="field" borderRadius="8px" color="muted" fontSize="12.5px" role="status">
            {measure.state === 'failed' ? 'Not measured' : `Measuring… ${Math.round(measure.progress * 100)} %`}
          </Flex>
        )}
      </Box>
      {proof.gaps.map((gap) => (
        <GapCard key={gap.key} gap={gap} frames={frames} />
      ))}
      {proof.truePeriod > frames && (
        <Text fontSize="12.5px" color="muted" lineHeight="1.5" mb="3">As it is, the piece repeats after {proof.truePeriod} frames, {proof.truePeriod / frames} times this loop.</Text>
      )}
      <Flex align="center" gap="2.5" borderWidth="1px" borderColor="line" bg="raised" borderRadius="card" px="3" py="2.5" fontSize="13px">
        <Box color="leaf"><Check size={16} /></Box>
        {proof.moving === 0 ? 'No value moves; noise closes by itself.' : `${exact} ${proof.gaps.length ? 'other ' : ''}moving ${exact === 1 ? 'value closes' : 'values close'} exactly`}
      </Flex>
      <Flex gap="2" mt="4">
        <PlainButton flex="1" onClick={() => goTo(0)}>Show frame 0</PlainButton>
        <PlainButton flex="1" onClick={() => goTo(frames)}>Show frame {frames}</PlainButton>
      </Flex>
      <PictureComparison />
    </DrawerFrame>
  );
}

function Mono({ children }: { children: React.ReactNode }) {
  return <Text as="span" fontFamily="mono" fontWeight="600" fontSize="12px" color="poppyText">{children}</Text>;
}

function GapCard({ gap, frames }: { gap: Gap; frames: number }) {
  const set = useEditor((s) => s.setValue);
  const edit = useEditor((s) => s.edit);
  // This value comes round after as many loops as its turns have in the denominator.
  const longer = frames * gap.turns.den;
  const miss = Math.abs(gap.to - gap.from);
  const repair = (turns: number) => {
    const place = numbersOf(useEditor.getState().piece).find((n) => addressKey(n.address) === gap.key);
    if (place) set(`Close ${gap.title}`, gap.address, { ...(place.value as MotionDoc), turns });
  };
  return (
    <Box borderWidth="1px" borderColor="line" bg="raised" borderRadius="card" px="3" py="2.5" mb="3" data-testid="gap">
      <Flex align="center" gap="2.5">
        <Box w="4px" h="18px" borderRadius="full" bg={gap.colour ?? 'muted'} />
        <Text fontWeight="600" fontSize="13.5px" flex="1" truncate>{gap.title}</Text>
        <Mono>{miss > 1e-9 ? `${readable(miss)} ${gap.unit} off` : 'turns back'}</Mono>
      </Flex>
      <Text fontSize="12.5px" lineHeight="1.5" mt="1.5" color="muted">{gap.place}. {describeGap(gap)}</Text>
      <Flex gap="2" mt="2" flexWrap="wrap">
        {gap.repairs.map((k, i) => {
          const words = `${k} ${Math.abs(k) === 1 ? 'turn' : 'turns'}`;
          // The nearest whole turns stand first.
          return i === 0 ? <StrongButton key={k} size="xs" onClick={() => repair(k)}>{words}</StrongButton> : <PlainButton key={k} size="xs" onClick={() => repair(k)}>{words}</PlainButton>;
        })}
        {gap.turns.den <= 12 && longer <= MAX_FRAMES && (
          <PlainButton size="xs" title="Everything goes on at its speed, for longer" onClick={() => edit('Lengthen the loop', (p) => lengthenLoop(p, gap.turns.den))}>
            Loop of {longer} frames
          </PlainButton>
        )}
      </Flex>
    </Box>
  );
}
