import { Jar } from "./Jar";

/** The small vessel on the Bench: an empty bowl before mixing, the jar once it rises. */
export function Vessel({
  ratio,
  target,
  doughC,
  mark = "ready",
}: {
  ratio: number | null;
  target: number | null;
  doughC: number | null;
  mark?: string;
}) {
  if (ratio === null || target === null) {
    return (
      <svg width="130" height="124" viewBox="0 0 130 124" aria-hidden="true">
        <path d="M6 34h118c0 46-26 68-59 68S6 80 6 34z" fill="var(--paper)" stroke="var(--ink)" strokeWidth="2.500" />
        <line x1="0" x2="130" y1="34" y2="34" stroke="var(--ink)" strokeWidth="3" />
        <path d="M44 110h42" stroke="var(--ink)" strokeWidth="5" />
        <path d="M22 122v-12h86v12" fill="none" stroke="var(--ink)" strokeWidth="2" />
      </svg>
    );
  }
  const top = Math.max(target * 1.25, ratio * 1.05);
  const y = (r: number) => 178 - ((r - 0.35) / (top - 0.35)) * 168;
  return (
    <svg width="130" height="188" viewBox="-26 0 142 188" aria-hidden="true">
      <Jar y={y} bottom={186} top={10} width={92} level={ratio} ready={target} tooFar={null} doughC={doughC ?? 21} />
      <text x="46" y={y(target) - 6} textAnchor="middle">
        {mark}
      </text>
    </svg>
  );
}
