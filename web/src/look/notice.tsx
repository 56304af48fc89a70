import Alert from "react-bootstrap/Alert";
import Button from "react-bootstrap/Button";
import { useProject } from "../session/hooks.ts";
import { notice } from "../session/project-store.ts";
import { Icon } from "./icon.tsx";

/** One thing that must be told, until it is dismissed. */
export function Notice() {
  const text = useProject((state) => state.notice);
  if (text === null) return null;
  return (
    <Alert className="notice" transition={false}>
      <Icon name="attention" />
      <span className="grow">{text}</span>
      <Button variant="bare" className="btn-icon" aria-label="Dismiss" title="Dismiss" onClick={() => notice(null)}>
        <Icon name="close" />
      </Button>
    </Alert>
  );
}
