import styled from "styled-components";

export const Live = styled.div`
  height: calc(100% + 40px);
  display: grid;
  grid-template-rows: auto minmax(0, 1fr) auto auto;
  row-gap: 8px;
  min-height: 320px;
  > div:empty {
    margin-bottom: -8px;
  }
  margin-bottom: -40px;
  .stage {
    display: grid;
    grid-template-columns: 186px minmax(0, 1fr) 150px;
    grid-template-rows: minmax(0, 1fr);
    gap: 20px;
    min-height: 0;
  }
  .side {
    display: grid;
    grid-template-columns: minmax(0, 1fr);
    gap: 6px;
    align-content: start;
    overflow: hidden;
  }
  .round {
    display: flex;
    align-items: center;
    gap: 8px;
    font: 700 22px/1 var(--name);
    border: 2px solid var(--ink);
    background: var(--paper);
    border-radius: 50%;
    width: 92px;
    height: 42px;
    justify-content: center;
  }
  .stack {
    display: flex;
    align-items: center;
    gap: 8px;
  }
  .queue {
    display: flex;
    flex-wrap: wrap;
    gap: 4px;
    .round {
      width: 54px;
      height: 30px;
      font-size: 18px;
    }
    .ball {
      width: 34px;
      height: 34px;
    }
  }
  .note {
    margin-left: auto;
    max-width: 30em;
    text-align: right;
  }
  .dome {
    border-radius: 60px 60px 6px 6px;
    height: 38px;
  }
  .round {
    font-size: 20px;
    height: 38px;
  }
  h2 {
    border-bottom: 2px solid var(--hair-2);
    padding-bottom: 5px;
    display: flex;
    justify-content: space-between;
  }
  .facts {
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
    align-items: center;
    border-top: 2px solid var(--hair-2);
    padding-top: 6px;
  }
  .facts button {
    min-height: 88px;
  }
  .seen,
  .aside {
    display: flex;
    gap: 10px;
    align-items: center;
  }
  &[data-told="true"] svg.disc {
    width: min(100%, 21vh, 300px);
  }
  @media (max-width: 900px) {
    .stage {
      grid-template-columns: minmax(0, 1fr);
    }
    .side,
    .note {
      display: none;
    }
  }
  @media (max-width: 600px) {
    min-height: 380px;
    .facts {
      gap: 2px 10px;
    }
    .facts button {
      min-height: 48px;
    }
    .seen {
      width: 100%;
      gap: 8px;
    }
    .seen > button {
      flex: 1 1 0;
      padding: 0 4px;
      font-size: 16px;
    }
    .seen > .label {
      display: none;
    }
    .aside {
      gap: 22px;
    }
  }
`;
export const Bar = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 132px;
  min-height: 132px;
  position: sticky;
  bottom: -40px;
  z-index: 3;
  margin: 0 -24px;
  @media (max-width: 600px) {
    margin: 0 -16px;
    grid-template-columns: minmax(0, 1fr) 92px;
  }
`;
export const Big = styled.button`
  border: 0;
  border-top: 3px solid var(--fill-edge);
  background: var(--brass-fill);
  color: var(--on-fill);
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 8px 24px 26px;
  text-align: left;
  min-width: 0;
  .verb {
    font: 700 50px/1 var(--name);
  }
  .what {
    font: 500 20px/1.2 var(--text);
  }
  .count {
    margin-left: auto;
    font: 700 96px/0.9 var(--name);
    white-space: nowrap;
  }
  .count small {
    font-size: 36px;
  }
  &[data-due="false"] {
    background: var(--recess);
    color: var(--ink);
    border-top-color: var(--brass);
  }
  &:focus-visible {
    outline-offset: -8px;
    outline-color: var(--ink);
  }
  &:active {
    filter: brightness(0.95);
  }
  @media (max-width: 600px) {
    padding: 6px 14px;
    gap: 10px;
    .verb {
      font-size: 30px;
    }
    .count {
      font-size: 58px;
    }
    svg {
      display: none;
    }
  }
`;
export const Undo = styled.button`
  border: 0;
  background: var(--edge);
  color: var(--on-edge);
  display: grid;
  place-content: center;
  gap: 4px;
  font: 700 26px/1 var(--name);
  small {
    font: 500 16px/1.15 var(--text);
  }
  &:disabled {
    color: var(--hair-2);
  }
  &:focus-visible {
    outline-offset: -6px;
  }
`;
