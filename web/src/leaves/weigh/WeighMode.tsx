import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Dialog, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import type { Bake, Schemas } from "../../api/client";
import { kitchensQuery } from "../../api/kitchen";
import { useTap } from "../../api/outbox";
import { Button } from "../../controls/Button";
import { isTyping } from "../../controls/keys";
import { useWords } from "../../frame/units";
import { mass } from "../../words/format";
import { useScale } from "./useScale";
import { useWeighed } from "./useWeighed";
import { SAY as DEVICES } from "../../words/say/devices";
import { SAY } from "../../words/say/weigh";

const Full = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 50;
  background: var(--ground);
  color: var(--ink);
  > div,
  section {
    height: 100%;
  }
  section {
    display: grid;
    grid-template-rows: auto minmax(0, 1fr) auto;
    outline: none;
  }
  header {
    display: flex;
    justify-content: space-between;
    align-items: center;
    gap: 12px;
    padding: 10px 24px;
    border-bottom: 5px double var(--hair-2);
    font: 600 24px/1 var(--name);
  }
  .now {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 300px;
    gap: 40px;
    padding: 24px;
    align-items: center;
    min-height: 0;
  }
  .name {
    font: 700 clamp(34px, 5.4vw, 68px)/1.05 var(--name);
    overflow-wrap: anywhere;
  }
  .grams {
    font: 700 clamp(84px, 15vw, 190px)/1 var(--name);
    white-space: nowrap;
  }
  .grams small {
    font-size: 0.35em;
  }
  .tare {
    font: 500 24px/1.3 var(--text);
  }
  .scale {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: 4px 16px;
    align-items: baseline;
    margin: 10px 0;
    font: 500 24px/1.2 var(--text);
  }
  .scale .bar {
    grid-column: 1 / -1;
    height: 26px;
    border: 2.5px solid var(--ink);
    background: var(--recess);
  }
  .scale i {
    display: block;
    height: 100%;
    background: var(--brass-fill);
    border-right: 2.5px solid var(--ink);
  }
  .scale[data-right="true"] .bar {
    outline: 3px solid var(--ink);
    outline-offset: 2px;
  }
  .scale b {
    font: 700 40px/1 var(--name);
  }
  .column {
    height: 100%;
    max-height: 420px;
    display: flex;
    flex-direction: column-reverse;
    border: 2.5px solid var(--ink);
    border-top: 0;
    background: var(--recess);
  }
  .column div {
    border-top: 1.5px solid var(--ink);
    background: var(--paper);
    min-height: 3px;
    display: grid;
    place-items: center;
    font: 600 16px/1 var(--text);
    overflow: hidden;
  }
  .column div[data-now="true"] {
    background: var(--brass-fill);
    color: var(--on-fill);
  }
  footer {
    display: grid;
    grid-template-columns: 150px minmax(0, 1fr);
    min-height: 132px;
  }
  footer button {
    border: 0;
    font: 700 42px/1 var(--name);
    background: var(--brass-fill);
    color: var(--on-fill);
    border-top: 3px solid var(--fill-edge);
  }
  footer button:first-child {
    background: var(--edge);
    color: var(--on-edge);
    font-size: 26px;
  }
  footer button:disabled {
    color: var(--hair-2);
  }
  footer button:focus-visible {
    outline-offset: -8px;
    outline-color: var(--ink);
  }
  @media (max-width: 700px) {
    .now {
      grid-template-columns: minmax(0, 1fr);
      padding: 16px;
    }
    .column {
      display: none;
    }
    header {
      padding: 10px 16px;
      font-size: 20px;
    }
    footer button {
      font-size: 30px;
    }
    footer {
      grid-template-columns: 100px minmax(0, 1fr);
    }
  }
