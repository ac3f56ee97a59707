'use client';

import { Box, Flex, Text } from '@chakra-ui/react';
import { outputs } from '@maypole/core/output/index';
import type { FileReport } from '@maypole/render/check/report';
import { PlainButton } from '../parts/buttons';
import { RoundChart } from './round-chart';

/** The report on an output that was read back: in words, in figures, and its seam. */
export function FileReportView({
  kind,
  report,
  onRepair,
}: {
  kind: string;
  report: FileReport;
  onRepair?: (title: string, values: Record<string, string | number | boolean>) => void;
}) {
  const { words, sound, facts, round, repairs } = report;
  return (
    <Box borderTopWidth="1px" borderColor="line" mt="2" pt="2" data-testid="file-report">
      <Text fontSize="12.5px" lineHeight="1.5" color={sound ? 'ink' : 'poppyText'}>
        {words}
      </Text>
      {round && round.file.length > 1 && <RoundChart round={round} />}
      {round && (
        <Fact
          title="Worst picture"
          found={round.worstPsnr >= 99 ? 'just as its frame' : `${round.worstPsnr.toFixed(1)} dB from its frame`}
        />
      )}
      {round && Math.abs(round.brightness) >= 0.05 && (
        <Fact
          title="Brightness at the seam"
          found={`${round.brightness > 0 ? '+' : '−'}${Math.abs(round.brightness).toFixed(2)} of 255`}
        />
      )}
      {facts.map((f, i) => (
        <Fact key={i} title={f.title} found={f.found} wanted={f.wanted} />
      ))}
      {onRepair && repairs && repairs.length > 0 && (
        <Flex gap="1.5" mt="2" flexWrap="wrap" align="center">
          <Text fontSize="12px" color="muted">
            Try
          </Text>
          {repairs.map((r) => (
            <PlainButton
              key={r.title}
              size="xs"
              onClick={() => onRepair(`${outputs.get(kind).title}: ${r.title}`, { ...r.values })}
            >
              {r.title}
            </PlainButton>
          ))}
        </Flex>
      )}
    </Box>
  );
}

function Fact({ title, found, wanted }: { title: string; found: string; wanted?: string }) {
  return (
    <Flex justify="space-between" gap="3" fontSize="12px" py="0.5" color={wanted ? 'poppyText' : 'muted'}>
      <Text flexShrink={0}>{title}</Text>
      <Text textAlign="right" fontVariantNumeric="tabular-nums" minW="0" overflowWrap="anywhere">
        {found}
        {wanted && `, not ${wanted}`}
      </Text>
    </Flex>
  );
}
