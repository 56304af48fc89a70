import Alert from "react-bootstrap/Alert";
import Button from "react-bootstrap/Button";
import type { Told } from "../session/project/project.ts";
import { Icon } from "./icon.tsx";

/** One thing that must be told, until it is dismissed. */
export function Notice({ told, onDismiss }: { readonly told: Told | null; readonly onDismiss: () => void }) {
  if (told === null) return null;
  return (
    <Alert className={`notice ${told.tone}`} role="status" transition={false}>
      <Icon name={told.tone === "info" ? "check" : "attention"} />
      <span className="grow">{told.text}</span>
      <Button variant="bare" className="btn-icon" aria-label="Dismiss" title="Dismiss" onClick={onDismiss}>
        <Icon name="close" />
      </Button>
    </Alert>
  );
}