`;

/** The lines in the bowl after one more. */
const nextOf = (was: readonly number[], lines: number): number[] => {
  const next = Array.from({ length: lines }, (_, i) => i).find((i) => !was.includes(i));
  return next === undefined ? [...was] : [...was, next];
};

/** One line at a time, tare as you go: the scale's own total is always known. `Space` for the next, `u` takes one back. */
export function WeighMode({ bake, sheet, onClose }: { bake: Bake; sheet: Schemas["WeighRead"]; onClose: () => void }) {
  const units = useWords();
  const tap = useTap(bake.id);
  const steps = sheet.lines.map((l, i) => ({ ...l, i }));
  const { done, put } = useWeighed(bake);
  const kitchen = useQuery(kitchensQuery());
  const next = steps.find((s) => !done.includes(s.i));
  const total = steps.filter((s) => done.includes(s.i)).reduce((a, s) => a + s.weighable_g, 0);
  const held = Object.entries(bake.settings.held).filter(([, x]) => x > 0);
  const g = (x: number) => mass(x, units);
  const forward = () => {
    if (next) return put((was) => nextOf(was, steps.length));
    if (!bake.taps.some((t) => t.kind === "weigh")) tap({ kind: "weigh" });
    onClose();
  };
  const scale = useScale(
    bake.kitchen_id,
    next ? { key: `${bake.id} ${next.i}`, wantG: next.weighable_g } : null,
    kitchen.data?.find((k) => k.id === bake.kitchen_id)?.scale_step_g ?? 0.1,
    forward,
  );
  const back = () => put((was) => was.slice(0, -1));
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.repeat) return;
      const onButton = e.target instanceof HTMLButtonElement;
      if (e.key === " " && !onButton) {
        e.preventDefault();
        forward();
      }
      if (e.key === "u") back();
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  });
  return (
    <Full isOpen onOpenChange={(open) => !open && onClose()}>
      <Modal>
        <Dialog aria-label="Weighing">
          <header>
            <span>
              {bake.name}: {Math.min(done.length + 1, steps.length)} of {steps.length}
            </span>
            <Button data-kind="bare" onPress={onClose}>
              to the sheet
            </Button>
          </header>
          <div className="now" role="status">
            {next ? (
              <div>
                <p className="name">{next.name}</p>
                <p className="grams">
                  {g(next.weighable_g)} <small>{units.mass}</small>
                </p>
                <p className="tare">
                  scale goes from {g(total)} to{" "}
                  <b>
                    {g(total + next.weighable_g)} {units.mass}
                  </b>
                  {Math.abs(next.rounding_frac) > 0.02
                    ? SAY.offWhatWasAskedG((next.rounding_frac * 100).toFixed(0), next.grams.toFixed(2))
                    : ""}
                </p>
                {scale && (
                  <div className="scale" data-right={scale.right} data-testid="on-scale">
                    <span className="bar" aria-hidden="true">
                      <i style={{ width: `${Math.min(Math.max(scale.inG / next.weighable_g, 0), 1) * 100}%` }} />
                    </span>
                    <b>
                      {g(Math.max(scale.inG, 0))} {units.mass}
                    </b>
                    <span>
                      {!scale.counts
                        ? DEVICES.putTheBowlOn
                        : scale.right
                          ? DEVICES.itStandsStill
                          : scale.over
                            ? DEVICES.overBy(`${g(scale.inG - next.weighable_g)} ${units.mass}`)
                            : DEVICES.stillToCome(`${g(next.weighable_g - Math.max(scale.inG, 0))} ${units.mass}`)}
                    </span>
                  </div>
                )}
                {next.basis !== "by weight" && <p className="tare">{next.typed}</p>}
                {held
                  .filter(([id]) => id === next.ingredient)
                  .map(([id, x]) => (
                    <p className="tare" key={id}>
                      <b>
                        {g(x)} {units.mass} of it aside
                      </b>
                      {SAY.inACupOfItsOwn}
                    </p>
                  ))}
              </div>
            ) : (
              <div>
                <p className="name">{SAY.allInTheBowl}</p>
                <p className="grams">
                  {g(total)} <small>{units.mass}</small>
                </p>
                {held.length > 0 && (
                  <p className="tare">
                    {held.map(([id, x]) => `${g(x)} ${units.mass} of ${id.replace(/_/g, " ")} stays aside`).join("; ")}
                  </p>
                )}
              </div>
            )}
            <div className="column" aria-hidden="true">
              {steps.map(
                (s) =>
                  (done.includes(s.i) || s === next) && (
                    <div key={s.i} data-now={s === next} style={{ height: `${(s.grams / sheet.total_g) * 100}%` }}>
                      {s.grams > sheet.total_g * 0.06 ? s.name.split(/[ ,/]/)[0] : ""}
                    </div>
                  ),
              )}
            </div>
          </div>
          <footer>
            <button type="button" disabled={done.length === 0} onClick={back}>
              Undo
            </button>
            <button type="button" onClick={forward} data-testid="weigh-next">
              {next ? "It is in" : "Weighed"}
            </button>
          </footer>
        </Dialog>
      </Modal>
    </Full>
  );
}
