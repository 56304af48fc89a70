import { session } from "../../page-session.ts";
import { summary } from "@keen-pebble/core/edit";
import Alert from "react-bootstrap/Alert";
import Button from "react-bootstrap/Button";
import { Icon } from "../../look/icon.tsx";
import { plural } from "../../look/plural.ts";
import { useProject, useSaving } from "../../use-session.ts";

const MOST_LISTED = 3;

/** Edits that the server does not take: what they are, why, and what can be done; all others go on being saved. */
export function RefusedEdits() {
  const { refused } = useSaving();
  const world = useProject((state) => state.project?.world ?? null);
  if (refused.length === 0 || world === null) return null;
  return (
    <Alert className="notice attention refused-edits" role="alert" transition={false}>
      <Icon name="attention" />
      <div className="grow">
        <strong>{plural(refused.length, "edit")} cannot be saved; everything else is.</strong> Correct{" "}
        {refused.length === 1 ? "it" : "them"} where {refused.length === 1 ? "it was" : "they were"} made, or:
        <ul>
          {refused.slice(0, MOST_LISTED).map(({ step, refused: why }, i) => (
            <li key={i}>
              {summary(world, [step])}: {why}
            </li>
          ))}
          {refused.length > MOST_LISTED && <li>and {plural(refused.length - MOST_LISTED, "more edit")}</li>}
        </ul>
      </div>
      <Button variant="plain" onClick={session.project.undoRefused}>
        <Icon name="undo" /> Undo
      </Button>
      <Button variant="plain" onClick={() => void session.project.keepRefused()}>
        Keep a copy
      </Button>
      <Button variant="plain" onClick={() => void session.project.discardRefused()}>
        Discard
      </Button>
    </Alert>
  );
}
