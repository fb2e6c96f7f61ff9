import { type ReactNode, useState } from "react";
import styled from "styled-components";
import { Button } from "../../controls/Button";

const Box = styled.section`
  min-width: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 4px;
  header {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 4px 12px;
    align-items: start;
  }
  header > div {
    display: flex;
    flex-wrap: wrap;
    gap: 0 12px;
    align-items: baseline;
  }
  .figure {
    font: 700 22px/1 var(--name);
  }
  table {
    border-collapse: collapse;
    font-size: 16px;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    padding: 4px 12px 4px 0;
    border-bottom: 1px solid var(--hair);
    white-space: nowrap;
  }
  td + td,
  th + th {
    font-family: var(--mono);
  }
  .table {
    overflow: auto;
    max-height: 260px;
  }
`;

export interface Table {
  head: readonly string[];
  rows: readonly (readonly string[])[];
}

/** An instrument: its name, its one figure, its drawing, and the table behind it. */
export function Instrument({
  name,
  figure,
  about,
  table,
  children,
}: {
  name: string;
  figure?: ReactNode;
  about?: string;
  table: Table;
  children: ReactNode;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Box aria-label={name}>
      <header>
        <div>
          <h2>{name}</h2>
          {figure}
          {about && <span className="quiet">{about}</span>}
        </div>
        <Button data-kind="bare" aria-expanded={open} aria-label={`${name}, as a table`} onPress={() => setOpen(!open)}>
          {open ? "drawn" : "table"}
        </Button>
      </header>
      {open ? (
        <div className="table" tabIndex={0} role="group" aria-label={name}>
          <table>
            <thead>
              <tr>
                {table.head.map((h) => (
                  <th key={h} scope="col">
                    {h}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {table.rows.map((row, i) => (
                <tr key={i}>
                  {row.map((cell, k) => (
                    <td key={k}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : (
        children
      )}
    </Box>
  );
}
