import styled from "styled-components";

/**
 * A leaf in one window: its head, the instrument that never scrolls away, and a foot of panels beside the next move. On a low or
 * narrow screen the foot follows below.
 */
export const LeafPage = styled.div`
  position: relative;
  display: flex;
  flex-direction: column;
  gap: 6px;
  .instrument {
    flex: none;
    min-width: 0;
  }
  .foot {
    flex: 1 1 190px;
    min-height: 190px;
    display: grid;
    grid-template-columns: minmax(0, 1fr) 316px;
    gap: 0 22px;
    border-top: 2px solid var(--hair-2);
    padding-top: 6px;
  }
  @media (min-width: 1001px) and (min-height: 740px) {
    && {
      flex: 1 1 0;
    }
    min-height: 480px;
    margin-bottom: -34px;
    overflow: hidden;
    .foot {
      min-height: 0;
    }
    .foot > * {
      max-height: 100%;
      padding-bottom: 22px;
    }
    .foot > .next {
      overflow-y: auto;
    }
  }
  @media (max-width: 1000px) {
    .foot {
      display: contents;
    }
    .next {
      order: 1;
    }
    .instrument {
      order: 2;
    }
    .panels {
      order: 3;
    }
  }
`;
