'use client';

import { Flex, Text, chakra } from '@chakra-ui/react';
import { stepKind } from '@maypole/core/steps/index';
import { Gauge } from 'lucide-react';
import { tell } from '../parts/toasts';
import { useReadiness } from '../state/geometry';
import { session } from '../state/session';
import { useEditor } from '../state/store';
import { SubframesChoice } from './subframes-choice';

/** Draft or final, and how much of the loop is evaluated. Below true light, refinement is invisible and not shown. */
export function DetailBar({ beneath, narrow }: { beneath: boolean; narrow: boolean }) {
  const detail = useEditor((s) => s.detail);
  const frames = useEditor((s) => s.piece.loop.frames);
  const fps = useEditor((s) => s.piece.loop.fps);
  const rate = useEditor((s) => s.rate);
  const { count, full, failed, failure, slow: long, stopped } = useReadiness();
  const slow = rate !== null && rate < fps * 0.93;
  const words =
    long > 0
      ? `One shape takes ${long} s by now`
      : stopped > 0
        ? 'Stopped, since it took long'
        : failed > 0
          ? `${failed} ${failed === 1 ? 'shape' : 'shapes'} could not be made`
          : full
            ? `${count} of ${frames} frames fit in memory`
            : count < frames
              ? `${count} of ${frames} frames ready${slow ? `, playing ${rate.toFixed(0)} of ${fps} fps meanwhile` : ''}`
              : slow
                ? `Drawing reaches ${rate.toFixed(0)} of ${fps} fps here`
                : 'all frames ready';
  return (
    <Flex
      align="center"
      bg="panel"
      borderRadius="8px"
      boxShadow="card"
      fontSize="12.5px"
      overflow="hidden"
      whiteSpace="nowrap"
    >
      <chakra.button
        type="button"
        aria-label={`Detail: ${detail}. Switch to ${detail === 'draft' ? 'final' : 'draft'}`}
        title="Switch between draft and final detail"
        display="flex"
        alignItems="center"
        gap="2"
        px="3"
        py="1.5"
        fontWeight="600"
        cursor="pointer"
        _hover={{ bg: 'field' }}
        onClick={() => useEditor.setState({ detail: detail === 'draft' ? 'final' : 'draft' })}
      >
        <Gauge size={15} />
        {detail === 'draft' ? 'Draft' : 'Final'}
        {!narrow && ' detail'}
      </chakra.button>
      <Text
        role="status"
        px="3"
        color={failed > 0 ? 'poppyText' : slow || full || long > 0 || stopped > 0 ? 'marigoldText' : 'muted'}
        title={failure}
        borderLeftWidth="1px"
        borderColor="line"
        fontVariantNumeric="tabular-nums"
        data-testid="readiness"
      >
        {words}
      </Text>
      {!beneath && <SubframesChoice narrow={narrow} />}
      {long > 0 ? (
        <BarAction words="Stop it" onClick={stopSlow} />
      ) : stopped > 0 ? (
        <BarAction words="Work it out" onClick={() => session()?.engine.retry()} />
      ) : (
        failed > 0 && <BarAction words="Try again" onClick={() => session()?.engine.retry()} />
      )}
    </Flex>
  );
}

/** Stops the slow shape and switches off the step it was at: one undo brings it back. */
function stopSlow() {
  const steps = session()?.engine.stopSlow() ?? [];
  const { piece, edit, undo } = useEditor.getState();
  const found = piece.ribbons.flatMap((r) => r.steps.filter((s, i) => i > 0 && s.on && steps.includes(s.id)));
  if (found.length === 0) return;
  const titles = found.map((s) => stepKind(s.kind).title).join(', ');
  const ids = new Set(found.map((s) => s.id));
  const made = edit(`Stop ${titles}`, (p) => ({
    ...p,
    ribbons: p.ribbons.map((r) =>
      r.steps.some((s) => ids.has(s.id))
        ? { ...r, steps: r.steps.map((s) => (ids.has(s.id) ? { ...s, on: false } : s)) }
        : r,
    ),
  }));
  if (made)
    tell(`${titles} took long and ${found.length === 1 ? 'is' : 'are'} switched off.`, {
      label: 'Undo',
      onClick: undo,
    });
}

function BarAction({ words, onClick }: { words: string; onClick: () => void }) {
  return (
    <chakra.button
      type="button"
      px="3"
      py="1.5"
      fontWeight="600"
      cursor="pointer"
      borderLeftWidth="1px"
      borderColor="line"
      _hover={{ bg: 'field' }}
      onClick={onClick}
    >
      {words}
    </chakra.button>
  );
}
