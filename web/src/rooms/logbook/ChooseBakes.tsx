import { useDeferredValue, useEffect, useState } from "react";
import styled from "styled-components";
import type { Asked, Figures } from "../../api/logbook";
import { Field } from "../../controls/Field";
import { Pick } from "../../controls/Pick";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: end;
`;
const ANY = "any";
const BECAME = [
  { id: ANY, text: "however it went" },
  { id: "all_well", text: "all well" },
  { id: "fell_short", text: "fell short" },
  { id: "noted", text: "with a note" },
  { id: "not_judged", text: "not judged" },
];
const SEASONS = [
  { id: ANY, text: "all year" },
  { id: "autumn", text: "autumn" },
  { id: "winter", text: "winter" },
  { id: "spring", text: "spring" },
  { id: "summer", text: "summer" },
];

/** Which bakes: by the words they hold, by bread, leaven, surface, how they went, and season. */
export function ChooseBakes({
  asked,
  figures,
  onAsk,
}: {
  asked: Asked;
  figures: Figures | undefined;
  onAsk: (part: Record<string, string | null>) => void;
}) {
  const [words, setWords] = useState(asked.words ?? "");
  const late = useDeferredValue(words);
  useEffect(() => {
    if (late.trim() !== (asked.words ?? "")) onAsk({ words: late.trim() || null });
  }, [late, asked.words, onAsk]);
  const of = (rows: readonly { key: string; name: string; bakes: number }[] | undefined, any: string) => [
    { id: ANY, text: any },
    ...(rows ?? []).map((r) => ({ id: r.key, text: `${r.name} (${r.bakes})` })),
  ];
  const picks = [
    ["bread", "Bread", of(figures?.breads, "every bread")],
    ["leaven", "Leaven", of(figures?.leavens, "every leaven")],
    ["surface_id", "Surface", of(figures?.surfaces, "every surface")],
    ["became", "How it went", BECAME],
    ["season", "Season", SEASONS],
  ] as const;
  return (
    <Row role="search" aria-label="Which bakes">
      <Field
        label="Words"
        hideLabel
        value={asked.words ?? ""}
        onType={setWords}
        onCommit={setWords}
        placeholder="a word of them"
        width="10em"
      />
      {picks.map(([name, label, options]) => (
        <Pick
          key={name}
          label={label}
          hideLabel
          value={String(asked[name] ?? ANY)}
          options={options}
          onChange={(v) => onAsk({ [name]: v === ANY ? null : v })}
        />
      ))}
    </Row>
  );
}
