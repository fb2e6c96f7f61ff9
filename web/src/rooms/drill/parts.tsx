import type { ReactNode } from "react";
import styled from "styled-components";
import type { Try } from "../../api/drill";
import { Button } from "../../controls/Button";

/** What each drill is given: its case, what opens the next one, how one does. */
export interface DrillProps {
  kitchen: number;
  shown: Try;
  onNext: () => void;
  how: ReactNode;
}

/** The three columns of a drill: what is judged, what is pressed and answered, how one does. */
export const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(240px, 340px) minmax(0, 1fr) minmax(260px, 380px);
  gap: 8px 32px;
  align-items: start;
  > :last-child {
    border-left: 2px solid var(--hair-2);
    padding-left: 24px;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    > :last-child {
      border-left: 0;
      padding-left: 0;
    }
  }
`;
export const Stack = styled.div`
  display: grid;
  gap: 8px;
  justify-items: start;
  min-width: 0;
  h2 {
    font-size: 22px;
  }
  .lead {
    font: 500 24px/1.2 var(--name);
  }
  .big {
    font: 700 56px/1 var(--name);
    letter-spacing: -0.02em;
  }
  .big small {
    font-size: 30px;
  }
  .wide {
    width: 100%;
  }
`;
/** The one thing to press, large. */
export const Press = styled(Button)`
  min-height: 88px;
  min-width: 220px;
  && {
    font-size: 28px;
  }
  @media (max-width: 900px) {
    width: 100%;
  }
`;
export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
`;
