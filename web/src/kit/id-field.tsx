import { useState } from "react";
import { TextField } from "../look/text-field.tsx";

/** The id of something that stands in a room: Enter or leaving it gives it that id, Escape the old one. */
export function IdField({
  id,
  of,
  onId,
}: {
  readonly id: string;
  /** What it is, for screen readers: `the fixture`. */
  readonly of: string;
  readonly onId: (from: string, to: string) => void;
}) {
  const [draft, setDraft] = useState(id);
  return (
    <TextField
      label="Id"
      value={draft}
      aria-label={`Id of ${of}`}
      maxLength={40}
      spellCheck={false}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={() => onId(id, draft.trim())}
      onKeyDown={(event) => {
        if (event.key === "Enter") event.currentTarget.blur();
        else if (event.key === "Escape") setDraft(id);
      }}
    />
  );
}
