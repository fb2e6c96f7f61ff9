const DENT = { not_yet: 3, just: 12, past: 24 } as const;

/** A ball of dough poked with a finger: how deep the dent still is, and whether it comes back. */
export function Poke({ feel }: { feel: keyof typeof DENT }) {
  const d = DENT[feel];
  return (
    <svg width={84} height={56} viewBox="0 0 84 56" aria-hidden="true">
      <path
        d={`M4 52C4 22 16 14 30 14C36 14 36 ${14 + d} 42 ${14 + d}C48 ${14 + d} 48 14 54 14C68 14 80 22 80 52Z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <line x1={0} x2={84} y1={53} y2={53} stroke="var(--ink)" strokeWidth={3} />
      {feel !== "past" && (
        <path
          d={`M42 ${12 + d}V${feel === "not_yet" ? 2 : 8}m-4 5l4 -5l4 5`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.75}
        />
      )}
    </svg>
  );
}
