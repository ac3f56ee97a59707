'use client';

import { Box, Text } from '@chakra-ui/react';
import { exampleOf } from '@maypole/core/guide/examples';
import { useEffect, useMemo, useRef, useState } from 'react';
import { drawExample } from '@/engine/draw/example-strips';
import type { Strip } from '@/engine/draw/contact-sheet';
import { StripCanvas } from '../explore/strip-canvas';

/** What a step does, playing; drawn once it is in sight. */
export function ExamplePicture({ kind, label }: { kind: string; label: string }) {
  const box = useRef<HTMLDivElement>(null);
  const [strip, setStrip] = useState<Strip | null>(null);
  const [trouble, setTrouble] = useState('');
  const piece = useMemo(() => exampleOf(kind), [kind]);
  useEffect(() => {
    let seen = false;
    let ended = false;
    const observer = new IntersectionObserver((entries) => {
      const now = entries.some((e) => e.isIntersecting);
      if (now && !seen)
        void drawExample(
          kind,
          () => piece,
          () => seen && !ended,
          (s) => !ended && setStrip(s),
        ).catch((e: unknown) => !ended && setTrouble(e instanceof Error ? e.message : 'No picture'));
      seen = now;
    });
    observer.observe(box.current!);
    return () => {
      ended = true;
      observer.disconnect();
    };
  }, [kind, piece]);
  return (
    <Box ref={box} aspectRatio="1" bg="field" borderRadius="10px" overflow="hidden" data-testid="example">
      {strip ? (
        <StripCanvas strip={strip} loop={piece.loop} label={label} />
      ) : (
        <Text fontSize="12px" color="muted" p="3">
          {trouble}
        </Text>
      )}
    </Box>
  );
}
