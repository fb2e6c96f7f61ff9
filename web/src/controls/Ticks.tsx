import { Group, Item } from "./Choice";

interface Props<T extends string> {
  label: string;
  value: readonly T[];
  options: readonly { id: T; text: string }[];
  onChange: (value: T[]) => void;
}

/** Any of a few, all in sight. */
export function Ticks<T extends string>({ label, value, options, onChange }: Props<T>) {
  return (
    <Group
      aria-label={label}
      selectionMode="multiple"
      selectedKeys={value}
      onSelectionChange={(keys) => onChange(options.map((o) => o.id).filter((id) => keys.has(id)))}
    >
      {options.map((o) => (
        <Item key={o.id} id={o.id}>
          {o.text}
        </Item>
      ))}
    </Group>
  );
}
