'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { readable, applyRepair, type Finding, type Repair } from '@maypole/core/seam/finding';
import { seamRatio } from '@maypole/core/seam/measure';
import { Check } from 'lucide-react';
import dynamic from 'next/dynamic';
import { PlainButton, StrongButton } from '../parts/buttons';
import { verdictOf, whatCloses } from '../state/derived';
import { goTo } from '../state/player';
import { showValue } from '../state/show-value';
import { useEditor } from '../state/store';
import { DrawerFrame } from './drawer';
import { PictureComparison } from './picture-comparison';

const StepsChart = dynamic(() => import('./steps-chart').then((m) => m.StepsChart), { ssr: false });

/** Whether the piece closes: what its motions prove, then the shapes at frame N against frame 0. */
export function SeamDrawer() {
  const piece = useEditor((s) => s.piece);
  const measure = useEditor((s) => s.measure);
  const { findings, gaps } = verdictOf(measure);
  const { proof } = measure;
  const { frames } = piece.loop;
  return (
    <DrawerFrame title="Seam">
      <ShapeWords />
      <Box mt="3" mb="4">
        <Text fontSize="12px" color="muted" mb="1">
          Step from frame to frame, seam in the middle
        </Text>
        {measure.state === 'complete' ? (
          <StepsChart
            ribbons={measure.ribbons.map((r) => ({
              ...r,
              colour: piece.ribbons.find((x) => x.id === r.id)?.colour ?? '#888888',
            }))}
            ratio={Math.max(0, ...measure.ribbons.map((r) => seamRatio(r.steps ?? [])))}
          />
        ) : (
          <Flex
            h="128px"
            align="center"
            justify="center"
            bg="field"
            borderRadius="8px"
            color="muted"
            fontSize="12.5px"
            role="status"
          >
            {measure.state === 'failed' ? 'Not measured' : `Measuring… ${Math.round(measure.progress * 100)} %`}
          </Flex>
        )}
      </Box>
      {findings.map((f) => (
        <FindingCard key={`${f.key}/${f.kind}`} finding={f} />
      ))}
      {proof && gaps > 0 && proof.truePeriod !== frames && (
        <Text fontSize="12.5px" color="muted" lineHeight="1.5" mb="3">
          {proof.truePeriod === null
            ? 'As it is, the piece never repeats.'
            : `As it is, the piece repeats after ${proof.truePeriod} frames, ${proof.truePeriod / frames} times this loop.`}
        </Text>
      )}
      <Flex
        align="center"
        gap="2.5"
        borderWidth="1px"
        borderColor="line"
        bg="raised"
        borderRadius="card"
        px="3"
        py="2.5"
        fontSize="13px"
      >
        <Box color="leaf">
          <Check size={16} />
        </Box>
        {whatCloses(piece, findings)}
      </Flex>
      <Flex gap="2" mt="4">
        <PlainButton flex="1" onClick={() => goTo(0)}>
          Show frame 0
        </PlainButton>
        <PlainButton flex="1" onClick={() => goTo(frames)}>
          Show frame {frames}
        </PlainButton>
      </Flex>
      <PictureComparison />
    </DrawerFrame>
  );
}

/** What the shapes show. */
function ShapeWords() {
  const measure = useEditor((s) => s.measure);
  const frames = useEditor((s) => s.piece.loop.frames);
  const open = measure.ribbons
    .filter((r) => r.closure.how === 'open')
    .sort((a, b) => b.closure.byPoint.largest - a.closure.byPoint.largest);
  const permuted = measure.ribbons.filter((r) => r.closure.how === 'permuted');
  const turning = measure.ribbons.filter((r) => r.closure.goesOn === false);
  const rounding = measure.ribbons.some((r) => r.closure.how === 'rounding');
  const words =
    measure.state === 'failed' ? (
      <>The shape could not be measured: {measure.message}</>
    ) : measure.state === 'measuring' ? (
      `Measuring frame 0 against frame ${frames}${measure.at ? `: ${measure.at}` : ''}…`
    ) : open.length > 0 ? (
      <>
        Frame {frames} should be frame 0. Largest distance now{' '}
        <Mono>{readable(open[0].closure.byPoint.largest)} m</Mono>, at {open[0].name}.
        {measure.state === 'shapes' && measure.at?.startsWith('looking') && ` ${sentence(measure.at)}…`}
      </>
    ) : turning.length > 0 ? (
      <>
        Frame {frames} is where frame 0 is, but {turning.map((r) => r.name).join(', ')}{' '}
        {turning.length === 1 ? 'turns' : 'turn'} round there.
      </>
    ) : permuted.length > 0 ? (
      <>
        Frame {frames} looks like frame 0: the parts of {permuted.map((r) => r.name).join(', ')} have changed places,
        and together are the same.
      </>
    ) : rounding ? (
      <>Frame {frames} is frame 0, up to the rounding of the last digit.</>
    ) : (
      <>Frame {frames} is frame 0: every point of every ribbon is in the same place, to the last bit.</>
    );
  return (
    <Text fontSize="13px" lineHeight="1.5" data-testid="seam-words">
      {words}
    </Text>
  );
}

