'use client';

import { Flex } from '@chakra-ui/react';
import { useEditor } from '../state/store';
import { BarChoice } from './bar-choice';
import { aboutTime, type Traced } from './traced';
import { TrueLightSettings } from './true-light-settings';

const LIGHTS = [
  { value: 'quick', title: 'Quick', help: 'Drawn by the graphics card, at once' },
  { value: 'true', title: 'True', help: 'Every ray followed, while the picture stands still' },
] as const;

/** The light of the still picture. */
export function LightSwitch({ traced }: { traced: Traced | null }) {
  const light = useEditor((s) => s.light);
  return (
    <BarChoice
      label="Light"
      named
      value={light}
      options={LIGHTS}
      onChange={(chosen) => useEditor.setState({ light: chosen })}
    >
      {light === 'true' && <TrueLightSettings leftOut={traced?.type === 'picture' ? traced.leftOut : null} />}
    </BarChoice>
  );
}

/** Its progress. */
export function TrueLightNote({ traced }: { traced: Traced }) {
  return (
    <Flex
      role="status"
      align="center"
      minH="34px"
      bg="panel"
      borderRadius="8px"
      boxShadow="card"
      px="3"
      fontSize="12.5px"
      color="muted"
      whiteSpace="nowrap"
      fontVariantNumeric="tabular-nums"
      pointerEvents="auto"
      data-testid="traced"
    >
      {wordsOf(traced)}
    </Flex>
  );
}

function wordsOf(traced: Traced): string {
  if (traced.type === 'loop') {
    if (traced.frames === 0) return 'tracing the loop…';
    return traced.frames < traced.of ? `${traced.frames} of ${traced.of} frames traced` : 'the loop is traced';
  }
  const { samples, of, good, left } = traced;
  if (samples === 0) return 'following rays…';
  if (good >= 1) return 'every pixel is done';
  const share = good > 0 ? `, ${Math.floor(100 * good)} % good` : '';
  return `${samples} of ${of} samples${share}${left === null ? '' : `, ${aboutTime(left)} left`}`;
}
