/** Two ribbons braided round a pole. */
export function Logo({ size = 28 }: { size?: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 32 32" fill="none" aria-hidden="true">
      <path d="M16 3v26" stroke="currentColor" strokeWidth="2" strokeLinecap="round" />
      <path
        d="M9.5 10c0 4.5 13 6.5 13 12 0 4-6.5 4.5-6.5 4.5"
        stroke="var(--chakra-colors-poppy)"
        strokeWidth="3"
        strokeLinecap="round"
      />
      <path
        d="M22.5 10c0 4.5-13 6.5-13 12 0 4 6.5 4.5 6.5 4.5"
        stroke="var(--chakra-colors-sky)"
        strokeWidth="3"
        strokeLinecap="round"
      />
      <path
        d="M9.5 10c0-4 6.5-4.5 6.5-4.5S22.5 6 22.5 10"
        stroke="var(--chakra-colors-marigold)"
        strokeWidth="3"
        strokeLinecap="round"
      />
    </svg>
  );
}
