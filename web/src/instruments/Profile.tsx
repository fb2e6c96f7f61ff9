import { SAY } from "../words/say/instruments";
/** A rolled piece from the side, to scale, with its diameter. */
export function PieceProfile({
  diameterCm,
  thicknessMm,
  width,
}: {
  diameterCm: number;
  thicknessMm: number;
  width: number;
}) {
  const scale = Math.min((width - 40) / (diameterCm * 10), 2.2);
  const w = diameterCm * 10 * scale;
  const h = Math.max(thicknessMm * scale, 1.5);
  const left = (width - w) / 2;
  return (
    <svg
      width={width}
      height={86}
      role="img"
      aria-label={SAY.cmAcrossMmThickDrawnTo(diameterCm.toFixed(0), thicknessMm.toFixed(1))}
    >
      <line x1={left} x2={left + w} y1={22} y2={22} stroke="var(--hair-2)" strokeWidth={1.5} />
      <path d={`M${left} 15v14M${left + w} 15v14`} stroke="var(--hair-2)" strokeWidth={1.5} />
      <text x={width / 2} y={28} textAnchor="middle" className="mono halo strong">
        {diameterCm.toFixed(diameterCm % 1 ? 1 : 0)} cm
      </text>
      <path
        d={`M${left} 66v${-h * 0.6}q2 ${-h * 0.4} 8 ${-h * 0.4}h${w - 16}q6 0 8 ${h * 0.4}v${h * 0.6}z`}
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth={2}
      />
      <line x1={left - 10} x2={left + w + 10} y1={67} y2={67} stroke="var(--ink)" strokeWidth={3} />
    </svg>
  );
}

/** The outline of a bread on its surface, 190 by 66: flat at 0, a full pocket at 1. */
export function swellPath(share: number): string {
  const h = 6 + share * 38;
  return `M20 57C20 ${57 - h * 1.2} 60 ${57 - h * 1.25} 95 ${57 - h * 1.25}S170 ${57 - h * 1.2} 170 57Z`;
}

/** A bread from the side while it bakes: flat, bubbling, swelling, full. */
export function Swell({ share, width = 190 }: { share: number; width?: number }) {
  return (
    <svg width={width} height={(width * 70) / 190} viewBox="0 0 190 70" aria-hidden="true">
      <rect x={0} y={58} width={190} height={8} fill="#A23718" stroke="var(--ink)" strokeWidth={1.5} />
      <path d={swellPath(share)} fill="#EFE8D8" stroke="#21272A" strokeWidth={2.5} />
    </svg>
  );
}
