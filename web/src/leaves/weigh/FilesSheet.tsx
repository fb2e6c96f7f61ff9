import { useState } from "react";
import styled from "styled-components";
import type { Bake } from "../../api/client";
import { usePantryWrites } from "../../api/weigh";
import { Button } from "../../controls/Button";
import { Field } from "../../controls/Field";
import { Plate } from "../../controls/Notice";
import { Sheet } from "../../controls/Sheet";
import { SAY } from "../../words/say/weigh";

const Links = styled.div`
  display: grid;
  gap: 2px;
  a {
    min-height: 48px;
    display: flex;
    align-items: center;
    gap: 10px;
    color: var(--brass);
    font-weight: 650;
    border-bottom: 1px solid var(--hair);
    text-decoration: none;
  }
  a span {
    color: var(--ink-2);
    font-weight: 450;
  }
`;
const KINDS = [
  ["json", "Bake file", SAY.everythingToBringBackHere],
  ["jsonld", "Recipe, JSON-LD", SAY.forProgramsThatReadRecipes],
  ["md", "Markdown", SAY.toReadAndPrint],
  ["csv", "CSV", "for a spreadsheet"],
] as const;

/** Take the sheet elsewhere: print it, save it as a file, keep it as a method. */
export function FilesSheet({ bake, open, onClose }: { bake: Bake; open: boolean; onClose: () => void }) {
  const pantry = usePantryWrites(bake.kitchen_id);
  const [name, setName] = useState(bake.name);
  return (
    <Sheet title="Print, save, keep" isOpen={open} onClose={onClose}>
      <Button
        onPress={() => {
          onClose();
          setTimeout(() => window.print(), 300);
        }}
      >
        Print the sheet
      </Button>
      <Links>
        {KINDS.map(([kind, title, what]) => (
          <a key={kind} href={`/api/bakes/${bake.id}/export/${kind}`} download>
            {title} <span>{what}</span>
          </a>
        ))}
      </Links>
      <div>
        <Field
          label={SAY.keepAsAMethodOfYour}
          value={name}
          width="100%"
          onType={setName}
          onCommit={setName}
          fault={pantry.method.error?.message ?? null}
        />
        <Button
          isDisabled={!name || pantry.method.isPending}
          onPress={() => pantry.method.mutate({ bake_id: bake.id, name })}
        >
          {SAY.keepItAsAMethod}
        </Button>
      </div>
      {pantry.method.isSuccess && <Plate>{SAY.keptItStandsFirstWhenYou}</Plate>}
    </Sheet>
  );
}
