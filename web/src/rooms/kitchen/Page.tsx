import styled from "styled-components";

/**
 * The kitchen in one window: places at the left, the plan in the middle, the sheet of what is pressed at the right. A wide sheet takes the
 * plan's room too. On a narrow screen whatever is pressed takes the window until it is closed.
 */
export const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(300px, 340px) minmax(0, 1fr) minmax(340px, 380px);
  grid-template-rows: auto minmax(0, 1fr) auto;
  grid-template-areas: "name name sheet" "places plan sheet" "rest rest sheet";
  gap: 4px 24px;
  h1 {
    grid-area: name;
    font-size: 24px;
  }
  h2 {
    font-size: 19px;
    display: flex;
    flex-wrap: wrap;
    gap: 0 12px;
    align-items: baseline;
  }
  h2 .quiet {
    font: 450 16px/1.2 var(--text);
  }
  h3 {
    font-size: 18px;
  }
  .places {
    grid-area: places;
    border-right: 1.5px solid var(--hair-2);
    padding-right: 16px;
  }
  .plan {
    grid-area: plan;
    min-width: 0;
    display: grid;
    align-content: start;
    justify-items: start;
    gap: 6px;
  }
  .plan > * {
    width: 100%;
  }
  .plan > button {
    width: auto;
  }
  nav {
    grid-area: rest;
    display: flex;
    flex-wrap: wrap;
    border-top: 1.5px solid var(--hair-2);
  }
  nav button,
  nav a {
    min-height: 48px;
    display: inline-flex;
    align-items: center;
    padding: 0 6px;
    border: 0;
    background: transparent;
    font: 600 16px/1.1 var(--name);
    text-decoration: underline;
    text-decoration-color: var(--brass);
    text-decoration-thickness: 2px;
    text-underline-offset: 5px;
  }
  nav button[aria-pressed="true"] {
    background: var(--brass-wash);
    box-shadow: inset 0 -5px 0 var(--brass);
    text-decoration: none;
  }
  > aside {
    grid-area: sheet;
    min-width: 0;
    background: var(--paper);
    border-left: 2px solid var(--ink);
    padding: 6px 18px 18px;
    display: grid;
    align-content: start;
    gap: 12px;
  }
  &[data-wide="true"] {
    .plan {
      display: none;
    }
    > aside {
      grid-column: 2 / 4;
    }
    nav,
    h1 {
      grid-column: 1 / 2;
    }
    nav {
      display: none;
    }
  }
  aside header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 12px;
    min-height: 48px;
    border-bottom: 2px solid var(--ink);
  }
  aside header h2 {
    font-size: 24px;
  }
  .sheet,
  aside > section,
  aside section section {
    display: grid;
    gap: 10px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 20px;
    align-items: end;
  }
  summary {
    min-height: 48px;
    display: flex;
    align-items: center;
    font-weight: 650;
    cursor: pointer;
    text-decoration: underline;
  }
  details > div {
    display: grid;
    gap: 12px;
  }
  .believed {
    font: 700 42px/1 var(--name);
  }
  .places-to-go a {
    color: var(--brass);
    font-weight: 650;
    min-height: 48px;
    display: inline-flex;
    align-items: center;
  }
  @media (min-width: 1001px) and (min-height: 740px) {
    && {
      flex: 1 1 0;
    }
    min-height: 470px;
    margin: -8px -24px -40px 0;
    overflow: hidden;
    h1 {
      padding-top: 8px;
    }
    > aside,
    .plan,
    .places {
      overflow-y: auto;
      min-height: 0;
    }
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    grid-template-areas: "name" "plan" "places" "rest" "sheet";
    .places {
      border-right: 0;
      padding: 0;
    }
    &[data-open="false"] > aside {
      display: none;
    }
    &[data-open="true"] > :not(aside) {
      display: none;
    }
    &&[data-open="true"] > aside {
      grid-area: name;
      grid-column: 1 / -1;
      border-left: 0;
      padding: 0;
      background: transparent;
    }
  }
  @media print {
    &[data-open="false"] > aside {
      display: none;
    }
  }
`;
