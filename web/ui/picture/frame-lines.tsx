'use client';

import { Box } from '@chakra-ui/react';
import { GUIDES, useGuides, within } from '../state/guides';

const LINE = 'rgba(120,120,120,.75)';

/** The edge of the delivered picture, as four quiet corners, and guide lines within it. */
export function FrameLines({
  width,
  height,
  aspect,
  label,
}: {
  /** Shares of the viewport that the frame fills. */
  width: number;
  height: number;
  /** Width / height of the delivered picture. */
  aspect: number;
  label: string;
}) {
  const shown = useGuides((s) => s.shown);
  const inset = {
    left: `${(1 - width) * 50}%`,
    right: `${(1 - width) * 50}%`,
    top: `${(1 - height) * 50}%`,
    bottom: `${(1 - height) * 50}%`,
  };
  const corner = { position: 'absolute', w: '14px', h: '14px', borderColor: LINE } as const;
  return (
    <Box position="absolute" style={inset} pointerEvents="none" title={label} data-testid="frame-lines">
      <Box {...corner} left="0" top="0" borderLeftWidth="1px" borderTopWidth="1px" />
      <Box {...corner} right="0" top="0" borderRightWidth="1px" borderTopWidth="1px" />
      <Box {...corner} left="0" bottom="0" borderLeftWidth="1px" borderBottomWidth="1px" />
      <Box {...corner} right="0" bottom="0" borderRightWidth="1px" borderBottomWidth="1px" />
      {shown.includes('thirds') && <Cross at={[33.333, 66.667]} />}
      {shown.includes('middle') && <Cross at={[50]} />}
      {GUIDES.filter((g) => g.aspect !== null && shown.includes(g.id)).map((g) => (
        <Inner key={g.id} title={g.id} {...within(aspect, g.aspect!)} />
      ))}
    </Box>
  );
}

/** Lines across at shares of the frame. */
function Cross({ at }: { at: readonly number[] }) {
  return (
    <svg width="100%" height="100%" style={{ position: 'absolute', inset: 0 }} aria-hidden="true">
      {at.map((p) => (
        <g key={p} stroke={LINE} strokeWidth="1" opacity="0.7">
          <line x1={`${p}%`} x2={`${p}%`} y1="0" y2="100%" />
          <line y1={`${p}%`} y2={`${p}%`} x1="0" x2="100%" />
        </g>
      ))}
    </svg>
  );
}

/** Another format within the frame. */
function Inner({ title, width, height }: { title: string; width: number; height: number }) {
  return (
    <Box
      position="absolute"
      borderWidth="1px"
      borderStyle="dashed"
      borderColor={LINE}
      style={{
        left: `${(1 - width) * 50}%`,
        right: `${(1 - width) * 50}%`,
        top: `${(1 - height) * 50}%`,
        bottom: `${(1 - height) * 50}%`,
      }}
    >
      <Box
        position="absolute"
        left="1"
        bottom="0.5"
        px="1"
        fontSize="10px"
        fontFamily="mono"
        color="white"
        bg="rgba(60,60,60,.55)"
        borderRadius="3px"
      >
        {title}
      </Box>
    </Box>
  );
}
