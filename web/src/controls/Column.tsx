import { Slider, SliderThumb, SliderTrack } from "react-aria-components";
import styled from "styled-components";
import { heatColour } from "../theme/temperature";

const Box = styled(Slider)`
  display: grid;
  grid-template-columns: 40px 30px minmax(0, 1fr);
  gap: 8px;
  height: 270px;
  .track {
    grid-column: 2;
    grid-row: 1;
    width: 30px;
    height: 100%;
    border: 2px solid var(--ink);
  }
  .thumb {
    left: 50%;
    width: 96px;
    height: 48px;
    translate: 44px 0;
    display: grid;
    place-items: center;
    background: var(--brass-fill);
    color: var(--on-fill);
    border: 2px solid var(--fill-edge);
    font: 700 24px/1 var(--name);
    clip-path: polygon(14px 0, 100% 0, 100% 100%, 14px 100%, 0 50%);
  }
  .thumb[data-focus-visible] {
    background: var(--ink);
    color: var(--ground);
  }
  .tick {
    grid-column: 1;
    grid-row: 1;
    position: relative;
    font: 500 16px/1 var(--mono);
  }
  .tick span {
    position: absolute;
    right: 0;
    transform: translateY(50%);
  }
`;

/** A column of temperature [C] with a handle: dragged, or moved by the arrow keys half a degree at a time. */
export function Column({
  label,
  value,
  low,
  high,
  ticks,
  says,
  tick,
  onChange,
}: {
  label: string;
  value: number;
  low: number;
  high: number;
  ticks: readonly number[];
  says: string;
  tick: (c: number) => string;
  onChange: (c: number) => void;
}) {
  const stops = Array.from({ length: 13 }, (_, i) => heatColour(low + ((high - low) * i) / 12)).join(", ");
  return (
    <Box
      aria-label={label}
      orientation="vertical"
      value={value}
      minValue={low}
      maxValue={high}
      step={0.5}
      onChange={(to) => onChange(Array.isArray(to) ? to[0]! : to)}
    >
      <div className="tick" aria-hidden="true">
        {ticks.map((c) => (
          <span key={c} style={{ bottom: `${((c - low) / (high - low)) * 100}%` }}>
            {tick(c)}
          </span>
        ))}
      </div>
      <SliderTrack className="track" style={{ background: `linear-gradient(to top, ${stops})` }}>
        <SliderThumb className="thumb">{says}</SliderThumb>
      </SliderTrack>
    </Box>
  );
}
