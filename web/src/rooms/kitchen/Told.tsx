import styled from "styled-components";
import { Label, TextField, Input } from "react-aria-components";

const Box = styled(TextField)`
  display: grid;
  gap: 4px;
  label {
    color: var(--ink-2);
    font-size: 16px;
  }
  input {
    width: 100%;
    min-height: 48px;
    border: 2px solid var(--ink);
    background: var(--recess);
    padding: 0 10px;
    font: 500 17px/1 var(--mono);
  }
`;

/** Something to be copied to another device: pressed, all of it is chosen. */
export function Told({ label, text }: { label: string; text: string }) {
  return (
    <Box isReadOnly value={text}>
      <Label>{label}</Label>
      <Input onFocus={(e) => e.currentTarget.select()} />
    </Box>
  );
}
