import { type KeyboardEvent, type PointerEvent, useRef } from "react";
import styled from "styled-components";

export interface TrayBread {
  round: number;
  name: string;
  mark: string;
  pocket: string | null;
  colour: string | null;
  /** Other words that were said of it. */
  also: readonly string[];
}
const SPOTS: Record<string, number> = { pale: 4, right: 14, dark: 30 };

const Disc = styled.button`
  border: 0;
  background: none;
  padding: 6px 2px 8px 4px;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 2px 8px;
  align-items: start;
  text-align: left;
  min-height: 88px;
  font: 500 16px/1.15 var(--text);
  touch-action: pan-y;
  .no {
    font: 700 26px/1 var(--name);
    display: block;
  }
  .words {
    overflow-wrap: anywhere;
  }
  .short {
    font-weight: 700;
  }
  &[aria-pressed="true"] {
    background: var(--brass-wash);
    box-shadow: inset 0 -5px 0 var(--brass);
  }
  &:hover {
    box-shadow: inset 0 -5px 0 var(--brass);
  }
`;
const Pan = styled.div`
  @media (max-width: 600px) {
    && {
      grid-template-columns: repeat(auto-fill, minmax(76px, 1fr));
      gap: 2px;
      padding: 10px 8px;
      outline-offset: -5px;
    }
    button {
      grid-template-columns: auto minmax(0, 1fr);
      gap: 0 3px;
      min-height: 76px;
      padding: 4px 0 6px 2px;
      font-size: 14px;
    }
    button svg {
      width: 38px;
      height: 48px;
    }
    .no {
      font-size: 22px;
    }
    .words {
      display: contents;
    }
    .words .no {
      align-self: center;
    }
    .words > :not(.no) {
      grid-column: 1 / -1;
    }
    .words > br {
      display: none;
    }
  }
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(136px, 1fr));
  gap: 4px 8px;
  background: var(--recess);
  border: 2.5px solid var(--ink);
  padding: 12px;
  outline: 1px solid var(--hair-2);
  outline-offset: -8px;
  user-select: none;
`;

/**
 * One disc per bread: browning marks on top, its profile beneath, and the words. One is chosen by a press or the arrow
 * keys, several by dragging across or with Shift.
 */
export function Tray({
  breads,
  chosen,
  onChoose,
  onKey,
}: {
  breads: readonly TrayBread[];
  chosen: readonly number[];
  onChoose: (rounds: number[]) => void;
  /** Any other key, for what is judged by key. */
  onKey?: (key: string) => boolean;
}) {
  const from = useRef<number | null>(null);
  const rounds = breads.map((b) => b.round);
  const between = (a: number, b: number) => {
    const [i, j] = [rounds.indexOf(a), rounds.indexOf(b)].sort((p, q) => p - q) as [number, number];
    return rounds.slice(i, j + 1);
  };
  const under = (e: PointerEvent) =>
    Number(document.elementFromPoint(e.clientX, e.clientY)?.closest("[data-round]")?.getAttribute("data-round") ?? NaN);
  const head = chosen.at(-1);
  const keyed = (e: KeyboardEvent<HTMLElement>) => {
    const at = rounds.indexOf(head ?? rounds[0]!);
    const to = { ArrowRight: at + 1, ArrowLeft: at - 1, Home: 0, End: rounds.length - 1 }[e.key];
    if (to !== undefined && rounds[to] !== undefined) {
      onChoose(e.shiftKey ? [...chosen.filter((n) => n !== rounds[to]), rounds[to]] : [rounds[to]]);
      e.currentTarget.querySelector<HTMLElement>(`[data-round="${rounds[to]}"]`)?.focus();
    } else if (e.key === "a" && (e.ctrlKey || e.metaKey)) onChoose(rounds);
    else if (!onKey?.(e.key)) return;
    e.preventDefault();
  };
  return (
    <Pan
      role="group"
      aria-label="The breads"
      onKeyDown={keyed}
      onPointerMove={(e) => {
        const to = under(e);
        if (from.current !== null && e.buttons === 1 && !Number.isNaN(to) && to !== from.current)
          onChoose(between(from.current, to));
      }}
      onPointerUp={() => (from.current = null)}
      onPointerLeave={() => (from.current = null)}
    >
      {breads.map((b) => (
        <Disc
          key={b.round}
          type="button"
          data-round={b.round}
          tabIndex={b.round === (head ?? rounds[0]) ? 0 : -1}
          aria-pressed={chosen.includes(b.round)}
          onPointerDown={(e) => {
            e.currentTarget.releasePointerCapture?.(e.pointerId);
            from.current = b.round;
          }}
          onClick={(e) => onChoose(e.shiftKey && head !== undefined ? between(head, b.round) : [b.round])}
          aria-label={`${b.name}: ${[b.pocket ?? "not judged", b.colour, ...b.also].filter(Boolean).join(", ")}`}
        >
          <Face bread={b} />
          <span className="words">
            <span className="no">{b.mark}</span>
            <span className={b.pocket && b.pocket !== "full" ? "short" : undefined}>{b.pocket ?? "judge"}</span>
            <br />
            <span className={b.colour && b.colour !== "right" ? "short" : undefined}>{b.colour}</span>
            {b.also.length > 0 && (
              <>
                <br />
                <span className="short">{b.also.join(", ")}</span>
              </>
            )}
          </span>
        </Disc>
      ))}
    </Pan>
  );
}

function Face({ bread }: { bread: TrayBread }) {
  const count = bread.colour ? SPOTS[bread.colour]! : 0;
  const marks = Array.from({ length: count }, (_, i) => {
    const angle = i * 2.399963 + bread.round;
    const radius = 4 + 38 * Math.sqrt((i + 0.6) / Math.max(count, 1));
    return { x: 52 + radius * Math.cos(angle), y: 52 + radius * Math.sin(angle), turn: (angle * 57) % 180 };
  });
  const shape =
    bread.pocket === "full"
      ? "M6 128C10 106 94 106 98 128Z"
      : bread.pocket === "part"
        ? "M6 128V124H46C50 108 92 108 98 128Z"
        : "M6 128V123H98V128Z";
  return (
    <svg width="76" height="97" viewBox="0 0 104 132" aria-hidden="true">
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
      {bread.pocket && <path d={shape} fill="var(--ink)" />}
      <line x1="0" x2="104" y1="129" y2="129" stroke="var(--hair-2)" strokeWidth="2" />
    </svg>
  );
}
