'use client';

import { Box, Flex, Text, chakra } from '@chakra-ui/react';
import type { Round } from '@maypole/render/check/report';

/** Most bars. */
const MOST = 120;
const [WIDTH, HEIGHT] = [300, 56];

/**
 * The maximum of each interval, so that no step is lost if there are more steps than bars; the seam, if any (`first` ≥
 * 0), keeps its own bar.
 */
function thinned(values: readonly number[], first: number): { value: number; seam: boolean }[] {
  // Centres the seam, so that the steps before and after it stand beside it.
  const n = values.length;
  const half = Math.floor(n / 2);
  const turned = Array.from({ length: n }, (_, i) => {
    const at = first < 0 ? i : (((first - half + i) % n) + n) % n;
    return { value: values[at], seam: at === first };
  });
  if (n <= MOST) return turned;
  const by = Math.ceil(n / MOST);
  const out: { value: number; seam: boolean }[] = [];
  for (let i = 0; i < n;) {
    if (turned[i].seam) {
      out.push(turned[i++]);
      continue;
    }
    let [most, k] = [0, 0];
    while (k < by && i < n && !turned[i].seam) {
      most = Math.max(most, turned[i++].value);
      k++;
    }
    out.push({ value: most, seam: false });
  }
  return out;
}

/**
 * Differences between successive pictures of a file as bars, over those of its frames as a line; the seam in the
 * middle.
 */
export function RoundChart({ round }: { round: Round }) {
  // Part of a loop is not played round: there is no step from its end to its beginning.
  const open = round.seams.length === 0;
  const steps = (of: readonly number[]) => (open ? of.slice(0, -1) : of);
  const [own, frames] = [steps(round.file), steps(round.made)];
  const seam = open ? -1 : round.seams[0];
  const file = thinned(own.slice(0, frames.length || undefined), seam);
  const made = thinned(frames.slice(0, own.length), seam);
  const most = Math.max(0.01, ...file.map((b) => b.value), ...made.map((b) => b.value));
  const step = WIDTH / file.length;
  const y = (v: number) => HEIGHT - (v / most) * (HEIGHT - 4);
  return (
    <Box my="2">
      <chakra.svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT + 2}`}
        w="100%"
        h="64px"
        preserveAspectRatio="none"
        role="img"
        aria-label={`Steps from picture to picture; the largest is ${most.toFixed(2)} of 255`}
        data-testid="round-chart"
      >
        {file.map((b, i) => (
          <chakra.rect
            key={i}
            x={i * step + step * 0.12}
            width={step * 0.76}
            y={y(b.value)}
            height={HEIGHT - y(b.value)}
            fill={b.seam ? 'poppy' : 'sky'}
            opacity={b.seam ? 1 : 0.55}
          />
        ))}
        {made.map((b, i) => (
          <chakra.line
            key={i}
            x1={i * step}
            x2={(i + 1) * step}
            y1={y(b.value)}
            y2={y(b.value)}
            stroke="ink"
            strokeWidth="1"
            vectorEffect="non-scaling-stroke"
          />
        ))}
      </chakra.svg>
      <Flex justify="space-between" fontSize="11px" color="muted">
        <Text>Bars: the file. Lines: its frames.</Text>
        {open ? (
          <Text>A part of the loop has no seam</Text>
        ) : (
          <Text>
            <chakra.span color="poppyText">Seam</chakra.span> in the middle
          </Text>
        )}
      </Flex>
    </Box>
  );
}
