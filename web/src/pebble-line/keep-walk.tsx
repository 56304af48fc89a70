import type { Check } from "@keen-pebble/core/check";
import { session } from "../page-session.ts";
import { checkText } from "@keen-pebble/core/check";
import { useEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { Pebble } from "../look/pebble.tsx";
import { useBench } from "../use-session.ts";

/** A walk that just ended, offered to be kept: a title, and checks made from its replay. */
export function KeepWalk() {
  const walk = useBench((state) => state.walk);
  const [title, setTitle] = useState("");
  const [off, setOff] = useState<ReadonlySet<number>>(new Set());
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus(), []);
  if (walk?.phase !== "offered") return null;
  const { checks, differs } = walk;
  const toggle = (i: number): void =>
    setOff((old) => new Set(old.has(i) ? [...old].filter((n) => n !== i) : [...old, i]));
  return (
    <Form
      className="keep-walk"
      aria-label="Keep this walk"
      onSubmit={(event) => {
        event.preventDefault();
        session.offeredWalk.keepWalk(
          title,
          checks.filter((_, i) => !off.has(i)),
        );
      }}
    >
      <div>
        <h2>Keep this walk as a log?</h2>
        {differs === null ? (
          <p className="quiet">{walk.rows.count - 1} frames recorded</p>
        ) : (
          <p className="attention">
            Replayed under the settings as they are now, frame {differs} is the first that differs from what you saw.
          </p>
        )}
      </div>
      <Form.Control
        ref={field}
        className="title"
        aria-label="Title"
        placeholder="Title, such as East bay"
        maxLength={80}
        value={title}
        onChange={(event) => setTitle(event.target.value)}
      />
      <OfferedChecks checks={checks} off={off} toggle={toggle} />
      {walk.onto !== null && (
        <Button
          variant="main"
          title="What it pressed after this frame before is cut away"
          onClick={session.offeredWalk.keepInLog}
        >
          Keep in this log
        </Button>
      )}
      <Button type="submit" variant={walk.onto === null ? "main" : "plain"}>
        {walk.onto === null ? "Keep it" : "Keep as a new log"}
      </Button>
      <Button variant="plain" onClick={session.offeredWalk.discardWalk}>
        Discard
      </Button>
    </Form>
  );
}

/** The checks that its replay passes; each can be left out. */
function OfferedChecks({
  checks,
  off,
  toggle,
}: {
  readonly checks: readonly Check[];
  readonly off: ReadonlySet<number>;
  readonly toggle: (i: number) => void;
}) {
  return (
    <div className="checks">
      {checks.map((check, i) => (
        <label key={checkText(check)} className="row-line">
          <Form.Check.Input className="m-0" checked={!off.has(i)} onChange={() => toggle(i)} />
          <Pebble kind={off.has(i) ? "unreached" : "pass"} label={null} />
          <span className="mono">{checkText(check)}</span>
        </label>
      ))}
    </div>
  );
}
