import { createGlobalStyle } from "styled-components";

/** Lettering inside our drawings. */
export const DrawingStyle = createGlobalStyle`
  svg text { font-family: var(--text); font-size: 16px; fill: var(--ink); }
  svg text.mono { font-family: var(--mono); letter-spacing: -0.03em; }
  svg text.strong { font-weight: 700; font-size: 17px; }
  svg text.big { font-weight: 700; font-size: 25px; }
  svg text.figure { font: 700 30px/1 var(--name); }
  svg text.pin { font: 700 21px/1 var(--text); }
  svg text.halo { paint-order: stroke; stroke: var(--ground); stroke-width: 5px; stroke-linejoin: round; }
  svg text.round { font: 700 25px/1 var(--name); }
  svg text.count { font: 700 74px/1 var(--name); }
  svg text.verb { font: 650 23px/1 var(--text); }
  svg text.number { font: 700 25px/1 var(--name); }
  svg text.on-bread { fill: #21272A; }
`;
