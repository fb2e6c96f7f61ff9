import styled from "styled-components";

/** The press that a leaf leads to, always in sight at the foot of its window while it is to be pressed. The last thing on its leaf. */
export const Strip = styled.div`
  margin-top: auto;
  &[data-due="true"] {
    position: sticky;
    bottom: -40px;
    z-index: 2;
    background: var(--ground);
    border-top: 2px solid var(--ink);
    margin-bottom: -40px;
    padding: 4px 0;
  }
  @media (max-width: 600px) {
    &[data-due="true"] {
      margin-left: -16px;
      margin-right: -16px;
      padding: 4px 16px 2px;
    }
    &[data-due="true"] .what,
    &[data-due="true"] .wait {
      display: none;
    }
  }
`;
