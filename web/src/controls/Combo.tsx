import { memo } from "react";
import { Button, ComboBox, Input, ListBox, ListBoxItem, Popover } from "react-aria-components";
import styled from "styled-components";

const Box = styled(ComboBox)`
  display: flex;
  min-width: 0;
  width: 100%;
  position: relative;
  .whole {
    display: none;
  }
  input {
    flex: 1 1 auto;
    min-width: 0;
    min-height: 46px;
    border: 0;
    background: transparent;
    font: 500 19px/1 var(--text);
    padding: 0 6px;
    text-overflow: ellipsis;
  }
  input:hover {
    background: var(--recess);
  }
  input[data-focused] {
    background: var(--brass-wash);
  }
  button {
    border: 0;
    background: none;
    width: 32px;
    min-height: 46px;
  }
  &[data-invalid] input {
    border-bottom: 3px double var(--ink);
  }
  /* where a name may be longer than its field it stands there whole, on as many lines as it takes, until it is typed in */
  @media (max-width: 600px) {
    &[data-known="true"] input:not(:focus) {
      -webkit-text-fill-color: transparent;
    }
    &[data-known="true"] {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 32px;
    }
    &[data-known="true"] input,
    input:not(:focus) + .whole {
      grid-area: 1 / 1;
    }
    input:not(:focus) + .whole {
      display: flex;
      align-items: center;
      padding: 3px 0 3px 6px;
      font: 500 15px/1.1 var(--text);
      pointer-events: none;
    }
  }
`;
const List = styled(Popover)`
  background: var(--paper);
  border: 2px solid var(--ink);
  min-width: 300px;
  max-height: 320px;
  overflow: auto;
  [role="option"] {
    padding: 10px 14px;
    min-height: 46px;
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

interface Props {
  label: string;
  value: string;
  items: readonly { id: string; name: string }[];
  onChange: (id: string) => void;
  invalid?: boolean;
  placeholder?: string;
}

/** Pick a known thing by typing part of its name. Costly to draw, so drawn again only when its own props change. */
export const Combo = memo(function Combo({ label, value, items, onChange, invalid, placeholder }: Props) {
  const whole = items.find((i) => i.id === value)?.name;
  return (
    <Box
      data-known={whole !== undefined}
      aria-label={label}
      menuTrigger="focus"
      isInvalid={invalid ?? false}
      defaultItems={items}
      selectedKey={value || null}
      onSelectionChange={(key) => key !== null && onChange(String(key))}
    >
      <Input placeholder={placeholder} />
      <span className="whole" aria-hidden="true">
        {whole}
      </span>
      <Button aria-label={`${label}: list`}>
        <svg width="14" height="10" viewBox="0 0 14 10" aria-hidden="true">
          <path d="M1 2l6 6l6-6" fill="none" stroke="currentColor" strokeWidth="2" />
        </svg>
      </Button>
      <List>
        <ListBox>{(item: { id: string; name: string }) => <ListBoxItem id={item.id}>{item.name}</ListBoxItem>}</ListBox>
      </List>
    </Box>
  );
});
