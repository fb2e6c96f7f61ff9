import styled from "styled-components";

/** Ways to the table, one below the other: what each is, its line, and the press that takes it. */
export const Ways = styled.ul`
  li {
    display: grid;
    grid-template-columns: 180px minmax(0, 1fr) 118px;
    gap: 2px 16px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    padding: 4px 0;
  }
  li[data-use="true"] {
    background: var(--brass-wash);
    box-shadow: -6px 0 0 var(--brass);
    padding-left: 8px;
  }
  .name {
    font: 600 19px/1.15 var(--name);
  }
  .do {
    justify-self: end;
    text-align: right;
  }
  @media (max-width: 760px) {
    li {
      grid-template-columns: minmax(0, 1fr) auto;
    }
    .line {
      grid-column: 1 / -1;
      grid-row: 2;
    }
  }
`;

/** How wide a way's line is in a list so wide. */
export const lineWidth = (width: number) => Math.max(width < 700 ? width - 8 : width - 340, 200);
