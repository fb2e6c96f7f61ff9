import { useQuery } from "@tanstack/react-query";
import styled from "styled-components";
import type { Bake } from "../../api/client";
import { fireIfsQuery } from "../../api/fire";

const Box = styled.section`
  .ifs {
    border-collapse: collapse;
    width: 100%;
    max-width: 860px;
    th,
    td {
      text-align: left;
      padding: 5px 14px 5px 0;
      border-bottom: 1px solid var(--hair);
      font-size: 18px;
    }
    thead th {
      font-size: 16px;
      font-weight: 500;
      color: var(--ink-2);
    }
    td {
      font-family: var(--mono);
      font-weight: 700;
    }
    td .quiet {
      font-weight: 500;
    }
  }
`;

/** What if: one thing changed at a time, beside the bread as it is. */
export function Ifs({ bake, stamp }: { bake: Bake; stamp: string }) {
  const found = useQuery(fireIfsQuery(bake.id, stamp));
  return (
    <Box aria-label="What if">
      {found.error && <p role="alert">{found.error.message}</p>}
      <table className="ifs">
        <thead>
          <tr>
            <th />
            {bake.fire?.pocket && <th>pocket score</th>}
            <th>puffs at</th>
            <th>off at</th>
            <th>water lost</th>
          </tr>
        </thead>
        <tbody>
          {found.data?.map((x) => (
            <tr key={x.words}>
              <th scope="row">{x.words}</th>
              {bake.fire?.pocket && (
                <td>
                  {x.score.toFixed(0)}{" "}
                  <span className="quiet">
                    {Math.abs(x.score_by) < 0.5
                      ? "the same"
                      : `${x.score_by > 0 ? "+" : "−"}${Math.abs(x.score_by).toFixed(0)}`}
                  </span>
                </td>
              )}
              <td>{x.puff_s === null ? "never" : `${x.puff_s.toFixed(0)} s`}</td>
              <td>{x.off_s.toFixed(0)} s</td>
              <td>{(100 * x.moisture_loss_frac).toFixed(0)} %</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Box>
  );
}
