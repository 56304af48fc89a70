import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { TextField } from "../look/text-field.tsx";
import { keepSetting, keptSetting } from "../session/project/local-settings.ts";

const KEPT = "playtest-name";
const MOST_NAME = 40;
const MOST_OPINION = 4000;

interface Props {
  /** How the game ended; null while one can play on. */
  readonly ending: string | null;
  readonly fault: string | null;
  readonly isSending: boolean;
  readonly onSend: (name: string, opinion: string) => void;
  readonly onGoOn: (() => void) | null;
  readonly onAgain: () => void;
}

/** Whoever played says who they are and what they think of it; what they pressed goes along. */
export function TellForm({ ending, fault, isSending, onSend, onGoOn, onAgain }: Props) {
  const [name, setName] = useState(() => keptSetting(KEPT) ?? "");
  const [opinion, setOpinion] = useState("");
  return (
    <Form
      className="tell"
      aria-label="What you think"
      onSubmit={(event) => {
        event.preventDefault();
        keepSetting(KEPT, name.trim());
        onSend(name, opinion);
      }}
      onKeyDown={(event) => event.key === "Escape" && onGoOn?.()}
    >
      {ending !== null && <p className="ending">{ending}</p>}
      <p className="quiet">
        What you pressed is sent along, so that it can be looked at frame by frame. Nothing else is.
      </p>
      <TextField
        label="Name"
        placeholder="Any name"
        autoFocus
        required
        maxLength={MOST_NAME}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Form.Control
        as="textarea"
        rows={5}
        aria-label="What you think of it"
        placeholder="What was good, what was not, where you got stuck"
        maxLength={MOST_OPINION}
        value={opinion}
        onChange={(event) => setOpinion(event.target.value)}
      />
      {fault !== null && (
        <p className="attention" role="alert">
          {fault} What you typed is still here.
        </p>
      )}
      <div className="row-line">
        <Button type="submit" variant="main" disabled={isSending || name.trim() === ""}>
          {isSending ? "Sending" : "Send"}
        </Button>
        {onGoOn !== null && (
          <Button variant="plain" disabled={isSending} onClick={onGoOn} title="Play on (Esc)">
            Play on
          </Button>
        )}
        <Button variant="plain" disabled={isSending} onClick={onAgain}>
          Start over
        </Button>
      </div>
    </Form>
  );
}
