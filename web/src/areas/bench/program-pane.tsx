import { movementLines } from "@keen-pebble/core/take-home";
import { rulesById } from "@keen-pebble/core/world";
import { useEffect, useMemo, useRef } from "react";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { BareButton } from "../../look/bare-button.tsx";
import { Icon } from "../../look/icon.tsx";
import { plural } from "../../look/plural.ts";
import { saveFile } from "../../look/save-file.ts";
import { session } from "../../page-session.ts";
import { useBench, useProject } from "../../use-session.ts";
import "./program-pane.css";

/** The shown rule set as the program that is taken home: it changes with the rules, and lights what a setting stands for. */
export default function ProgramPane() {
  const world = useProject((state) => state.project?.world ?? null);
  const named = useBench((state) => state.parsed?.rules ?? null);
  const making = useStore(session.takenHome.store, (state) => state.making);
  const rules = world && (rulesById(world, named ?? world.activeRules) ?? world.rules[0]!);
  const lines = useMemo(() => (world && rules ? movementLines(world, rules.id) : []), [world, rules]);
  if (world === null || rules === null) return <section className="field" aria-label="Rules as a program" />;
  const save = async (): Promise<void> => {
    const folder = await session.takenHome.make(rules.id);
    if (folder !== null) saveFile(`${world.id}-${rules.id}.zip`, folder);
  };
  return (
    <section className="field program" aria-label="Rules as a program">
      <div className="tools">
        <h2>movement.js</h2>
        <span className="quiet">
          {rules.name}, {plural(lines.length, "line")}
        </span>
        <span className="grow" />
        <Button variant="main" disabled={making} onClick={() => void save()}>
          <Icon name="takeHome" /> {making ? "Running the logs" : "Save the folder (ZIP)"}
        </Button>
        <BareButton
          icon="close"
          name="Back to the field"
          title="Back to the field (Shift+T)"
          onClick={session.takenHome.toggle}
        />
      </div>
      <p className="quiet program-hint">
        Point at a setting on the left to see what it stands for. The folder also holds the world as tables, golden runs
        of all logs, conform.js to compare a port, and PORTING.md, which says the same in words.
      </p>
      <Program lines={lines} />
    </section>
  );
}

function Program({ lines }: { readonly lines: ReturnType<typeof movementLines> }) {
  const pointed = useStore(session.takenHome.store, (state) => state.pointed);
  const box = useRef<HTMLDivElement>(null);
  const isLit = (settings: readonly string[]): boolean => pointed !== null && settings.includes(pointed);
  useEffect(() => {
    if (pointed !== null) box.current!.querySelector(".lit")?.scrollIntoView({ block: "center" });
  }, [pointed, lines]);
  return (
    <div ref={box} className="program-text mono" tabIndex={0} role="region" aria-label="movement.js">
      {lines.map(({ text, settings }, i) => (
        <div key={i} className={isLit(settings) ? "lit" : ""}>
          <span className="number" aria-hidden="true">
            {i + 1}
          </span>
          <Line text={text} />
        </div>
      ))}
    </div>
  );
}

/** A line of the program, its comment quieter. */
function Line({ text }: { readonly text: string }) {
  const at = text.indexOf("//");
  if (at < 0) return <code>{text}</code>;
  return (
    <code>
      {text.slice(0, at)}
      <span className="quiet">{text.slice(at)}</span>
    </code>
  );
}
