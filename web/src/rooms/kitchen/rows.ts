import styled from "styled-components";

/** Rows of a sheet: what it is at the left, what can be pressed at the right. */
export const Rows = styled.ul`
  border-top: 1px solid var(--hair-2);
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 2px 18px;
    align-items: center;
    min-height: 56px;
    padding: 4px 0;
    border-bottom: 1px solid var(--hair-2);
  }
  .name {
    font-weight: 650;
    overflow-wrap: anywhere;
  }
  .figure {
    font: 700 27px/1.1 var(--name);
    margin: 0 10px 0 6px;
    white-space: nowrap;
  }
  .acts {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 16px;
    justify-content: flex-end;
    align-items: center;
  }
  .acts a {
    min-height: 48px;
    display: inline-flex;
    align-items: center;
    font-weight: 650;
    color: var(--brass);
  }
  .below {
    grid-column: 1 / -1;
  }
  @media (max-width: 600px) {
    li {
      grid-template-columns: minmax(0, 1fr);
    }
    .acts {
      justify-content: flex-start;
    }
  }
`;
