import { type ReactNode, useEffect, useState } from "react";
import { Tab, TabList, TabPanel, Tabs } from "react-aria-components";
import styled from "styled-components";
import { commandKey } from "./keys";

const Row = styled(Tabs)`
  display: grid;
  grid-template-columns: minmax(176px, auto) minmax(0, 1fr);
  gap: 0 20px;
  min-height: 0;
  .names {
    display: grid;
    align-content: start;
    border-right: 2px solid var(--hair);
  }
  .name {
    min-height: 48px;
    display: flex;
    align-items: center;
    padding: 0 14px;
    font: 600 19px/1.1 var(--name);
    border-bottom: 1px solid var(--hair);
    cursor: pointer;
    outline: none;
  }
  &[data-low] .names {
    @media (max-height: 880px) {
      grid-template-columns: 118px 118px;
    }
  }
  .name[data-selected] {
    background: var(--brass-wash);
    box-shadow: inset 6px 0 0 var(--brass);
    font-weight: 700;
  }
  .name[data-hovered] {
    text-decoration: underline;
  }
  .name[data-pressed] {
    background: var(--brass-wash);
  }
  .name[data-focus-visible] {
    outline: 3px solid var(--brass);
    outline-offset: -3px;
  }
  .panel {
    min-width: 0;
    min-height: 0;
    outline: none;
    overflow-y: auto;
    display: grid;
    align-content: start;
    gap: 8px;
  }
  .panel[data-focus-visible] {
    outline: 3px solid var(--brass);
  }
  @media (max-width: 760px) {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr);
    gap: 8px 0;
    .names {
      display: flex;
      border-right: 0;
      border-bottom: 2px solid var(--hair-2);
    }
    .name {
      flex: 1 1 0;
      justify-content: center;
      text-align: center;
      padding: 4px 3px;
      font-size: 16px;
      border-bottom: 0;
    }
    .name[data-selected] {
      box-shadow: inset 0 -5px 0 var(--brass);
    }
  }
  @media print {
    display: none;
  }
`;

export interface Panel {
  id: string;
  name: string;
  /** The single key that opens it. */
  key: string;
  content: ReactNode;
}
const STORE = "brass-clock.panel.";

/** One row of named panels, one open at a time; which one is remembered under `remember`. By finger, arrow keys, or each by its key. */
export function Panels({
  label,
  remember,
  panels,
  low = false,
}: {
  label: string;
  remember: string;
  panels: readonly Panel[];
  /** True where a small window leaves them room for two rows of names only. */
  low?: boolean;
}) {
  const [open, setOpen] = useState(() => localStorage.getItem(STORE + remember));
  const shown = panels.some((p) => p.id === open) ? open! : panels[0]!.id;
  const choose = (id: string) => {
    localStorage.setItem(STORE + remember, id);
    setOpen(id);
  };
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      const key = commandKey(e);
      const found = panels.find((p) => p.key === key);
      if (found) choose(found.id);
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  });
  return (
    <Row
      className="panels"
      {...(low ? { "data-low": "" } : {})}
      orientation={innerWidth > 760 ? "vertical" : "horizontal"}
      selectedKey={shown}
      onSelectionChange={(id) => choose(String(id))}
    >
      <TabList aria-label={label} className="names">
        {panels.map((p) => (
          <Tab key={p.id} id={p.id} className="name">
            {p.name}
          </Tab>
        ))}
      </TabList>
      {panels.map((p) => (
        <TabPanel key={p.id} id={p.id} className="panel">
          {p.content}
        </TabPanel>
      ))}
    </Row>
  );
}
