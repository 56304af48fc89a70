import type { Verdict } from "@keen-pebble/core/check";
import type { ReactNode } from "react";
import { Pebble } from "./pebble.tsx";

/** How many checks pass, fail and were not reached, each with its pebble; kinds that there are none of are left out. */
export function Tallies({
  verdicts,
  children,
}: {
  readonly verdicts: readonly Verdict[];
  readonly children?: ReactNode;
}) {
  const count = (kind: Verdict["verdict"]): number => verdicts.filter(({ verdict }) => verdict === kind).length;
  return (
    <span className="row-line tallies">
      <Pebble kind="pass" label={null} /> {count("pass")} pass
      {count("fail") > 0 && (
        <>
          <Pebble kind="fail" label={null} /> {count("fail")} fail
        </>
      )}
      {count("unreached") > 0 && (
        <>
          <Pebble kind="unreached" label={null} /> {count("unreached")} not reached
        </>
      )}
      {children}
    </span>
  );
}
