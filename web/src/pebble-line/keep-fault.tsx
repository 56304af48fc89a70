import { useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { useStore } from "zustand";
import { useFocus } from "../look/use-focus.ts";
import { session } from "../page-session.ts";

/** What is wrong in the shown frame, to be written into the Journal with a picture of the field. */
export function KeepFault() {
  const fault = useStore(session.entries.store, (state) => state.fault);
  const [text, setText] = useState("");
  const field = useFocus<HTMLInputElement>();
  if (fault === null) return null;
  return (
    <Form
      className="keep-walk"
      aria-label="Fault in this frame"
      onSubmit={(event) => {
        event.preventDefault();
        void session.entries.keepFault(text);
      }}
      onKeyDown={(event) => event.key === "Escape" && session.entries.cancelFault()}
    >
      {fault.picture !== null && (
        <img className="fault-picture" src={`data:image/png;base64,${fault.picture}`} alt="The field in this frame" />
      )}
      <div>
        <h2>Fault in frame {fault.frame}</h2>
        <p className="quiet">{fault.log === null ? "no log" : `${fault.log}.inputs`}, for the Journal</p>
      </div>
      <Form.Control
        ref={field}
        className="title"
        aria-label="What is wrong"
        placeholder="What is wrong here"
        maxLength={4000}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Button type="submit" variant="main" disabled={text.trim() === ""}>
        Keep
      </Button>
      <Button variant="plain" onClick={session.entries.cancelFault}>
        Cancel
      </Button>
    </Form>
  );
}
