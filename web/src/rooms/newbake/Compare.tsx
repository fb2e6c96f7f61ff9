import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { Button } from "../../controls/Button";
import { hoursText } from "./choose";
import { SAY } from "../../words/say/newbake";

type Method = Schemas["MethodRead"];
const Table = styled.table`
  border-collapse: collapse;
  width: 100%;
  table-layout: fixed;
  font-size: 17px;
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 6px 10px 6px 0;
    border-bottom: 1px solid var(--hair);
    overflow-wrap: anywhere;
  }
  thead th {
    font: 600 22px/1.15 var(--name);
    border-bottom: 2px solid var(--ink);
  }
  tbody th {
    width: 92px;
    color: var(--ink-2);
    font-weight: 450;
    font-size: 16px;
  }
`;

/** A method, or two side by side: time, hands, leaven, water, what to watch. */
export function Compare({ methods, onAlone }: { methods: readonly Method[]; onAlone: () => void }) {
  const [first] = methods;
  if (!first) return null;
  const rows: [string, (m: Method) => string][] = [
    [
      "wait",
      (m) =>
        `${hoursText(m)}: ${
          m.stages
            .filter((s) => s.name !== "none")
            .map(
              (s) =>
                `${s.name} ${s.place === "fridge" ? "in the fridge" : s.place === "cellar" ? "in the cool" : "on the bench"}${s.ratio ? ` to ${s.ratio}×` : ""}`,
            )
            .join(", ") || "none"
        }`,
    ],
    ["hands", (m) => `${m.hands_min.toFixed(0)} min`],
    ["leaven", (m) => m.leavens.join(", ").toLowerCase() || "none"],
    ["gas", (m) => (m.soda ? `soda and acid: ${m.soda}` : m.leavens.length ? SAY.byTheLeavenAlone : "none")],
    ["water", (m) => (m.hydration_frac === null ? "–" : `${(m.hydration_frac * 100).toFixed(0)} %`)],
    [
      "piece",
      (m) =>
        `${m.count} × ${m.piece_g.toFixed(0)} g, ${m.shape === "oval" ? `${m.length_cm} × ${m.width_cm} cm` : `${m.diameter_cm} cm`}`,
    ],
    ["heat", (m) => m.program],
    ["hold", (m) => m.hold],
    ["contains", (m) => m.allergens.join(", ")],
    ["watch", (m) => m.cautions.map((c) => c.text).join(" ")],
  ];
  return (
    <div>
      {methods.length === 1 && (
        <>
          <h2>{first.name}</h2>
          <p style={{ margin: "4px 0 10px" }}>{first.why}</p>
        </>
      )}
      <Table aria-label={methods.length > 1 ? SAY.twoMethodsSideBySide : `About ${first.name}`}>
        {methods.length > 1 && (
          <thead>
            <tr>
              <th scope="col">
                <span className="unseen">what</span>
              </th>
              {methods.map((m) => (
                <th key={m.id} scope="col">
                  {m.name}
                </th>
              ))}
            </tr>
          </thead>
        )}
        <tbody>
          {rows
            .filter(([, tell]) => methods.some((m) => tell(m)))
            .map(([name, tell]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                {methods.map((m) => (
                  <td key={m.id}>{tell(m) || "–"}</td>
                ))}
              </tr>
            ))}
        </tbody>
      </Table>
      {methods.length > 1 && (
        <Button data-kind="bare" onPress={onAlone}>
          only {first.name}
        </Button>
      )}
      {methods.length === 1 && first.shaping.length > 0 && (
        <ol style={{ marginTop: 10 }}>
          {first.shaping.map((s) => (
            <li key={s} style={{ padding: "2px 0" }}>
              {s}
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}
