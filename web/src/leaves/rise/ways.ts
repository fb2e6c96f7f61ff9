import styled from "styled-components";

/** Ways to the table, one below the other: what each is, its line, and the press that takes it. */
export const Ways = styled.ul`
  li {
    display: grid;
    grid-template-columns: 250px minmax(0, 1fr) 170px;
    gap: 2px 22px;
    align-items: center;
    border-bottom: 1px solid var(--hair);
    padding: 8px 0;
  }
  li[data-use="true"] {
    background: var(--brass-wash);
    box-shadow: -6px 0 0 var(--brass);
    padding-left: 8px;
  }
  .name {
    font: 600 21px/1.15 var(--name);
  }
  .do {
    justify-self: end;
    text-align: right;
  }
  @media (max-width: 900px) {
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
export const lineWidth = (width: number) => Math.max(width < 900 ? width - 8 : width - 480, 200);
