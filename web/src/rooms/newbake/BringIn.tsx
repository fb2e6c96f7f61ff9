import { type RefObject, useState } from "react";
import { FileTrigger, Label, TextArea, TextField } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { usePantryWrites } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Choice } from "../../controls/Choice";
import { Plate } from "../../controls/Notice";
import { SAY } from "../../words/say/newbake";

const Box = styled.section`
  border-top: 2px solid var(--ink);
  padding-top: 10px;
  display: grid;
  gap: 8px;
  textarea {
    width: 100%;
    min-height: 76px;
    border: 2px solid var(--ink);
    background: var(--paper);
    padding: 8px;
    font: 500 16px/1.35 var(--text);
    resize: vertical;
  }
  .row {
    display: flex;
    gap: 10px;
    flex-wrap: wrap;
  }
  h3 {
    margin-top: 14px;
  }
  a {
    color: var(--brass);
    font-weight: 650;
    border-bottom: 2px solid var(--brass);
    padding: 12px 0 4px;
  }
`;

const Taken = styled.ul`
  li {
    display: grid;
    padding: 5px 0;
    border-bottom: 1px solid var(--hair);
  }
  q {
    font-size: 15px;
    font-style: italic;
  }
`;

/** A formula from elsewhere: a bake file, a recipe as JSON-LD or a saved page, Markdown, CSV, or a recipe
 * or a list as it is written. */
export function BringIn({
  kitchen,
  serve,
  entry,
}: {
  kitchen: number;
  serve: string;
  entry: RefObject<HTMLTextAreaElement | null>;
}) {
  const { bringIn } = usePantryWrites(kitchen);
  const [text, setText] = useState("");
  const [kept, setKept] = useState<"plan" | "kept">("plan");
  const send = (given: string) => bringIn.mutate({ text: given, serve, kept: kept === "kept" });
  const got = bringIn.data;
  return (
    <Box>
      <h2>Bring one in</h2>
      <TextField value={text} onChange={setText}>
        <Label className="quiet">{SAY.pasteARecipeJsonldASaved}</Label>
        <TextArea ref={entry} />
      </TextField>
      <Choice
        label={SAY.whatABakeFileIsFor}
        value={kept}
        options={[
          { id: "plan", text: "to bake" },
          { id: "kept", text: "into the logbook" },
        ]}
        onChange={setKept}
      />
      <div className="row">
        <Button isDisabled={!text.trim() || bringIn.isPending} onPress={() => send(text)}>
          {bringIn.isPending ? "Reading…" : "Read it"}
        </Button>
        <FileTrigger
          acceptedFileTypes={[".json", ".jsonld", ".html", ".htm", ".md", ".csv", ".txt"]}
          onSelect={(files) => {
            const file = files?.item(0);
            if (file) void file.text().then(send);
          }}
        >
          <Button>{SAY.fromAFile}</Button>
        </FileTrigger>
      </div>
      {bringIn.error && <Plate>{bringIn.error.message}</Plate>}
      {got && (
        <div role="status">
          <p>
            {got.read} lines read{got.unread.length ? SAY.toCorrectOnTheSheet(got.unread.length) : ""}.{" "}
            <Link to={`/b/${got.bake_id}/weigh`}>To the sheet</Link>
          </p>
          {got.taken && got.taken.length > 0 && (
            <>
              <h3>{SAY.whatItsStepsSay}</h3>
              <Taken>
                {got.taken.map((t) => (
                  <li key={t.text}>
                    <b>{t.text}</b>
                    {t.words && <q>{t.words}</q>}
                  </li>
                ))}
              </Taken>
              <p className="quiet">{SAY.theRestOfItsStepsIsInTheNote}</p>
            </>
          )}
          {got.notes.map((n) => (
            <p className="quiet" key={n}>
              {n}
            </p>
          ))}
        </div>
      )}
    </Box>
  );
}
