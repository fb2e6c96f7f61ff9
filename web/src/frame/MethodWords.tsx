import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import type { Bake } from "../api/client";
import { holdQuery } from "../api/keep";
import { methodsQuery } from "../api/weigh";
import { Plate } from "../controls/Notice";

const Facts = styled.dl`
  display: grid;
  grid-template-columns: 5.5em minmax(0, 1fr);
  gap: 6px 12px;
  border-top: 1.5px solid var(--hair-2);
  padding-top: 10px;
  dt {
    color: var(--ink-2);
  }
  dd {
    margin: 0;
  }
  dd + dd {
    grid-column: 2;
  }
`;

/** What a bake's method says of itself: why, shaping, heat, keeping, what to watch. */
export function MethodWords({ bake }: { bake: Bake }) {
  const known = useQuery(methodsQuery(bake.kitchen_id));
  const kept = useQuery(holdQuery(bake.id, null, 0, `${bake.revision}`));
  const method = known.data?.find((m) => m.id === bake.method);
  const facts: [string, readonly string[]][] = method
    ? [
        ["shaping", method.shaping],
        ["heat", [method.program]],
        ["keeping", kept.data?.advice ?? [method.hold]],
        ["as cooks say", kept.data ? [method.hold] : []],
        ["watch", method.cautions.map((c) => c.text)],
      ]
    : [];
  const said = facts.map(([name, texts]) => [name, texts.filter(Boolean)] as const).filter(([, texts]) => texts.length);
  return (
    <>
      <p>{bake.method_why}</p>
      {known.error && <Plate>{known.error.message}</Plate>}
      {said.length > 0 && (
        <Facts aria-label={`The method, ${method!.name}`}>
          {said.map(([name, texts]) => (
            <div key={name} style={{ display: "contents" }}>
              <dt>{name}</dt>
              {texts.map((t) => (
                <dd key={t}>{t}</dd>
              ))}
            </div>
          ))}
        </Facts>
      )}
    </>
  );
}
