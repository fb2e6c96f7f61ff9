import { useQuery } from "@tanstack/react-query";
import type { Bake } from "../../api/client";
import { timesQuery } from "../../api/keep";
import { useWidth } from "../../controls/width";
import { SaidAxis } from "../../instruments/SaidAxis";
import { span } from "../../words/format";
import { KeepPart } from "./panel";
import { SAY } from "../../words/say/keep";

/** Facts of the dough and of the line; the others are seconds of one bread. */
const LONGER = new Set(["ready to ball", "last one off"]);

/** What was said of this bake beside what it was: seconds of one bread on one axis, spans of the dough and the line beneath. */
export function SaidAndWas({ bake }: { bake: Bake }) {
  const [box, width] = useWidth<HTMLDivElement>();
  const { facts } = bake.keep;
  const seconds = facts.filter((f) => !LONGER.has(f.name));
  const spans = facts.filter((f) => LONGER.has(f.name));
  const long = (v: number | null) => (v === null ? "–" : span(v * 1000));
  return (
    <KeepPart aria-label="Said and was" ref={box}>
      <div className="title">
        <h2>Said and was</h2>
        <span className="quiet">{SAY.ringInsideItsBandSquareOutside}</span>
      </div>
      {facts.length === 0 && <p className="quiet">{SAY.nothingWasTappedWhileItHappened}</p>}
      {seconds.length > 0 && width > 0 && <SaidAxis rows={seconds} width={width} />}
      {spans.length > 0 && (
        <table>
          <thead>
            <tr>
              <th scope="col">dough and line</th>
              <th scope="col">said</th>
              <th scope="col">was</th>
            </tr>
          </thead>
          <tbody>
            {spans.map((f) => (
              <tr key={f.name}>
                <th scope="row">
                  {f.name} {f.inside === null ? "" : f.inside ? "○" : "■"}
                </th>
                <td>{long(f.said)}</td>
                <td>
                  <b>{long(f.was)}</b>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <Times bake={bake} />
    </KeepPart>
  );
}

/** Where the time went: each thing that was otherwise than meant, with its minutes and what to change. */
function Times({ bake }: { bake: Bake }) {
  const mixed = bake.steps.some((s) => s.key === "mix" && s.done_at);
  const found = useQuery({ ...timesQuery(bake.id, `${bake.revision}`), enabled: mixed });
  if (!found.data?.times.length) return null;
  return (
    <>
      <h3>{SAY.whereTheTimeWent}</h3>
      <ul className="lessons">
        {found.data.times.map((t) => (
          <li key={t.what}>
            <b>{`${Math.abs(t.minutes).toFixed(0)} min ${t.minutes > 0 ? "late" : "early"}`}</b>
            <span>
              {t.text} <span className="quiet">{t.change}</span>
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}
