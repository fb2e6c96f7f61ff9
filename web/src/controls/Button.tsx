import { Button as AriaButton } from "react-aria-components";
import styled from "styled-components";

/** Square, engraved. `data-kind`: plain, brass (the one thing to press), bare (a word to press). */
export const Button = styled(AriaButton)`
  min-height: 48px;
  padding: 0 18px;
  border: 2px solid var(--ink);
  background: transparent;
  color: var(--ink);
  font: 600 18px/1 var(--text);
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 10px;
  &[data-hovered] {
    border-color: var(--brass);
  }
  &[data-pressed] {
    background: var(--brass-wash);
  }
  &[data-disabled] {
    border-color: var(--hair-2);
    color: var(--ink-2);
    cursor: not-allowed;
  }
  &[data-kind="brass"] {
    background: var(--brass-fill);
    color: var(--on-fill);
    border-color: var(--fill-edge);
    font-family: var(--name);
    font-size: 20px;
  }
  &[data-kind="brass"][data-pressed] {
    background: var(--brass-wash);
    color: var(--ink);
  }
  &[data-kind="brass"][data-disabled] {
    background: var(--recess);
    color: var(--ink-2);
    border-color: var(--hair-2);
  }
  &[data-kind="bare"] {
    border: 0;
    border-bottom: 2px solid var(--brass);
    color: var(--brass);
    padding: 0 2px;
    font-weight: 650;
  }
  &[data-kind="bare"][data-pressed] {
    background: var(--brass-wash);
  }
`;
