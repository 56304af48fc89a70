import type { ReactNode } from "react";
import { Pebble } from "../look/pebble.tsx";

interface Props {
  readonly name: string;
  /** What the stage has to say at its right end. */
  readonly value: ReactNode;
  /** Nothing came to pass here in the shown frame: a hollow pebble. */
  readonly idle?: boolean;
  /** The stage stopped the walker. */
  readonly stopped?: boolean;
  readonly children?: ReactNode;
}

/** One stage of a frame: its values in the shown frame, and the settings that belong to it. */
export function StageCard({ name, value, idle, stopped, children }: Props) {
  return (
    <section className={`stage${stopped ? " stopped" : ""}`} aria-label={name}>
      <h3>
        <Pebble kind={stopped ? "fail" : idle ? "unreached" : "pass"} radius={4.5} label={null} />
        {name}
        <span className="value">{value}</span>
      </h3>
      {children}
    </section>
  );
}
