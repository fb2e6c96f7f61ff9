import { Button, Label, ListBox, ListBoxItem, Popover, Select, SelectValue } from "react-aria-components";
import styled from "styled-components";

const Box = styled(Select)`
  display: inline-flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
  .react-aria-Label {
    font-size: 16px;
    color: var(--ink-2);
    line-height: 1.35;
  }
  > button {
    min-height: 48px;
    border: 0;
    border-bottom: 3px solid var(--brass);
    background: transparent;
    font: 600 19px/1 var(--text);
    text-align: left;
    padding: 0 8px;
    display: flex;
    gap: 10px;
    align-items: center;
    justify-content: space-between;
  }
  > button[data-hovered] {
    background: var(--recess);
  }
`;
const List = styled(Popover)`
  background: var(--paper);
  border: 2px solid var(--ink);
  min-width: 240px;
  max-height: 360px;
  overflow: auto;
  [role="option"] {
    padding: 12px 14px;
    min-height: 48px;
    font-size: 18px;
    cursor: pointer;
  }
  [role="option"][data-focused] {
    background: var(--brass-wash);
  }
  [role="option"][data-selected] {
    font-weight: 700;
  }
`;

interface Props<T extends string> {
  label: string;
  hideLabel?: boolean;
  value: T;
  options: readonly { id: T; text: string }[];
  onChange: (value: T) => void;
}

/** One of several, folded away. */
export function Pick<T extends string>({ label, hideLabel = false, value, options, onChange }: Props<T>) {
  return (
    <Box selectedKey={value} onSelectionChange={(key) => key !== null && key !== value && onChange(key as T)}>
      <Label className={hideLabel ? "unseen" : undefined}>{label}</Label>
      <Button>
        <SelectValue />
        <svg width="14" height="10" viewBox="0 0 14 10" aria-hidden="true">
          <path d="M1 2l6 6l6-6" fill="none" stroke="currentColor" strokeWidth="2" />
        </svg>
      </Button>
      <List>
        <ListBox items={options}>{(o) => <ListBoxItem id={o.id}>{o.text}</ListBoxItem>}</ListBox>
      </List>
    </Box>
  );
}
