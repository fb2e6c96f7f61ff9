import { Link } from "react-router";
import styled from "styled-components";
import { HEAD } from "./pegPlaces";

export const Peg = styled(Link)`
  position: absolute;
  top: 0;
  width: 48px;
  height: 48px;
  margin-left: -24px;
  display: grid;
  place-items: start center;
  padding-top: 4px;
  text-decoration: none;
  color: var(--ink);
  touch-action: none;
  span {
    display: grid;
    place-items: center;
    width: ${HEAD}px;
    height: ${HEAD}px;
    background: var(--paper);
    border: 1.5px solid var(--ink);
  }
  &[data-state="next"] span {
    background: var(--brass-fill);
    color: var(--on-fill);
    border-width: 2px;
  }
  &[data-state="done"] span {
    background: var(--recess);
    color: var(--ink-2);
    border-color: var(--hair-2);
  }
  &[data-away="true"] span {
    clip-path: polygon(0 0, 100% 0, 100% 62%, 62% 100%, 0 100%);
    border-width: 3px;
  }
  &[data-pinned="true"] span {
    border-style: double;
    border-width: 4px;
  }
  &[data-movable="true"] {
    cursor: ew-resize;
  }
  &:hover span {
    outline: 2px solid var(--brass);
  }
`;
/** Several moves at one head: a plate with their count, two edges behind it. */
export const Fan = styled.button`
  position: absolute;
  top: 0;
  width: 50px;
  height: 50px;
  margin-left: -25px;
  padding: 4px 0 0;
  border: 0;
  background: none;
  display: grid;
  place-items: start center;
  cursor: pointer;
  color: var(--ink);
  span {
    display: grid;
    place-items: center;
    width: 42px;
    height: ${HEAD}px;
    background: var(--paper);
    border: 1.5px solid var(--ink);
    border-top: 5px double var(--ink);
    font: 700 19px/1 var(--name);
  }
  &[data-done="true"] {
    color: var(--ink-2);
  }
  &[data-done="true"] span {
    background: var(--recess);
    border-color: var(--hair-2);
  }
  &:hover span {
    outline: 2px solid var(--brass);
  }
`;
export const Flag = styled.button`
  position: absolute;
  width: 48px;
  height: 48px;
  margin-left: -14px;
  padding: 0;
  border: 0;
  background: none;
  cursor: ew-resize;
  touch-action: none;
  color: var(--ink);
`;
export const Still = styled.div`
  position: absolute;
  width: 30px;
  height: 36px;
  margin-left: -14px;
  pointer-events: none;
`;
export const Held = styled.div`
  position: absolute;
  top: 38px;
  transform: translateX(-50%);
  background: var(--ink);
  color: var(--ground);
  padding: 3px 8px;
  font: 700 18px/1.1 var(--mono);
  z-index: 4;
  pointer-events: none;
  white-space: nowrap;
`;
