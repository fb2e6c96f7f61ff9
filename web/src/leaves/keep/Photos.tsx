import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import styled from "styled-components";
import { base64Of } from "../../api/base64";
import type { Bake } from "../../api/client";
import { usePhotos } from "../../api/keep";
import { Button } from "../../controls/Button";
import { Plate } from "../../controls/Notice";
import { trayOf } from "./breads";
import { SAY } from "../../words/say/keep";

const Strip = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  li {
    display: grid;
    gap: 2px;
    justify-items: start;
  }
  img {
    display: block;
    height: 132px;
    width: auto;
    max-width: 100%;
    border: 2px solid var(--ink);
    background: var(--recess);
  }
`;
const KINDS = ["image/jpeg", "image/png", "image/webp"];

/** Pictures of the breads: of the one that is chosen, or of the tray. Each can be removed, and that undone. */
export function Photos({ bake, chosen }: { bake: Bake; chosen: number | null }) {
  const { add, remove } = usePhotos(bake.id);
  const [gone, setGone] = useState<number | null>(null);
  const names = new Map(trayOf(bake).map((b) => [b.round, b.name]));
  const { photos } = bake.keep;
  const of = (round: number | null) => (round === null ? "the tray" : (names.get(round) ?? `round ${round}`));
  return (
    <>
      {photos.length > 0 && (
        <Strip aria-label="Pictures">
          {photos.map((p) => (
            <li key={p.id}>
              <a href={`/api/photos/${p.id}`}>
                <img
                  src={`/api/photos/${p.id}`}
                  alt={`Picture of ${of(p.round_no)}`}
                  width={p.width}
                  height={p.height}
                />
              </a>
              <span className="quiet">
                {of(p.round_no)}{" "}
                <Button
                  data-kind="bare"
                  onPress={() => {
                    setGone(p.id);
                    remove.mutate({ id: p.id });
                  }}
                >
                  remove
                </Button>
              </span>
            </li>
          ))}
        </Strip>
      )}
      <div className="row">
        <FileTrigger
          acceptedFileTypes={KINDS}
          defaultCamera="environment"
          onSelect={(files) => {
            const file = files?.item(0);
            if (file) void base64Of(file).then((data) => add.mutate({ data, round_no: chosen }));
          }}
        >
          <Button isDisabled={add.isPending}>{add.isPending ? SAY.keepingIt : `A picture of ${of(chosen)}`}</Button>
        </FileTrigger>
        {gone !== null && !photos.some((p) => p.id === gone) && (
          <span>
            Removed.{" "}
            <Button data-kind="bare" onPress={() => remove.mutate({ id: gone, back: true })}>
              undo
            </Button>
          </span>
        )}
      </div>
      {(add.error ?? remove.error) && <Plate>{(add.error ?? remove.error)!.message}</Plate>}
    </>
  );
}
