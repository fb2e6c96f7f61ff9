import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { askWhatIf } from "../../api/rise";
import { Field } from "../../controls/Field";
import { Why } from "../../controls/Why";
import { ms } from "../../words/format";
import { AS_IT_IS } from "./useWhatIf";
import { SAY } from "../../words/say/rise";

const Column = styled.div`
  display: grid;
  gap: 3px;
  align-content: start;
  padding-top: 6px;
  .name {
    color: var(--ink-2);
    font-size: 17px;
  }
  .big {
    font: 700 50px/1 var(--name);
  }
  .second {
    font-size: 40px;
    white-space: nowrap;
  }
  .second[data-long="true"] {
    font-size: 32px;
  }
  @media (max-width: 760px) {
    grid-template-columns: 1fr 1fr;
    gap: 2px 16px;
    padding-top: 0;
    .big {
      font-size: 34px;
    }
    > * {
      align-self: start;
    }
    .by {
      display: none;
    }
  }
`;
type Rise = Schemas["RiseRead"];
interface Props {
  rise: Rise;
  bake: Bake;
  stage: number;
  at: (t: number) => string;
}

const TENTHS = (p: number) =>
  p >= 0.95 ? "All but sure" : p <= 0.05 ? "Hardly possible" : `${Math.round(p * 10)} in 10`;

/** The figures of a rise that are read at two metres: how high, ready when, how sure. */
export function Figures({ rise, bake, stage, at }: Props) {
  const w = rise.windows[stage]!;
  const { ready } = w;
  const readyAt = ready.p50 ? at(ms(ready.p50)) : "never";
  return (
    <Column>
      <div>
        <div className="name">{rise.ratio_now === null ? "not mixed yet" : "risen"}</div>
        {rise.ratio_now === null ? (
          <span className="quiet">{SAY.theClockStartsWhenYouMark}</span>
        ) : (
          <span>
            <span className="big">{rise.ratio_now.toFixed(2)}</span> ×
          </span>
        )}
      </div>
      <div>
        <div className="name">{w.stage} ready at</div>
        <Why why={rise.why["ready"]} label="Ready time">
          <span className="big second" data-long={readyAt.length > 5}>
            {readyAt}
          </span>
        </Why>
      </div>
      {ready.p10 && ready.p90 && (
        <span>
          8 in 10 <b>{at(ms(ready.p10))}</b> to <b>{at(ms(ready.p90))}</b>
        </span>
      )}
      <Chance bake={bake} said={rise.ready_by[0]} at={at} />
    </Column>
  );
}

/** How likely it is that the balls can be rolled by the plan's hour, or by one that is typed. */
function Chance({ bake, said, at }: { bake: Bake; said: Schemas["ReadyBy"] | undefined; at: (t: number) => string }) {
  const ask = useMutation({ mutationFn: (by: string) => askWhatIf(bake.id, { ...AS_IT_IS, by }) });
  const [by, setBy] = useState("");
  const shown = ask.data?.rise.ready_by[1] ?? said;
  if (!shown) return null;
  return (
    <div>
      <span>
        <b>{TENTHS(shown.probability)}</b> by {at(ms(shown.at))}
      </span>
      <div data-print="no" className="by">
        <Field
          label="by"
          beside
          value={by}
          placeholder={SAY.howSure}
          width="7em"
          onType={setBy}
          onCommit={(t) => {
            setBy(t);
            if (t) ask.mutate(t);
            else ask.reset();
          }}
          fault={ask.error?.message ?? null}
        />
      </div>
    </div>
  );
}
