import styled from "styled-components";

export interface TrayBread {
  round: number;
  name: string;
  mark: string;
  pocket: string | null;
  colour: string | null;
}
const SPOTS: Record<string, number> = { pale: 4, right: 14, dark: 30 };

const Disc = styled.button`
  border: 0;
  background: none;
  padding: 6px 4px 8px;
  display: grid;
  justify-items: center;
  gap: 4px;
  min-height: 88px;
  font: 500 16px/1.1 var(--text);
  &[aria-pressed="true"] {
    background: var(--brass-wash);
    box-shadow: inset 0 -4px 0 var(--brass);
  }
  &:hover {
    box-shadow: inset 0 -4px 0 var(--brass);
  }
`;
const Pan = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(124px, 1fr));
  gap: 6px 10px;
  background: var(--recess);
  border: 2.5px solid var(--ink);
  padding: 14px;
  position: relative;
  outline: 1px solid var(--hair-2);
  outline-offset: -8px;
`;

/** One disc per bread: browning marks on top, its profile beneath, and the words. */
export function Tray({
  breads,
  chosen,
  named = false,
  onChoose,
}: {
  breads: readonly TrayBread[];
  chosen: number | null;
  /** Whether each says its name: several kinds lie on it. */
  named?: boolean;
  onChoose: (round: number) => void;
}) {
  return (
    <Pan>
      {breads.map((b) => (
        <Disc
          key={b.round}
          type="button"
          aria-pressed={chosen === b.round}
          onClick={() => onChoose(b.round)}
          aria-label={`${b.name}: ${b.pocket ?? "not judged"}${b.colour ? `, ${b.colour}` : ""}`}
        >
          <Face bread={b} />
          {named && <b>{b.name}</b>}
          <span>{b.pocket ? `${b.pocket}${b.colour ? `, ${b.colour}` : ""}` : (b.colour ?? "judge")}</span>
        </Disc>
      ))}
    </Pan>
  );
}

function Face({ bread }: { bread: TrayBread }) {
  const count = bread.colour ? SPOTS[bread.colour]! : 0;
  const marks = Array.from({ length: count }, (_, i) => {
    const angle = i * 2.399963 + bread.round;
    const radius = 8 + 34 * Math.sqrt((i + 0.6) / Math.max(count, 1));
    return { x: 52 + radius * Math.cos(angle), y: 52 + radius * Math.sin(angle), turn: (angle * 57) % 180 };
  });
  const shape =
    bread.pocket === "full"
      ? "M6 128C10 106 94 106 98 128Z"
      : bread.pocket === "part"
        ? "M6 128V124H46C50 108 92 108 98 128Z"
        : "M6 128V123H98V128Z";
  return (
    <svg width="104" height="132" viewBox="0 0 104 132" aria-hidden="true">
      <circle
        cx="52"
        cy="52"
        r="48"
        fill="var(--paper)"
        stroke="var(--ink)"
        strokeWidth="2.500"
        strokeDasharray={bread.pocket ? undefined : "6 5"}
      />
      {marks.map((m, i) =>
        bread.colour === "pale" ? (
          <circle key={i} cx={m.x} cy={m.y} r="2.500" fill="none" stroke="var(--ink-2)" strokeWidth="1.500" />
        ) : (
          <ellipse
            key={i}
            cx={m.x}
            cy={m.y}
            rx="4.500"
            ry="2.800"
            transform={`rotate(${m.turn} ${m.x} ${m.y})`}
            fill="var(--ink)"
          />
        ),
      )}
      <circle cx="52" cy="52" r="17" fill="var(--paper)" />
      <text x="52" y="62" textAnchor="middle" className="round">
        {bread.mark}
      </text>
      {bread.pocket && <path d={shape} fill="var(--ink)" />}
      <line x1="0" x2="104" y1="129" y2="129" stroke="var(--hair-2)" strokeWidth="2" />
    </svg>
  );
}
