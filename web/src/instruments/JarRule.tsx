import { SAY } from "../words/say/instruments";
/** A jar with its marks, one millimetre to the millimetre when printed; a rule beside it. */
export function JarRule({
  marks,
  startMm,
}: {
  marks: readonly { name: string; ratio: number; mm: number }[];
  startMm: number;
}) {
  const top = Math.max(...marks.map((m) => m.mm), startMm) + 14;
  const y = (mm: number) => top - mm;
  const ticks = Array.from({ length: Math.floor(top / 10) + 1 }, (_, i) => i * 10);
  return (
    <svg
      width={`${112}mm`}
      height={`${top + 6}mm`}
      viewBox={`0 0 112 ${top + 6}`}
      role="img"
      aria-label={SAY.jarStartAtMm(startMm, marks.map((m) => `${m.name} at ${m.mm.toFixed(0)} mm`).join(", "))}
    >
      <rect x={14} y={y(startMm)} width={42} height={startMm} fill="var(--recess)" />
      <path d={`M14 4V${top - 3}q0 3 3 3h36q3 0 3 -3V4`} fill="none" stroke="var(--ink)" strokeWidth={0.8} />
      <line x1={11} x2={59} y1={4} y2={4} stroke="var(--ink)" strokeWidth={1} />
      {ticks.map((mm) => (
        <g key={mm}>
          <line x1={5} x2={mm % 50 ? 9 : 11} y1={y(mm)} y2={y(mm)} stroke="var(--ink)" strokeWidth={0.4} />
          <text x={0} y={y(mm) + 1.2} style={{ fontSize: 3.4 }}>
            {mm / 10}
          </text>
        </g>
      ))}
      <line
        x1={14}
        x2={56}
        y1={y(startMm)}
        y2={y(startMm)}
        stroke="var(--ink)"
        strokeWidth={0.5}
        strokeDasharray="1.500 1.500"
      />
      <text x={59} y={y(startMm) + 1.5} style={{ fontSize: 4.2 }}>
        start, {startMm.toFixed(0)} mm
      </text>
      {marks.map((m) => (
        <g key={m.name}>
          <line x1={11} x2={58} y1={y(m.mm)} y2={y(m.mm)} stroke="var(--ink)" strokeWidth={1} />
          <text x={59} y={y(m.mm) + 1.5} style={{ fontSize: 4.2, fontWeight: 700 }}>
            {m.name} {m.ratio} ×, {m.mm.toFixed(0)} mm
          </text>
        </g>
      ))}
    </svg>
  );
}
