import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useNavigate, useLocation } from "react-router";
import styled from "styled-components";
import { type Bench, Problem, type Schemas } from "../../api/client";
import { ingredientsQuery, methodsQuery, usePantryWrites } from "../../api/weigh";
import { useStartBake } from "../../api/bake";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Seal } from "../../instruments/Glyph";
import { BringIn } from "./BringIn";
import { Compare } from "./Compare";
import { hoursText, suits, type Wish } from "./choose";
import { SAY } from "../../words/say/newbake";

export type Method = Schemas["MethodRead"];

const Page = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 364px;
  gap: 16px 28px;
  .methods {
    display: grid;
    border-top: 2px solid var(--ink);
  }
  .quick,
  .sift {
    display: flex;
    flex-wrap: wrap;
    gap: 10px 12px;
    align-items: center;
  }
  .sift h2 {
    min-width: 100px;
  }
  .pair {
    display: inline-flex;
    gap: 8px;
    align-items: center;
  }
  aside {
    border-left: 1.5px solid var(--hair-2);
    padding-left: 24px;
    display: grid;
    gap: 14px;
    align-content: start;
  }
  .go {
    position: sticky;
    bottom: -40px;
    background: var(--ground);
    border-top: 2px solid var(--ink);
    padding: 12px 0;
    display: flex;
    gap: 16px;
    align-items: center;
    z-index: 2;
    flex-wrap: wrap;
  }
  @media (max-width: 1000px) {
    grid-template-columns: minmax(0, 1fr);
    aside {
      border-left: 0;
      padding-left: 0;
    }
  }
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  border-bottom: 1px solid var(--hair);
  align-items: center;
  &[data-chosen="true"] {
    background: var(--brass-wash);
    box-shadow: inset 8px 0 0 var(--brass);
  }
  .pick {
    display: grid;
    grid-template-columns: 40px minmax(0, 1fr) auto;
    gap: 2px 14px;
    align-items: center;
    text-align: left;
    border: 0;
    background: none;
    padding: 9px 12px;
    min-height: 64px;
  }
  .pick:hover {
    background: var(--recess);
  }
  &[data-chosen="true"] .pick:hover {
    background: none;
  }
  .name {
    font: 600 23px/1.1 var(--name);
  }
  .about {
    grid-column: 2 / -1;
    color: var(--ink-2);
    font-size: 16px;
  }
  .beside {
    display: flex;
    gap: 14px;
    padding: 0 10px;
  }
