import { ToggleButton, ToggleButtonGroup, type Key } from "react-aria-components";
import styled from "styled-components";

export const Group = styled(ToggleButtonGroup)`
  display: inline-flex;
  flex-wrap: wrap;
  gap: 0;
`;
export const Item = styled(ToggleButton)`
  min-height: 48px;
  padding: 0 12px;
  border: 2px solid var(--ink);
  margin-right: -2px;
  background: transparent;
  color: var(--ink);
  font: 500 17px/1 var(--text);
  &[data-hovered] {
    background: var(--recess);
  }
  &[data-selected] {
    background: var(--ink);
    color: var(--ground);
    font-weight: 700;
  }
  &[data-disabled] {
    color: var(--ink-2);
    border-color: var(--hair-2);
  }
  &[data-focus-visible] {
    z-index: 1;
    position: relative;
  }
`;

interface Props<T extends string> {
  label: string;
  value: T | null;
  options: readonly { id: T; text: string; disabled?: boolean }[];
  onChange: (value: T) => void;
}

/** One of a few, all in sight. */
export function Choice<T extends string>({ label, value, options, onChange }: Props<T>) {
  const select = (keys: Set<Key>) => {
    const [first] = keys;
    if (first !== undefined) onChange(first as T);
  };
  return (
    <Group
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection={value !== null}
      selectedKeys={value === null ? [] : [value]}
      onSelectionChange={select}
    >
      {options.map((o) => (
        <Item key={o.id} id={o.id} isDisabled={o.disabled ?? false}>
          {o.text}
        </Item>
      ))}
    </Group>
  );
}
