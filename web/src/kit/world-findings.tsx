import { worldFindings } from "@keen-pebble/core/analyse";
import type { World } from "@keen-pebble/core/world";
import { useMemo } from "react";
import { Icon } from "../look/icon.tsx";

/** What in a world cannot work, at once and with where it is. @param among the part of a place that is shown; all without */
export function WorldFindings({ world, among = "" }: { readonly world: World; readonly among?: string }) {
  const findings = useMemo(() => worldFindings(world).filter(({ place }) => place.includes(among)), [world, among]);
  if (findings.length === 0) return null;
  return (
    <ul className="kit-findings" aria-label="What cannot work">
      {findings.map(({ place, message }) => (
        <li key={`${place} ${message}`}>
          <Icon name="attention" /> {message}
        </li>
      ))}
    </ul>
  );
}
