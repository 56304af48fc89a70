import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { Icon } from "../look/icon.tsx";
import { session } from "../page-session.ts";

/** That the walker cannot begin where it starts, with the cell that is better. */
export function StartFinding() {
  const finding = useStore(session.worldSettings.store, (state) => state.startFinding);
  if (finding === null) return null;
  const { start } = finding;
  return (
    <div className="kit-findings start-finding" role="status">
      <p>
        <Icon name="attention" /> {`${finding.message[0]!.toUpperCase()}${finding.message.slice(1)}.`}
      </p>
      {start !== undefined && (
        <Button variant="plain" onClick={() => session.worldSettings.putStart(start.room, start.cell)}>
          Start at {start.cell.join(",")}
        </Button>
      )}
    </div>
  );
}
