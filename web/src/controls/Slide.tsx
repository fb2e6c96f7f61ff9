import { Label, Slider, SliderOutput, SliderThumb, SliderTrack } from "react-aria-components";
import styled from "styled-components";

const Box = styled(Slider)`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-content: start;
  gap: 0 8px;
  min-width: 0;
  label {
    font-size: 15px;
    white-space: nowrap;
  }
  output {
    font: 700 15px/1.5 var(--text);
    white-space: nowrap;
  }
  .rail {
    flex: 0 0 100%;
    position: relative;
    height: 48px;
  }
  .rail::before {
    content: "";
    position: absolute;
    left: 0;
    right: 0;
    top: 23px;
    height: 2px;
    background: var(--ink);
  }
  .rest {
    position: absolute;
    top: 14px;
    width: 2px;
    height: 20px;
    background: var(--ink);
    transform: translateX(-1px);
  }
  .thumb {
    top: 24px;
    width: 16px;
    height: 34px;
    background: var(--brass-fill);
    border: 2px solid var(--fill-edge);
  }
  .thumb::after {
    content: "";
    position: absolute;
    inset: -9px -18px;
  }
  .thumb[data-dragging] {
    background: var(--brass);
  }
  &[data-disabled] .thumb {
    background: var(--recess);
    border-color: var(--hair-2);
  }
  &[data-disabled] label,
  &[data-disabled] output {
    color: var(--ink-2);
  }
`;

interface Props {
  label: string;
  value: number;
  /** Where it stands when nothing is changed: a tick on the rail. */
  rest: number;
  min: number;
  max: number;
  step: number;
  says: string;
  onChange: (value: number) => void;
  disabled?: boolean;
}

/** A rail to drag along, with a tick where things stand. */
export function Slide({ label, value, rest, min, max, step, says, onChange, disabled }: Props) {
  const at = (Math.min(Math.max(rest, min), max) - min) / (max - min);
  return (
    <Box
      value={value}
      minValue={min}
      maxValue={max}
      step={step}
      onChange={(to) => onChange(Array.isArray(to) ? to[0]! : to)}
      isDisabled={disabled ?? false}
    >
      <Label>{label}</Label>
      <SliderOutput>{says}</SliderOutput>
      <SliderTrack className="rail">
        <span className="rest" style={{ left: `${at * 100}%` }} />
        <SliderThumb className="thumb" aria-valuetext={says} />
      </SliderTrack>
    </Box>
  );
}
