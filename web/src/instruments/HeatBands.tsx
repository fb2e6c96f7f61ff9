import { scaleLinear } from "d3-scale";
import styled from "styled-components";
import { heatColour } from "../theme/temperature";

const Box = styled.div`
  display: grid;
  button,
  .axis {
    display: grid;
    grid-template-columns: 26px minmax(90px, 0.8fr) minmax(0, 1fr) 74px;
    gap: 10px;
    align-items: center;
    padding: 0 4px 0 8px;
  }
  button {
    min-height: 48px;
    border: 0;
    background: transparent;
    text-align: left;
    font: 500 18px/1.1 var(--text);
    border-bottom: 1px solid var(--hair);
  }
  button[aria-pressed="true"] {
    background: var(--brass-wash);
    box-shadow: inset 6px 0 0 var(--brass);
    font-weight: 700;
  }
  button:hover .name {
    text-decoration: underline;
  }
  .number {
    font: 700 21px/1 var(--name);
  }
  .name {
    overflow-wrap: anywhere;
  }
  .figure {
    font: 700 20px/1 var(--mono);
    letter-spacing: -0.03em;
    text-align: right;
  }
  .band {
    position: relative;
    height: 26px;
  }
  .band i {
    position: absolute;
  }
  .told {
    top: 12px;
    height: 2px;
    background: var(--hair-2);
  }
  .believed {
    top: 4px;
    height: 18px;
    border: 2px solid var(--ink);
  }
  .middle {
    top: 4px;
    width: 3px;
    height: 18px;
    margin-left: -1px;
    background: var(--paper);
  }
  .axis {
    height: 26px;
  }
  .axis .band {
    grid-column: 3;
    border-top: 2px solid var(--ink);
    font: 500 14px/1 var(--mono);
  }
  .axis .band i {
    top: 5px;
    font-style: normal;
    transform: translateX(-50%);
  }
`;

interface Band {
  p10_c: number;
  p50_c: number;
  p90_c: number;
}
export interface HeatRow {
  id: number;
  number: number;
  name: string;
  told: Band;
  believed: Band;
}

/** Each surface's heat on one scale: a line for what its setting or reading says, a bar for what is believed of it. */
export function HeatBands({
  rows,
  chosen,
  degrees,
  tick,
  onChoose,
}: {
  rows: readonly HeatRow[];
  chosen: number | null;
  degrees: (c: number) => string;
  tick: (c: number) => string;
  onChoose: (id: number) => void;
}) {
  const all = rows.flatMap((r) => [r.told, r.believed]);
  const low = Math.min(150, ...all.map((b) => b.p10_c));
  const high = Math.max(300, ...all.map((b) => b.p90_c));
  const x = scaleLinear().domain([low, high]).range([0, 100]);
  const between = (b: Band) => ({ left: `${x(b.p10_c)}%`, width: `${x(b.p90_c) - x(b.p10_c)}%` });
  return (
    <Box>
      {rows.map((r) => (
        <button key={r.id} type="button" aria-pressed={r.id === chosen} onClick={() => onChoose(r.id)}>
          <span className="number">{r.number}</span>
          <span className="name">{r.name}</span>
          <span className="band" aria-hidden="true">
            <i className="told" style={between(r.told)} />
            <i className="believed" style={{ ...between(r.believed), background: heatColour(r.believed.p50_c) }} />
            <i className="middle" style={{ left: `${x(r.believed.p50_c)}%` }} />
          </span>
          <span className="figure">{degrees(r.believed.p50_c)}</span>
        </button>
      ))}
      <div className="axis" aria-hidden="true">
        <span className="band">
          {[200, 300, 400]
            .filter((c) => c > low && c < high)
            .map((c) => (
              <i key={c} style={{ left: `${x(c)}%` }}>
                {tick(c)}
              </i>
            ))}
        </span>
      </div>
    </Box>
  );
}
