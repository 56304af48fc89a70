import { session } from "../page-session.ts";
import Form from "react-bootstrap/Form";
import { useBench, useProject } from "../use-session.ts";
import { logOrder, logTitle } from "../session/log/log-title.ts";

/** Chooses the shown log among those of the world; not while somebody walks. */
export function LogChoice({ className }: { readonly className?: string }) {
  const logs = useProject((state) => state.project?.logs ?? null);
  const log = useBench((state) => state.log);
  const walking = useBench((state) => state.walk !== null);
  const ids = logs === null ? [] : logOrder(logs);
  return (
    <Form.Select
      className={className}
      aria-label="Log"
      value={log ?? ""}
      disabled={walking || ids.length === 0}
      onChange={(event) => session.shownLog.selectLog(event.target.value)}
    >
      {ids.length === 0 && <option value="">No log yet</option>}
      {ids.map((id) => (
        <option key={id} value={id}>
          {logTitle(logs!.get(id)!, id)}
        </option>
      ))}
    </Form.Select>
  );
}
