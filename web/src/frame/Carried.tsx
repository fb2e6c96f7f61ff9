import styled from "styled-components";
import { Link } from "react-router";
import type { Bake } from "../api/client";
import { SAY } from "../words/say/frame";

const Strip = styled.p`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 14px;
  margin: 0 0 8px;
  padding: 6px 12px;
  background: var(--brass-wash);
  border-left: 6px solid var(--brass);
  font-size: 17px;
  b {
    font: 700 21px/1.2 var(--name);
  }
`;

/** The one change that this bake tries, on every leaf until it is judged. */
export function Carried({ bake }: { bake: Bake }) {
  const { carried, outcomes } = bake.keep;
  if (!carried) return null;
  const full = outcomes.filter((o) => o.pocket === "full").length;
  const pockets = outcomes.filter((o) => o.pocket).length;
  return (
    <Strip role="note">
      <span>This time</span>
      <b>{carried.text}</b>
      <span>
        after <Link to={`/b/${carried.from_bake}/keep`}>{carried.from_name}</Link>
        {pockets > 0 ? SAY.nowOfAreFull(full, pockets) : ""}
      </span>
    </Strip>
  );
}
