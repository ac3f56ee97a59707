'use client';

import { Box, Text, VisuallyHidden, chakra } from '@chakra-ui/react';
import { understand, type Understood } from '@maypole/core/say/understand';
import { useMemo } from 'react';
import { tell } from '../parts/toasts';
import { useEditor } from '../state/store';
import type { Line } from './line';
import { doLine, keepLine, lastLines, namedLine, type KeptLine } from './say-line';

interface SaidLine {
  readonly said: Understood;
  /** The name that it is to be kept by, if it says one. */
  readonly kept: KeptLine | null;
  /** The first result, if all of it is understood and says a value. */
  readonly entry: Line | null;
}

/** What is typed, understood as a line that says a thing and its values. */
export function useSaidLine(typed: string): SaidLine {
  const piece = useEditor((s) => s.piece);
  const ribbonId = useEditor((s) => s.ribbonId);
  const held = useEditor((s) => s.held);
  return useMemo(() => {
    const kept = namedLine(typed);
    const line = kept?.line ?? typed;
    const said = understand(line, { piece, ribbonId, held });
    const isWhole = said.hasValues && said.unclear.length === 0;
    const words = said.words.join('. ');
    const entry: Line | null = isWhole
      ? {
          id: 'line',
          sort: kept ? 'Keep' : 'Line',
          title: words,
          help: kept ? `Does it, and keeps the line as “${kept.name}”.` : 'Enter does it; one undo takes it back.',
          run: () => {
            if (kept) keepLine(kept);
            if (!doLine(line)) tell(kept ? `The line is kept as “${kept.name}”.` : 'It is so already.');
          },
        }
      : null;
    return { said, kept, entry };
  }, [typed, piece, ribbonId, held]);
}

/** The line before what is typed, among the last ones; undefined for none. */
export function earlier(typed: string): string | undefined {
  const lines = lastLines();
  return typed === '' ? lines[0] : lines[lines.indexOf(typed) + 1 || lines.length];
}

/** What of a line is not understood, underlined, with the nearest thing that is; aloud, also what is. */
export function LineStatus({ typed, line: { said, kept, entry } }: { typed: string; line: SaidLine }) {
  if (entry) return <VisuallyHidden role="status">{entry.title}</VisuallyHidden>;
  if (!said.hasValues || said.unclear.length === 0) return null;
  const line = kept?.line ?? typed;
  const [first] = said.unclear;
  return (
    <Box role="status" px="4" py="2" borderBottomWidth="1px" borderColor="line" fontSize="13px" lineHeight="1.5">
      <Text fontFamily="mono" overflowWrap="anywhere">
        {parts(line, said.unclear).map(({ text, clear }, i) =>
          clear ? (
            <span key={i}>{text}</span>
          ) : (
            <chakra.span key={i} textDecoration="underline wavy" textDecorationColor="poppy" textUnderlineOffset="3px">
              {text}
            </chakra.span>
          ),
        )}
      </Text>
      <Text color="muted" fontSize="12px">
        {first.why ?? `“${first.text}” is not understood.${first.guess ? ` Perhaps ${first.guess}?` : ''}`}
      </Text>
    </Box>
  );
}

/** A text in parts, those that are not understood apart. */
function parts(
  text: string,
  unclear: readonly { readonly from: number; readonly to: number }[],
): { readonly text: string; readonly clear: boolean }[] {
  const out: { text: string; clear: boolean }[] = [];
  let at = 0;
  for (const { from, to } of [...unclear].sort((a, b) => a.from - b.from)) {
    if (from < at) continue;
    out.push({ text: text.slice(at, from), clear: true }, { text: text.slice(from, to), clear: false });
    at = to;
  }
  return [...out, { text: text.slice(at), clear: true }];
}
