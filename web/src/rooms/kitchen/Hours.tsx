import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";
import { faultOf, type Kitchen, type Schemas } from "../../api/client";
import { useNow } from "../../api/clock";
import { hoursQuery, useHoursWrites } from "../../api/day";
import type { useKitchenWrites } from "../../api/kitchen";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { useWords } from "../../frame/units";
import { clock, clockNear, ms, typedNumber } from "../../words/format";
import { SAY } from "../../words/say/kitchen";

const DAYS = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const Rows = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  max-width: 900px;
  li {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 18px;
    align-items: center;
    min-height: 48px;
    border-bottom: 1px solid var(--hair);
  }
  b {
    min-width: 12em;
  }
  .when {
    font: 600 18px/1.2 var(--mono);
    flex: 1 1 12em;
  }
`;
const Week = styled.div`
  display: flex;
  flex-wrap: wrap;
  button {
    min-width: 56px;
    min-height: 48px;
    border: 2px solid var(--ink);
    margin-right: -2px;
    background: transparent;
    color: var(--ink);
    font: 500 17px/1 var(--text);
  }
  button[aria-pressed="true"] {
    background: var(--ink);
    color: var(--ground);
    font-weight: 700;
  }
`;
type Rule = Schemas["BusyRule"];
type Who = "all" | "one";

/** Hours in which hands are away: by the week, once, or from a calendar. The plans go around them. */
export function Hours({ kitchen: k, writes }: { kitchen: Kitchen; writes: ReturnType<typeof useKitchenWrites> }) {
  const { zone } = useWords();
  const now = useNow(60_000);
  const hours = useQuery(hoursQuery(k.id));
  const { add, change, drop, bring, dropCalendar } = useHoursWrites(k.id);
  const [edited, setEdited] = useState<Rule | null>(null);
  const [gone, setGone] = useState<{ words: string; back: () => void } | null>(null);
  const when = (r: Rule) =>
    r.days
      ? `${r.days.map((d) => DAYS[d]).join(" ")} ${r.from_time}–${r.until_time}`
      : `${clockNear(r.start!, now, zone)} – ${clockNear(r.end!, now, zone)}`;
  const who = (hands: number | null) =>
    hands === 0 ? "free after all" : hands === null || hands >= k.cooks ? "all hands" : `${hands} of ${k.cooks} cooks`;
  return (
    <section id="hours">
      <div className="row">
        <Field
          label="Cooks at work"
          value={String(k.cooks)}
          width="8em"
          inputMode="numeric"
          onCommit={(t) => writes.change.mutate({ cooks: typedNumber(t) })}
        />
      </div>
      {hours.error && <Plate>{hours.error.message}</Plate>}
      {hours.data && hours.data.rules.length + hours.data.calendars.length === 0 && (
        <p className="quiet">{SAY.noneYetThePlanTakesYour}</p>
      )}
      <Rows>
        {hours.data?.rules.map((r) => (
          <li key={r.id}>
            <b>{r.name}</b>
            <span className="when">{when(r)}</span>
            <span className="quiet">{who(r.hands)}</span>
            <Button data-kind="bare" aria-label={`Change ${r.name}`} onPress={() => setEdited(r)}>
              change
            </Button>
            <Button
              data-kind="bare"
              aria-label={`Take away ${r.name}`}
              onPress={() =>
                drop.mutate(
                  { id: r.id },
                  { onSuccess: () => setGone({ words: r.name, back: () => drop.mutate({ id: r.id, back: true }) }) },
                )
              }
            >
              take away
            </Button>
          </li>
        ))}
        {hours.data?.calendars.map((c) => (
          <li key={`c${c.id}`}>
            <b>{c.name}</b>
            <span className="when">calendar, {c.ahead} in two weeks</span>
            <span className="quiet">{who(c.hands)}</span>
            <Button
              data-kind="bare"
              aria-label={`Take away calendar ${c.name}`}
              onPress={() =>
                dropCalendar.mutate(
                  { id: c.id },
                  {
                    onSuccess: () =>
                      setGone({ words: c.name, back: () => dropCalendar.mutate({ id: c.id, back: true }) }),
                  },
                )
              }
            >
              take away
            </Button>
          </li>
        ))}
      </Rows>
      {gone && (
        <p>
          {gone.words} {SAY.isTakenAway}{" "}
          <Button
            data-kind="bare"
            onPress={() => {
              gone.back();
              setGone(null);
            }}
          >
            Bring it back
          </Button>
        </p>
      )}
      <AddHours
        key={edited?.id ?? "new"}
        cooks={k.cooks}
        zone={zone}
        edited={edited}
        add={add}
        change={change}
        onDone={() => setEdited(null)}
      />
      <BringCalendar cooks={k.cooks} bring={bring} />
    </section>
  );
}

interface AddProps {
  cooks: number;
  zone: string;
  edited: Rule | null;
  add: ReturnType<typeof useHoursWrites>["add"];
  change: ReturnType<typeof useHoursWrites>["change"];
  onDone: () => void;
}

/** New hours, or those that are being changed. */
function AddHours({ cooks, zone, edited, add, change, onDone }: AddProps) {
  const [kind, setKind] = useState<"week" | "once">(edited && !edited.days ? "once" : "week");
  const [who, setWho] = useState<Who>(edited?.hands ? "one" : "all");
  const [days, setDays] = useState<number[]>(edited?.days ?? [0, 1, 2, 3, 4]);
  const typed = (iso: string | null | undefined) => (iso ? localText(iso, zone) : "");
  const [said, setSaid] = useState({
    name: edited?.name ?? "",
    from: edited?.from_time ?? typed(edited?.start),
    until: edited?.until_time ?? typed(edited?.end),
  });
  const error = edited ? change.error : add.error;
  const set = (part: Partial<typeof said>) => setSaid({ ...said, ...part });
  const hands = who === "one" ? 1 : null;
  const send = () => {
    const times =
      kind === "week"
        ? { days, from_time: clockTime(said.from), until_time: clockTime(said.until) }
        : { days: [], start: said.from, end: said.until };
    const body = { name: said.name || (kind === "week" ? "work" : "busy"), hands, ...times };
    if (edited) change.mutate({ id: edited.id, ...body }, { onSuccess: onDone });
    else add.mutate(body, { onSuccess: () => setSaid({ name: "", from: "", until: "" }) });
  };
  const left = ["name", "days", "hands"].map((f) => faultOf(error, f)).find(Boolean);
  return (
    <div style={{ display: "grid", gap: 8 }}>
      <div className="row">
        <Choice
          label="How often"
          value={kind}
          options={[
            { id: "week", text: "every week" },
            { id: "once", text: "once" },
          ]}
          onChange={setKind}
        />
        {cooks > 1 && (
          <Choice
            label="Whose hands"
            value={who}
            options={[
              { id: "all", text: "all hands" },
              { id: "one", text: "one cook" },
            ]}
            onChange={setWho}
          />
        )}
        {kind === "week" && (
          <Week role="group" aria-label="Days">
            {DAYS.map((d, i) => (
              <button
                key={d}
                type="button"
                aria-pressed={days.includes(i)}
                onClick={() => setDays(days.includes(i) ? days.filter((x) => x !== i) : [...days, i])}
              >
                {d}
              </button>
            ))}
          </Week>
        )}
      </div>
      <div className="row">
        <Field
          label="What for"
          value={said.name}
          placeholder={kind === "week" ? "sleep" : "shutter drill"}
          width="13em"
          onCommit={(name) => set({ name })}
        />
        <Field
          label="From"
          value={said.from}
          placeholder={kind === "week" ? "22:30" : "Fri 18:00"}
          width="9em"
          onCommit={(from) => set({ from })}
          fault={faultOf(error, "from_time") ?? faultOf(error, "start")}
        />
        <Field
          label="Until"
          value={said.until}
          placeholder={kind === "week" ? "06:30" : "Fri 20:00"}
          width="9em"
          onCommit={(until) => set({ until })}
          fault={faultOf(error, "until_time") ?? faultOf(error, "end")}
        />
        <Button onPress={send} isDisabled={add.isPending || change.isPending || (kind === "week" && days.length === 0)}>
          {edited ? "Keep the change" : "Add these hours"}
        </Button>
        {edited && (
          <Button data-kind="bare" onPress={onDone}>
            leave it
          </Button>
        )}
      </div>
      {left && <Plate>{left}</Plate>}
    </div>
  );
}

/** 2026-11-27 21:20 in the kitchen's zone, as it can be typed back. */
const localText = (iso: string, zone: string): string =>
  `${new Intl.DateTimeFormat("en-CA", { timeZone: zone }).format(ms(iso))} ${clock(iso, zone)}`;

/** 6:30 as 06:30; anything else as it was typed. */
const clockTime = (text: string): string => (/^\d:\d\d$/.test(text) ? `0${text}` : text);

function BringCalendar({ cooks, bring }: { cooks: number; bring: ReturnType<typeof useHoursWrites>["bring"] }) {
  const [text, setText] = useState("");
  const [who, setWho] = useState<Who>("all");
  const send = (body: string) =>
    bring.mutate({ text: body, hands: who === "one" ? 1 : null, all_day: false }, { onSuccess: () => setText("") });
  return (
    <details>
      <summary style={{ minHeight: 48, display: "flex", alignItems: "center", fontWeight: 650, cursor: "pointer" }}>
        {SAY.bringInACalendarIcalendarFile}
      </summary>
      <div style={{ display: "grid", gap: 10, paddingBottom: 12 }}>
        <div className="row">
          {cooks > 1 && (
            <Choice
              label="Whose hands"
              value={who}
              options={[
                { id: "all", text: "all hands" },
                { id: "one", text: "one cook" },
              ]}
              onChange={setWho}
            />
          )}
          <label style={{ display: "grid", gap: 4 }}>
            A file
            <input
              type="file"
              accept=".ics,text/calendar"
              style={{ minHeight: 48 }}
              onChange={(e) => {
                const file = e.target.files?.[0];
                if (file) void file.text().then(send);
                e.target.value = "";
              }}
            />
          </label>
        </div>
        <label style={{ display: "grid", gap: 4, maxWidth: 900 }}>
          or its text
          <textarea
            rows={4}
            value={text}
            onChange={(e) => setText(e.target.value)}
            style={{
              font: "500 16px/1.4 var(--mono)",
              background: "var(--paper)",
              border: "2px solid var(--ink)",
              color: "var(--ink)",
              padding: 8,
            }}
          />
        </label>
        <div>
          <Button onPress={() => send(text)} isDisabled={!text.trim() || bring.isPending}>
            {bring.isPending ? "Reading…" : "Bring it in"}
          </Button>
        </div>
        {bring.error && <Plate>{faultOf(bring.error, "text") ?? bring.error.message}</Plate>}
        {bring.data?.said && (
          <p role="status">
            {bring.data.said} {SAY.aCalendarOfTheSameName}
          </p>
        )}
      </div>
    </details>
  );
}
