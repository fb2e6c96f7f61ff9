import styled from "styled-components";
import type { WeighSheet } from "../../api/client";
import { Why } from "../../controls/Why";
import { useWords } from "../../frame/units";
import { mass, percent } from "../../words/format";
import { SAY } from "../../words/say/weigh";

const Account = styled.div`
  .big {
    font: 700 58px/1 var(--name);
  }
  .line {
    display: flex;
    align-items: baseline;
    justify-content: space-between;
    gap: 12px;
    flex-wrap: wrap;
  }
  .unit {
    font: 500 24px/1 var(--name);
  }
  .bar {
    display: flex;
    border: 2px solid var(--ink);
    height: 44px;
    margin: 8px 0 4px;
  }
  .bar span {
    display: grid;
    place-items: center;
    overflow: hidden;
    white-space: nowrap;
    font: 700 17px/1 var(--text);
    padding: 0 6px;
    flex: 0 1 auto;
    min-width: 0;
  }
  .bar span:first-child {
    background: var(--ink);
    color: var(--ground);
  }
  .bar span:not(:first-child) {
    border-left: 2px solid var(--ink);
    background: var(--paper);
  }
`;

const NAMED = 2; // names that the bar has room for

/** Where the water hides, and what it comes to over the flour. */
export function WaterPanel({ sheet }: { sheet: WeighSheet | null }) {
  const units = useWords();
  if (!sheet || sheet.hydration_frac === null) return <p className="quiet">{SAY.waterOverFlourStandsHereOnce}</p>;
  const wet = sheet.lines.filter((l) => l.water_g > 2).sort((a, b) => b.water_g - a.water_g);
  const told = (l: WeighSheet["lines"][number]) =>
    `${mass(l.water_g, units)} ${l.ingredient === "water" ? "from the tap" : `in ${l.name.toLowerCase()}`}`;
  const tap = wet.filter((l) => l.ingredient === "water").reduce((a, l) => a + l.water_g, 0);
  return (
    <Account>
      <h2>{SAY.whereTheWaterHides}</h2>
      <div className="bar" role="img" aria-label={wet.map((l) => `${l.name} ${l.water_g.toFixed(0)} g`).join(", ")}>
        {wet.map((l) => (
          <span key={l.ingredient} style={{ flexGrow: l.water_g }}>
            {wet.length > NAMED ? mass(l.water_g, units) : told(l)}
          </span>
        ))}
      </div>
      {wet.length > NAMED && <p className="quiet">{wet.map(told).join(", ")}</p>}
      <div className="line">
        <span>
          <Why why={sheet.why["hydration_frac"]} label="True water">
            <span className="big">{percent(sheet.hydration_frac)}</span>
          </Why>{" "}
          <span className="unit">% true water</span>
        </span>
        {sheet.hydration_high - sheet.hydration_low > 0.01 && (
          <span className="quiet">
            {percent(sheet.hydration_low)} to {percent(sheet.hydration_high)} {SAY.asCupsAreFilled}
          </span>
        )}
        {sheet.flour_g > 0 && Math.abs(tap / sheet.flour_g - sheet.hydration_frac) > 0.01 && (
          <span className="quiet">looks like {percent(tap / sheet.flour_g)} %</span>
        )}
      </div>
      {sheet.feel && (
        <p>
          <Why why={sheet.why["effective_hydration_frac"]} label={SAY.howWetItFeels}>
            <span className="unit">{sheet.feel.word}</span>
          </Why>{" "}
          <span className="quiet">
            feels like {percent(sheet.effective_hydration_frac ?? 0)} %. {sheet.feel.means}
          </span>
        </p>
      )}
    </Account>
  );
}
