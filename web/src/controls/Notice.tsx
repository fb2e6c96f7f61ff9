import styled from "styled-components";

/** A warning plate: ink, with a pointed end. State is a shape and words, never a colour. */
export const Plate = styled.p`
  background: var(--ink);
  color: var(--ground);
  padding: 8px 26px 8px 14px;
  font-size: 17px;
  width: fit-content;
  max-width: 100%;
  clip-path: polygon(0 0, calc(100% - 14px) 0, 100% 50%, calc(100% - 14px) 100%, 0 100%);
`;

/** A quiet caution with its mark. */
const Line = styled.p`
  font-size: 16px;
  color: var(--ink-2);
  padding-left: 22px;
  position: relative;
  &::before {
    content: "";
    position: absolute;
    left: 4px;
    top: 4px;
    width: 0;
    height: 0;
    border: 6px solid transparent;
    border-bottom: 11px solid var(--ink-2);
  }
`;

export function Cautions({ items, most = 9 }: { items: readonly { code: string; text: string }[]; most?: number }) {
  return (
    <>
      {items.slice(0, most).map((c) => (
        <Line key={c.code + c.text}>{c.text}</Line>
      ))}
    </>
  );
}

export const Quiet = styled.p`
  color: var(--ink-2);
  font-size: 16px;
`;
