import styled from "styled-components";
import { Swell, swellPath } from "./Profile";

export interface SpotView {
  number: number;
  name: string;
  state: "free" | "busy" | "recovering";
  round: string | null;
  verb: string;
  seconds: string;
  /** 0 at the last action, 1 at the next. */
  sweep: number;
  due: boolean;
  swell: number;
  under: string;
  label: string;
}

const Spot = styled.button`
  border: 0;
  background: none;
  padding: 0;
  display: grid;
  justify-items: center;
  gap: 0;
  min-width: 0;
  width: 100%;
  color: inherit;
  .under {
    font: 600 19px/1.2 var(--text);
    display: flex;
    justify-content: space-between;
    width: min(190px, 100%);
  }
  > svg:not(.disc) {
    max-width: 100%;
  }
  @media (max-width: 600px) {
    .under {
      font-size: 16px;
    }
    .under span:first-child {
      display: none;
    }
  }
  svg.disc {
    width: min(100%, 30vh, 300px);
    height: auto;
    display: block;
  }
  circle.sweep {
    transition: stroke-dasharray 0.25s linear;
  }
  @media (prefers-reduced-motion: reduce) {
    circle.sweep {
      transition: none;
    }
  }
  &:disabled {
    cursor: default;
  }
`;
const R = 100;

/** A spot of the surface as it lies: the bread a bone disc, its sweep to the next action, its side view below it (`side`) or, where spots are many, in it. */
export function HearthSpot({
  spot,
  side,
  onPress,
}: {
  spot: SpotView;
  side: boolean;
  onPress: ((at: number) => void) | null;
}) {
  const around = 2 * Math.PI * (R + 8);
  const busy = spot.state === "busy";
  return (
    <Spot
      type="button"
      onClick={(e) => onPress?.(e.timeStamp)}
      disabled={!onPress}
      aria-label={spot.label}
      data-spot={spot.number}
      data-state={spot.due ? "due" : spot.state}
    >
      <svg viewBox="0 0 260 260" className="disc" aria-hidden="true">
        <circle cx="130" cy="130" r="125" fill={busy ? "#872417" : "none"} stroke="var(--ink)" strokeWidth="2.500" />
        {spot.due && <circle cx="130" cy="130" r="128" fill="none" stroke="var(--brass)" strokeWidth="4" />}
        {busy && (
          <>
            <circle cx="130" cy="130" r={R + 8} fill="none" stroke="#15191B" strokeWidth="14" />
            <circle
              className="sweep"
              cx="130"
              cy="130"
              r={R + 8}
              fill="none"
              stroke="#D3B552"
              strokeWidth="14"
              strokeDasharray={`${around * (1 - spot.sweep)} ${around}`}
              transform="rotate(-90 130 130)"
            />
            <circle cx="130" cy="130" r={R - 1} fill="#EFE8D8" stroke="#15191B" strokeWidth="2" />
          </>
        )}
        {!busy && (
          <circle
            cx="130"
            cy="130"
            r="98"
            fill="none"
            stroke={spot.due ? "var(--brass)" : "var(--ink)"}
            strokeWidth="3"
            strokeDasharray={spot.state === "recovering" ? "8 8" : undefined}
          />
        )}
        <text x="130" y={side ? 88 : 76} textAnchor="middle" className={busy ? "verb on-bread" : "verb"}>
          {spot.verb}
        </text>
        <text
          x="130"
          y={side ? 160 : 144}
          textAnchor="middle"
          className={busy ? "count on-bread" : "count"}
          textLength={spot.seconds.length > 4 ? 132 : undefined}
          lengthAdjust="spacingAndGlyphs"
        >
          {spot.seconds}
        </text>
        <text x="130" y={side ? 196 : 178} textAnchor="middle" className={busy ? "verb on-bread" : "verb"}>
          {spot.round ?? ""}
        </text>
        {!side && busy && (
          <g transform="translate(80 186) scale(0.53)">
            <path d={swellPath(spot.swell)} fill="#D3B552" stroke="#15191B" strokeWidth={5} />
          </g>
        )}
        <rect x="6" y="6" width="40" height="40" fill="var(--ground)" stroke="var(--ink)" strokeWidth="2" />
        <text x="26" y="35" textAnchor="middle" className="number">
          {spot.number}
        </text>
      </svg>
      {side && <Swell share={busy ? spot.swell : 0} />}
      {side && (
        <span className="under">
          <span>{spot.name}</span>
          <span>{spot.under}</span>
        </span>
      )}
    </Spot>
  );
}
