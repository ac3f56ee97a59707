'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import { useState } from 'react';
import { shownLight, useQuickLight } from '../state/quick-light';
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
  const missing = useQuickLight((s) => s.missing) !== null;
  const light = useEditor(shownLight);
  return (
    <BarChoice
      label="Light"
      named
      value={light}
      options={missing ? LIGHTS.filter((l) => l.value === 'true') : LIGHTS}
      onChange={(chosen) => useEditor.setState({ light: chosen })}
    >
      {light === 'true' && <TrueLightSettings leftOut={traced?.type === 'picture' ? traced.leftOut : null} />}
    </BarChoice>
  );
}

/** Says that nothing but true light draws here; on demand, what to do about it. */
export function QuickLightNote({ words }: { words: string }) {
  const [open, setOpen] = useState(false);
  return (
    <Box
      maxW="400px"
      minH="34px"
      bg="panel"
      borderRadius="8px"
      boxShadow="card"
      px="3"
      py="1.5"
      fontSize="12.5px"
      lineHeight="1.5"
      pointerEvents="auto"
    >
      <Flex gap="3">
        <Text role="status" color="muted">
          No quick light here: true light draws
        </Text>
        <chakra.button
          type="button"
          fontWeight="600"
          cursor="pointer"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          Why?
        </chakra.button>
      </Flex>
      {open && <Text mt="1">{words}</Text>}
    </Box>
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
