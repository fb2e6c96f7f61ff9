import { type CSSProperties, useState } from "react";
import { FieldError, Input, Label, TextField } from "react-aria-components";
import styled from "styled-components";

const Box = styled(TextField)`
  display: inline-flex;
  flex-direction: column;
  gap: 2px;
  min-width: 0;
  label {
    font-size: 16px;
    color: var(--ink-2);
  }
  .entry {
    display: flex;
    align-items: baseline;
    gap: 6px;
  }
  input {
    min-height: 48px;
    width: 100%;
    min-width: 0;
    padding: 0 8px;
    border: 0;
    border-bottom: 3px solid var(--brass);
    background: transparent;
    font: 600 22px/1 var(--text);
    color: var(--ink);
  }
  &[data-beside="true"] {
    flex-direction: row;
    flex-wrap: wrap;
    align-items: baseline;
    gap: 2px 10px;
  }
  &[data-beside="true"] .entry {
    width: var(--entry);
  }
  &[data-size="big"] input {
    font: 600 30px/1 var(--name);
  }
  input[data-hovered] {
    background: var(--recess);
  }
  input[data-focused] {
    background: var(--brass-wash);
  }
  &[data-invalid] input {
    border-bottom: 3px double var(--ink);
  }
  .entry-unit {
    color: var(--ink-2);
    font: 450 18px/1 var(--text);
  }
  .fault {
    display: block;
    background: var(--ink);
    color: var(--paper);
    font-size: 16px;
    padding: 6px 10px;
    margin-top: 4px;
    max-width: 46ch;
  }
`;

interface Props {
  label: string;
  value: string;
  /** Called with the text when the cook leaves the field or presses Enter, if it changed. */
  onCommit: (text: string) => void;
  onType?: (text: string) => void;
  fault?: string | null;
  unit?: string;
  width?: string;
  big?: boolean;
  hideLabel?: boolean;
  /** The label stands before the entry instead of above it. */
  beside?: boolean;
  placeholder?: string;
  inputMode?: "text" | "decimal" | "numeric";
  /** Nobody who looks on is to read it. */
  secret?: boolean;
}

/** Text as cooks type it. Keeps what was typed until it is good; the fault stands beneath it. */
export function Field({
  label,
  value,
  onCommit,
  onType,
  fault,
  unit,
  width = "7em",
  big,
  hideLabel,
  beside = false,
  placeholder,
  inputMode,
  secret = false,
}: Props) {
  const [draft, setDraft] = useState<{ text: string; sent: boolean } | null>(null);
  // what was sent stands until it is good; once it is, the value speaks for itself
  const shown = draft !== null && (!draft.sent || fault) ? draft.text : value;
  const commit = () => {
    if (draft === null || draft.sent) return;
    // what stood there before is sent too where the last entry was refused: it takes that back
    if (fault || draft.text.trim() !== value.trim()) onCommit(draft.text.trim());
    setDraft({ ...draft, sent: true });
  };
  return (
    <Box
      isInvalid={!!fault}
      data-size={big ? "big" : "plain"}
      aria-label={hideLabel ? label : undefined}
      data-beside={beside}
      style={beside ? ({ "--entry": width } as CSSProperties) : { width }}
    >
      {!hideLabel && <Label>{label}</Label>}
      <span className="entry">
        <Input
          value={shown}
          placeholder={placeholder}
          inputMode={inputMode}
          {...(secret ? { type: "password", autoComplete: "current-password" } : {})}
          onChange={(e) => {
            setDraft({ text: e.target.value, sent: false });
            onType?.(e.target.value);
          }}
          onBlur={commit}
          onKeyDown={(e) => {
            if (e.key === "Enter") commit();
            if (e.key === "Escape") setDraft(null);
          }}
        />
        {unit && <span className="entry-unit">{unit}</span>}
      </span>
      <FieldError className="fault">{fault}</FieldError>
    </Box>
  );
}