`;
const WANTS = ["any", "pocket", "blister", "thin", "thick", "flat", "stuffed", "topped"] as const;
const TIMES = [
  { id: "any", text: "any" },
  { id: "1", text: "1 h" },
  { id: "3", text: "3 h" },
  { id: "8", text: "8 h" },
  { id: "30", text: "a day" },
] as const;

/** When do we eat, and what do we start from: chosen by what is wanted, the time, the cupboard, the surface. */
export function NewBakeRoom({ bench }: { bench: Bench }) {
  const go = useNavigate();
  const kitchen = bench.kitchen.id;
  const methods = useQuery(methodsQuery(kitchen));
  const known = useQuery(ingredientsQuery(kitchen));
  const pantry = usePantryWrites(kitchen);
  const start = useStartBake();
  const asked = (useLocation().state as { serve?: string } | null)?.serve;
  const [serve, setServe] = useState(asked ?? "in 5 h");
  const [method, setMethod] = useState("hatch-pita");
  const [beside, setBeside] = useState<string | null>(null);
  const [gone, setGone] = useState<string | null>(null);
  const recipe = useRef<HTMLTextAreaElement>(null);
  const [wish, setWish] = useState<Wish>({ want: "any", hours: "any", surface: "any", without: "" });
  const put = (part: Partial<Wish>) => setWish({ ...wish, ...part });
  const fields = start.error instanceof Problem ? start.error.fields : [];
  const fault = fields.find((f) => f.pointer === "/serve")?.detail ?? null;
  const shown = (methods.data ?? []).filter((m) => suits(m, wish, known.data ?? []));
  const chosen = methods.data?.find((m) => m.id === method);
  const other = methods.data?.find((m) => m.id === beside);
  const send = () =>
    start.mutate({ kitchen_id: kitchen, method, serve, name: null }, { onSuccess: (b) => void go(`/b/${b.id}/weigh`) });
  return (
    <Page>
      <div style={{ display: "grid", gap: 14, alignContent: "start" }}>
        <div className="quick">
          <h1>{SAY.whenDoWeEat}</h1>
          <Field
            label={SAY.writeItAsYouSayIt}
            hideLabel
            big
            value={serve}
            width="9em"
            onType={setServe}
            onCommit={setServe}
            fault={fault}
            placeholder="Friday 7 pm"
          />
          {["in 4 h", "19:00", "tomorrow 12:30"].map((t) => (
            <Button key={t} onPress={() => setServe(t)}>
              {t}
            </Button>
          ))}
        </div>
        <div className="sift">
          <h2>Start from</h2>
          <Choice
            label="What is wanted"
            value={wish.want as "any"}
            options={WANTS.map((id) => ({ id, text: id }))}
            onChange={(want) => put({ want })}
          />
          <span className="pair">
            <span className="quiet">within</span>
            <Choice
              label="Time there is"
              value={wish.hours as "any"}
              options={TIMES}
              onChange={(hours) => put({ hours })}
            />
          </span>
          {bench.kitchen.surfaces.length > 1 && (
            <span className="pair">
              <span className="quiet">on</span>
              <Choice
                label="On which surface"
                value={wish.surface}
                options={[
                  { id: "any", text: "any" },
                  ...bench.kitchen.surfaces.map((s) => ({ id: s.kind, text: s.name.toLowerCase() })),
                ].filter((o, i, all) => all.findIndex((x) => x.id === o.id) === i)}
                onChange={(surface) => put({ surface })}
              />
            </span>
          )}
          <span className="pair">
            <span className="quiet">without</span>
            <Field
              label="the cupboard lacks"
              hideLabel
              value={wish.without}
              placeholder="yeast, egg"
              width="6.500em"
              onType={(without) => put({ without })}
              onCommit={(without) => put({ without })}
            />
          </span>
        </div>
        <div className="methods">
          {shown.map((m) => (
            <Row key={m.id} data-chosen={method === m.id}>
              <button type="button" className="pick" aria-pressed={method === m.id} onClick={() => setMethod(m.id)}>
                <Seal seal={m.seal} size={26} />
                <span className="name">{m.name}</span>
                <span>{m.id === "blank" ? "" : `${hoursText(m)}, ${m.count} × ${m.piece_g.toFixed(0)} g`}</span>
                <span className="about">
                  {m.school}
                  {m.leavens.length ? `. ${m.leavens.join(", ").toLowerCase()}` : ""}
                </span>
              </button>
              <span className="beside">
                {m.id !== method && m.id !== "blank" && (
                  <Button data-kind="bare" onPress={() => setBeside(m.id)}>
                    compare
                  </Button>
                )}
                {m.own && (
                  <Button
                    data-kind="bare"
                    onPress={() => {
                      pantry.dropMethod.mutate({ id: m.id });
                      setGone(m.id);
                      setMethod("hatch-pita");
                    }}
                  >
                    put away
                  </Button>
                )}
              </span>
            </Row>
          ))}
          {methods.data && shown.length === 0 && <p style={{ padding: "14px 0" }}>{SAY.noMethodFitsAllOfThat}</p>}
        </div>
        {gone && (
          <p>
            {SAY.putAway}{" "}
            <Button
              data-kind="bare"
              onPress={() => {
                pantry.dropMethod.mutate({ id: gone, back: true });
                setGone(null);
              }}
            >
              undo
            </Button>
          </p>
        )}
        {start.error && !fault && <Plate>{start.error.message}</Plate>}
        <div className="go">
          <Button data-kind="brass" onPress={send} isDisabled={start.isPending}>
            Start this bake
          </Button>
          <span className="quiet">{chosen?.name}</span>
          <Button data-kind="bare" onPress={() => recipe.current?.focus()}>
            {SAY.orPasteARecipe}
          </Button>
        </div>
      </div>
      <aside>
        {chosen && (
          <Compare
            methods={other && other.id !== chosen.id ? [chosen, other] : [chosen]}
            onAlone={() => setBeside(null)}
          />
        )}
        <BringIn kitchen={kitchen} serve={serve} entry={recipe} />
      </aside>
    </Page>
  );
}
