import { createGlobalStyle } from "styled-components";

const day = `
  --ground: #F3EDE0; --recess: #E8DFCB; --paper: #FBF8F0; --ink: #21272A; --ink-2: #545A59;
  --hair-2: #857E6D; --hair: #BDB39C; --brass: #6F5606; --brass-fill: #CFB04A; --brass-wash: #EEE2AE;
  --on-fill: #1B1F21; --edge: #21272A; --on-edge: #F3EDE0; --edge-done: #B9B2A2; --on-edge-done: #21272A; --fill-edge: #21272A;
`;
const night = `
  --ground: #15191B; --recess: #1F2528; --paper: #272E31; --ink: #EFE8D8; --ink-2: #B9B2A2;
  --hair-2: #7F8482; --hair: #3C4447; --brass: #DCC062; --brass-fill: #D3B552; --brass-wash: #3A321D;
  --on-fill: #15191B; --edge: #0B0D0E; --on-edge: #EFE8D8; --edge-done: #B9B2A2; --on-edge-done: #15191B; --fill-edge: #D3B552;
`;

export const GlobalStyle = createGlobalStyle`
  :root { ${day} color-scheme: light; }
  @media (prefers-color-scheme: dark) { :root:not([data-theme="day"]) { ${night} color-scheme: dark; } }
  :root[data-theme="night"] { ${night} color-scheme: dark; }
  /* a reader's own colours: ours step back, what is chosen and pressed stays told apart */
  @media (forced-colors: active) {
    :root:root {
      --ground: Canvas; --recess: Canvas; --paper: Canvas; --ink: CanvasText; --ink-2: CanvasText; --hair-2: CanvasText;
      --hair: GrayText; --brass: LinkText; --brass-fill: Highlight; --brass-wash: Canvas; --on-fill: HighlightText;
      --edge: CanvasText; --on-edge: Canvas; --edge-done: Canvas; --on-edge-done: CanvasText; --fill-edge: CanvasText;
      forced-color-adjust: none;
    }
  }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body {
    background: var(--ground); color: var(--ink); font: 450 18px/1.35 var(--text);
    --text: "Atkinson Hyperlegible Next Variable", "Atkinson Hyperlegible", system-ui, sans-serif;
    --mono: "Atkinson Hyperlegible Mono Variable", ui-monospace, monospace;
    --name: "Besley", Georgia, serif;
    -webkit-text-size-adjust: 100%;
  }
  h1, h2, h3 { font-family: var(--name); font-weight: 600; margin: 0; line-height: 1.15; }
  h1 { font-size: 28px; } h2 { font-size: 20px; }
  p { margin: 0; }
  button, input, select, textarea { font: inherit; color: inherit; border-radius: 0; }
  button { cursor: pointer; }
  a { color: inherit; }
  ul, ol { list-style: none; margin: 0; padding: 0; }
  :focus { outline: none; }
  :focus-visible, [data-focus-visible] { outline: 3px solid var(--brass); outline-offset: 2px; }
  .quiet { color: var(--ink-2); font-size: 16px; }
  .mono { font-family: var(--mono); letter-spacing: -0.03em; word-spacing: -0.2em; }
  .unseen { position: absolute; left: 0; min-width: 0 !important; width: 1px; height: 1px; overflow: hidden; clip-path: inset(50%); white-space: nowrap; }
  table.unseen { display: block; }
  @media (prefers-reduced-motion: reduce) { *, *::before, *::after { transition: none !important; animation: none !important; } }
  @media print {
    :root { --ground: #fff; --recess: #fff; --paper: #fff; --ink: #000; --ink-2: #333; --brass: #000; --brass-wash: #fff; --hair: #999; }
    [data-print="no"], .grip { display: none !important; }
    html, body, #root { height: auto; }
    svg, table, li { break-inside: avoid; }
    input, textarea { border-color: transparent !important; }
    button[aria-haspopup="listbox"] { visibility: hidden; }
    * { print-color-adjust: exact; }
    @page { margin: 14mm; }
  }
`;
