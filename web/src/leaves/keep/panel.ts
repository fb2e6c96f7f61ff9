import styled from "styled-components";

/** A part of the Keep leaf, ruled off from the one above it. */
export const KeepPart = styled.section`
  display: grid;
  gap: 10px;
  border-top: 2px solid var(--hair-2);
  padding-top: 12px;
  margin-top: 12px;
`;
