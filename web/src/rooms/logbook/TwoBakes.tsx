import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import styled from "styled-components";
import { twoQuery } from "../../api/logbook";
import { useWords } from "../../frame/units";
import { dayName } from "../../words/format";
import { SAY } from "../../words/say/logbook";

const Box = styled.section`
  min-width: 0;
  table {
    border-collapse: collapse;
    width: 100%;
    font-size: 16px;
  }
  th,
  td {
    text-align: left;
    padding: 4px 8px 4px 0;
    border-bottom: 1px solid var(--hair);
  }
  .leaf {
    color: var(--ink-2);
    font-weight: 500;
  }
  td.cost {
    font: 700 17px/1 var(--mono);
    text-align: right;
  }
  .table {
    max-height: 190px;
    overflow: auto;
  }
  a {
    color: var(--brass);
    font-weight: 650;
  }
`;

/** Two bakes side by side: what differed, and what each difference cost by the model. */
export function TwoBakes({ kitchen, chosen }: { kitchen: number; chosen: readonly number[] }) {
  const { zone } = useWords();
  const [a, b] = chosen;
  const two = useQuery({ ...twoQuery(kitchen, a ?? 0, b ?? 0), enabled: a !== undefined && b !== undefined });
  const found = two.data;
  return (
    <Box aria-label="Two bakes">
      <h2>Two bakes</h2>
      {a === undefined && <p className="quiet">{SAY.chooseTwo}</p>}
      {a !== undefined && b === undefined && (
        <p className="quiet">
          <Link to={`/b/${a}/keep`}>Open it</Link>. {SAY.pressAnother}
        </p>
      )}
      {two.error && <p role="alert">{two.error.message}</p>}
      {found && (
        <div className="table" tabIndex={0} role="group" aria-label="What differed">
          <table>
            <thead>
              <tr>
                <th scope="col" />
                {[found.a, found.b].map((x, i) => (
                  <th scope="col" key={x.id}>
                    {"AB"[i]} <Link to={`/b/${x.id}/keep`}>{dayName(x.serve_at, zone)}</Link>
                  </th>
                ))}
                <th scope="col">cost</th>
              </tr>
            </thead>
            <tbody>
              <tr>
                <th scope="row">full pockets</th>
                <td>
                  {found.a.full} of {found.a.judged}
                </td>
                <td>
                  {found.b.full} of {found.b.judged}
                </td>
                <td />
              </tr>
              {found.rows.map((r, i) => (
                <tr key={r.what}>
                  <th scope="row">
                    {r.leaf !== found.rows[i - 1]?.leaf && <span className="leaf">{r.leaf}: </span>}
                    {r.what}
                  </th>
                  <td>{r.a}</td>
                  <td>{r.b}</td>
                  <td className="cost">
                    {r.cost === null ? "" : r.cost > 0 ? `−${r.cost}` : r.cost < 0 ? `+${-r.cost}` : "0"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="quiet">{found.rows.length ? SAY.ofTheScore : SAY.nothingDiffered}</p>
        </div>
      )}
    </Box>
  );
}
