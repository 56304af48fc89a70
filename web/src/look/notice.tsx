import Alert from "react-bootstrap/Alert";
import Button from "react-bootstrap/Button";
import { useProject } from "../session/hooks.ts";
import { notice } from "../session/project-store.ts";
import { Icon } from "./icon.tsx";

/** One thing that must be told, until it is dismissed. */
export function Notice() {
  const told = useProject((state) => state.notice);
  if (told === null) return null;
  return (
    <Alert className={`notice ${told.tone}`} role="status" transition={false}>
      <Icon name={told.tone === "info" ? "check" : "attention"} />
      <span className="grow">{told.text}</span>
      <Button variant="bare" className="btn-icon" aria-label="Dismiss" title="Dismiss" onClick={() => notice(null)}>
        <Icon name="close" />
      </Button>
    </Alert>
  );
}
