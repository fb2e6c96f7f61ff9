import type { ReactNode } from "react";
import { Button as AriaButton, Dialog, DialogTrigger, Heading, Modal, ModalOverlay } from "react-aria-components";
import styled from "styled-components";
import type { Why as WhyText } from "../api/client";
import { Button } from "./Button";
import { SAY } from "../words/say/controls";

const Ask = styled(AriaButton)`
  border: 0;
  background: none;
  padding: 0;
  margin: 0;
  min-height: 48px;
  min-width: 48px;
  text-align: left;
  color: inherit;
  font: inherit;
  > .figure {
    border-bottom: 3px dotted var(--brass);
    display: inline-block;
    line-height: 1.02;
    padding-bottom: 2px;
  }
  &[data-hovered] > .figure {
    border-bottom-style: solid;
  }
  &[data-pressed] > .figure {
    background: var(--brass-wash);
  }
`;
const Veil = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 30;
  background: rgb(0 0 0 / 35%);
  display: flex;
  justify-content: flex-end;
`;
const Sheet = styled(Modal)`
  width: min(460px, 100vw);
  height: 100%;
  background: var(--ground);
  color: var(--ink);
  border-left: 3px solid var(--ink);
  overflow-y: auto;
  section {
    padding: 24px;
    display: grid;
    gap: 18px;
    outline: none;
  }
  h2 {
    font-size: 26px;
  }
  h3 {
    font-size: 18px;
    margin-bottom: 6px;
  }
  .symbols {
    font-family: var(--mono);
    font-size: 17px;
    background: var(--recess);
    padding: 10px 12px;
    overflow-wrap: anywhere;
  }
  table {
    border-collapse: collapse;
    width: 100%;
  }
  td {
    border-bottom: 1px solid var(--hair);
    padding: 7px 0;
    vertical-align: top;
  }
  td:last-child {
    text-align: right;
    font-family: var(--mono);
    white-space: nowrap;
    letter-spacing: -0.03em;
  }
  li {
    padding: 3px 0 3px 16px;
    text-indent: -16px;
  }
  li::before {
    content: "· ";
  }
`;

interface Props {
  why: WhyText | undefined;
  children: ReactNode;
  label: string;
}

/** A figure that answers *why?*: pressing it opens the side sheet. Without an answer it is plain. */
export function Why({ why, children, label }: Props) {
  if (!why) return <>{children}</>;
  return (
    <DialogTrigger>
      <Ask aria-label={`${label}: why?`}>
        <span className="figure">{children}</span>
      </Ask>
      <Veil isDismissable>
        <Sheet>
          <Dialog aria-label={`Why: ${why.title}`}>{({ close }) => <WhySheet why={why} close={close} />}</Dialog>
        </Sheet>
      </Veil>
    </DialogTrigger>
  );
}

function WhySheet({ why, close }: { why: WhyText; close: () => void }) {
  return (
    <>
      <Heading slot="title" level={2}>
        {why.title}
      </Heading>
      <p>{why.words}</p>
      <p className="symbols">{why.relation}</p>
      <div>
        <h3>What went in</h3>
        <table>
          <tbody>
            {why.inputs.map((input) => (
              <tr key={input.name}>
                <td>{input.name}</td>
                <td>{`${input.value ?? "not given"} ${input.unit}`.trim()}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {why.spread && (
        <div>
          <h3>How sure</h3>
          <p>{why.spread}</p>
        </div>
      )}
      {why.matters.length > 0 && (
        <div>
          <h3>What matters most</h3>
          <ul>
            {why.matters.map((m) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
        </div>
      )}
      <div>
        <h3>{SAY.whatItRestsOn}</h3>
        <p>{why.evidence}</p>
        <ul className="quiet">
          {why.sources.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      </div>
      <Button onPress={close}>Close</Button>
    </>
  );
}
