import { Pebble } from "../../look/pebble.tsx";
import { plural } from "../../look/plural.ts";
import { Tallies } from "../../look/tallies.tsx";
import type { ShownLog } from "../../session/shelf/shelf.ts";

/** The checks of a world's logs as pebbles, and how many pass, fail, cannot be run or were not run yet. */
export function WorldPebbles({ logs, notRun }: { readonly logs: readonly ShownLog[]; readonly notRun: number }) {
  // Before any of them was run, none that passes would be said of checks that nobody looked at.
  if (logs.length === 0) return <p className="quiet">{plural(notRun, "log")} not run yet</p>;
  const verdicts = logs.flatMap((log) => log.checks);
  const refused = logs.filter((log) => log.refused !== null).length;
  return (
    <>
      <div className="pebble-row" aria-hidden="true">
        {logs.map((log) => (
          <span key={log.log} title={log.title}>
            {log.checks.map((v, i) => (
              <Pebble key={i} kind={v.verdict} radius={4} label={null} />
            ))}
          </span>
        ))}
      </div>
      <Tallies verdicts={verdicts}>
        {refused > 0 && (
          <>
            <Pebble kind="fail" label={null} /> {plural(refused, "log")} cannot be run
          </>
        )}
        {notRun > 0 && <span className="quiet">{plural(notRun, "log")} not run yet</span>}
      </Tallies>
    </>
  );
}
