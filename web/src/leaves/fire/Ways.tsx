import { scaleLinear } from "d3-scale";
import styled from "styled-components";
import type { Schemas } from "../../api/client";
import { useWidth } from "../../controls/width";
import { useWords } from "../../frame/units";
import { FaceStrips } from "../../instruments/FaceStrips";
import { temp, tempUnit } from "../../words/format";
import { sidesWords } from "../../words/heat";
import { SAY } from "../../words/say/fire";

type Way = Schemas["WayRead"];
const NAMES: Record<Way["name"], string> = { usual: "The usual way", own: "Yours", own_at_its_heat: "Yours" };

const Rows = styled.div`
  display: grid;
  grid-template-columns: max-content minmax(180px, 1fr) max-content;
  align-items: center;
  .way {
    display: contents;
    > * {
      padding: 8px 0 8px 14px;
      align-self: stretch;
      display: grid;
      align-content: center;
      border-top: 1.5px solid var(--hair-2);
    }
  }
  .way:first-child > * {
    border-top: 0;
  }
  .name b {
    font: 600 20px/1.2 var(--name);
  }
  .name span {
    font: 700 17px/1.3 var(--mono);
  }
  .ends {
    text-align: right;
    font-size: 17px;
    line-height: 1.35;
  }
  .way[data-fits="true"] > * {
    background: var(--brass-wash);
  }
  .way > .name {
    padding-left: 8px;
  }
  .ends {
    padding-right: 8px !important;
  }
  .axis {
    display: contents;
    svg,
    .quiet {
      margin-left: 14px;
    }
    text {
      font: 700 15px var(--mono);
      fill: var(--ink);
    }
  }
  @media (max-width: 620px) {
    grid-template-columns: minmax(0, 1fr) max-content;
    .strips {
      grid-column: 1 / -1;
      border-top: 0 !important;
      padding-top: 0 !important;
      order: 3;
    }
    .way {
      display: grid;
      grid-template-columns: subgrid;
      grid-column: 1 / -1;
    }
    .axis > * {
      grid-column: 1 / -1;
    }
  }
`;

/** Ways through the heat beside each other, on one axis of seconds. */
export function Ways({ ways }: { ways: readonly Way[] }) {
  const units = useWords();
  const [box, width] = useWidth<HTMLDivElement>();
  const end = Math.max(...ways.map((w) => w.off_s));
  const x = scaleLinear()
    .domain([0, end])
    .range([0, Math.max(width - 2, 10)]);
  return (
    <Rows role="table" aria-label={SAY.theUsualWayAndYoursBeside}>
      {ways.map((way) => (
        <div key={way.name} className="way" role="row" data-fits={way.name === "own_at_its_heat"}>
          <div className="name" role="rowheader">
            <b>{NAMES[way.name]}</b>
            <span>{sidesWords(way.turn_s, way.off_s)}</span>
            <small className="quiet">
              at {temp(way.surface_c, units)} {tempUnit(units)}
            </small>
          </div>
          <div className="strips" role="cell">
            <div ref={way.name === "usual" ? box : undefined} />
            <FaceStrips
              bottom={way.bottom}
              top={way.top}
              turnS={way.turn_s}
              offS={way.off_s}
              opensS={way.opens_s}
              x={x}
              width={width}
            />
          </div>
          <div className="ends" role="cell">
            <span>
              <b>{way.bottom.at(-1)!.word}</b>, then <b>{way.top.at(-1)!.word}</b>
            </span>
            <span>
              {way.through ? `${(100 * way.loss_frac).toFixed(0)} % lost` : <b>not through</b>}; one every{" "}
              {way.every_s.toFixed(0)} s
            </span>
          </div>
        </div>
      ))}
      <div className="axis" role="row">
        <span role="cell" />
        <svg role="cell" aria-label={`Seconds, to ${end.toFixed(0)}`} width={width} height={26}>
          {x.ticks(Math.max(2, Math.round(width / 70))).map((s) => (
            <g key={s}>
              <line x1={x(s)} x2={x(s)} y1={0} y2={7} stroke="var(--ink)" strokeWidth={1.5} />
              <text x={x(s)} y={23} textAnchor={s === 0 ? "start" : x(s) > width - 18 ? "end" : "middle"}>
                {s}
              </text>
            </g>
          ))}
        </svg>
        <span role="cell" className="quiet">
          seconds
        </span>
      </div>
    </Rows>
  );
}
