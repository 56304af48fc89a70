import Alert from "react-bootstrap/Alert";
import type { Told } from "../session/project/told.ts";
import { Icon } from "./icon.tsx";
import { BareButton } from "./bare-button.tsx";

/** One thing that must be told, until it is dismissed. */
export function Notice({ told, onDismiss }: { readonly told: Told | null; readonly onDismiss: () => void }) {
  if (told === null) return null;
  return (
    <Alert className={`notice ${told.tone}`} role="status" transition={false}>
      <Icon name={told.tone === "info" ? "check" : "attention"} />
      <span className="grow">{told.text}</span>
      <BareButton icon="close" name="Dismiss" onClick={onDismiss} />
    </Alert>
  );
}