const sentence = (words: string) => words.charAt(0).toUpperCase() + words.slice(1);

function Mono({ children, tone = 'poppyText' }: { children: React.ReactNode; tone?: string }) {
  return (
    <Text as="span" fontFamily="mono" fontWeight="600" fontSize="12px" color={tone} whiteSpace="nowrap">
      {children}
    </Text>
  );
}

function sizeOf(f: Finding): { words: string; tone: string } {
  const unit = f.unit ? ` ${f.unit}` : '';
  if (f.closedToTheEye) return { words: 'closed to the eye', tone: 'leafText' };
  if (f.pending) return { words: 'measuring', tone: 'muted' };
  switch (f.kind) {
    case 'gap':
      return {
        words: f.miss > 1e-9 ? `${readable(f.miss)}${unit} off` : f.stored ? 'turns back' : 'open',
        tone: 'poppyText',
      };
    case 'turn':
      return { words: 'turns round', tone: 'marigoldText' };
    case 'speed':
      return { words: `${readable(Math.abs(f.speedAfter - f.speedBefore))}${unit}/frame`, tone: 'marigoldText' };
    case 'pause':
      return { words: 'stops and starts', tone: 'marigoldText' };
    case 'lost':
      return { words: 'follows nothing', tone: 'marigoldText' };
  }
}

function FindingCard({ finding }: { finding: Finding }) {
  const { words, tone } = sizeOf(finding);
  return (
    <Box
      borderWidth="1px"
      borderColor="line"
      bg="raised"
      borderRadius="card"
      px="3"
      py="2.5"
      mb="3"
      data-testid={finding.kind === 'gap' && !finding.closedToTheEye && !finding.pending ? 'gap' : 'note'}
    >
      <Flex
        align="center"
        gap="2.5"
        as="button"
        w="100%"
        textAlign="left"
        cursor={finding.address ? 'pointer' : 'default'}
        title="Show where it is"
        onClick={() => finding.address && showValue(finding.address)}
      >
        <Box w="4px" h="18px" borderRadius="full" bg={finding.colour ?? 'muted'} flexShrink={0} />
        <Text fontWeight="600" fontSize="13.5px" flex="1" truncate>
          {finding.title}
        </Text>
        <Mono tone={tone}>{words}</Mono>
      </Flex>
      <Text fontSize="12.5px" lineHeight="1.5" mt="1.5" color="muted">
        {finding.place}. {finding.words}
        {finding.closedToTheEye
          ? ' But the form looks the same there, so nothing of it is seen.'
          : finding.pending
            ? ' The shapes will show whether anything of it is seen.'
            : ''}
      </Text>
      {!finding.closedToTheEye && !finding.pending && (
        <Flex gap="2" mt="2" flexWrap="wrap">
          {/** The first is best: the nearest whole turns, or the form's own symmetry. */}
          {finding.repairs.map((r, i) => (
            <RepairButton key={r.words} repair={r} first={i === 0} finding={finding} />
          ))}
        </Flex>
      )}
    </Box>
  );
}

function RepairButton({ repair, first, finding }: { repair: Repair; first: boolean; finding: Finding }) {
  const Shape = first ? StrongButton : PlainButton;
  const set = repair.set?.[0];
  // Hovering previews its motion in the lane and the popover.
  const show = (on: boolean) =>
    useEditor.setState({
      preview: on && set && repair.set?.length === 1 ? { key: finding.key, value: set.value } : null,
    });
  const act = () => {
    show(false);
    useEditor
      .getState()
      .edit(repair.lengthen ? 'Lengthen the loop' : `${repair.words}: ${finding.title}`, (p) => applyRepair(p, repair));
  };
  return (
    <Shape
      size="xs"
      title={repair.help}
      onClick={act}
      onMouseEnter={() => show(true)}
      onMouseLeave={() => show(false)}
      onFocus={() => show(true)}
      onBlur={() => show(false)}
    >
      {repair.words}
    </Shape>
  );
}
