import { session } from "../page-session.ts";
import { ACCEPTED } from "@keen-pebble/core/check";
import { useMemo, useState } from "react";
import { useProject } from "../use-session.ts";
import { readOrNull } from "../session/log/read-or-null.ts";
import Form from "react-bootstrap/Form";

/** What a log is called, what it is about, and which rule set it goes by; all of it can be changed in place. */
export function LogFacts({ id, text }: { readonly id: string; readonly text: string }) {
  const world = useProject((state) => state.project?.world ?? null);
  const log = useMemo(() => readOrNull(text), [text]);
  if (log === null || world === null) return null;
  const notes = log.notes.filter((note) => !note.startsWith(ACCEPTED));
  const accepted = log.notes.filter((note) => note.startsWith(ACCEPTED));
  return (
    <div className="log-facts">
      <FactField
        label="Title"
        value={log.title ?? ""}
        max={80}
        onValue={(title) => session.logEdits.changeLog(id, (each) => ({ ...each, title: title === "" ? null : title }))}
      />
      <FactField
        label="Tags"
        value={log.tags.join(", ")}
        max={300}
        onValue={(tags) => session.logEdits.changeLog(id, (each) => ({ ...each, tags: parts(tags, /,/) }))}
      />
      <FactField
        label="Notes"
        value={notes.join("\n")}
        max={2000}
        lines
        onValue={(said) =>
          session.logEdits.changeLog(id, (each) => ({ ...each, notes: [...parts(said, /\n/), ...accepted] }))
        }
      />
      <label className="log-fact">
        <span>Rules</span>
        <Form.Select
          value={log.rules ?? ""}
          onChange={(event) =>
            session.logEdits.changeLog(id, (each) => ({
              ...each,
              rules: event.target.value === "" ? null : event.target.value,
            }))
          }
        >
          <option value="">Default rules</option>
          {log.rules !== null && !world.rules.some((rules) => rules.id === log.rules) && (
            <option value={log.rules}>{log.rules}, which is not there</option>
          )}
          {world.rules.map((rules) => (
            <option key={rules.id} value={rules.id}>
              {rules.name}
            </option>
          ))}
        </Form.Select>
      </label>
    </div>
  );
}

const parts = (text: string, at: RegExp): string[] =>
  text
    .split(at)
    .map((part) => part.trim())
    .filter((part) => part !== "");

interface FactProps {
  readonly label: string;
  readonly value: string;
  readonly max: number;
  readonly lines?: boolean;
  readonly onValue: (value: string) => void;
}

/** A text that is taken over when one leaves it, or with Enter; Escape puts back what was there. */
function FactField({ label, value, max, lines = false, onValue }: FactProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = (): void => {
    if (typed !== null && typed.trim() !== value) onValue(typed.trim());
    setTyped(null);
  };
  const field = {
    "aria-label": label,
    maxLength: max,
    value: typed ?? value,
    onChange: (event: React.ChangeEvent<HTMLInputElement | HTMLTextAreaElement>) => setTyped(event.target.value),
    onBlur: keep,
    onKeyDown: (event: React.KeyboardEvent<HTMLInputElement | HTMLTextAreaElement>) => {
      if (event.key === "Escape") setTyped(null);
      else if (event.key === "Enter" && !(lines && !event.ctrlKey)) event.currentTarget.blur();
    },
  };
  return (
    <label className="log-fact">
      <span>{label}</span>
      {lines ? <Form.Control as="textarea" rows={2} {...field} /> : <Form.Control {...field} />}
    </label>
  );
}
