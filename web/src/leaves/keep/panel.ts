import styled from "styled-components";

/** A part of the Keep leaf. */
export const KeepPart = styled.section`
  display: grid;
  gap: 8px;
  align-content: start;
  min-width: 0;
  .title {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    align-items: baseline;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  th {
    text-align: left;
    font-weight: 500;
  }
  thead th {
    color: var(--ink-2);
    font-size: 15px;
    border-bottom: 2px solid var(--ink);
  }
  td {
    font-family: var(--mono);
    text-align: right;
    white-space: nowrap;
  }
  th + th,
  td {
    text-align: right;
  }
  tbody > tr > * {
    border-bottom: 1px solid var(--hair);
    padding: 4px 0;
  }
  * + td,
  th + th {
    padding-left: 14px;
  }
  .freeze {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 14px;
    align-items: end;
  }
  .lessons {
    list-style: none;
    margin: 0;
    padding: 0;
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 14px;
      align-items: center;
      min-height: 48px;
      border-bottom: 1px solid var(--hair);
    }
    li[data-refused="true"] > span {
      color: var(--ink-2);
    }
  }
`;
