import { session } from "../page-session.ts";
import { useState } from "react";
import { useBench, useProject } from "../use-session.ts";
import { LogFacts } from "./log-facts.tsx";
import { LogTable } from "./log-table.tsx";
import { LogText } from "./log-text.tsx";
import "./logs.css";
import { Segments } from "../look/segments.tsx";
import { BareButton } from "../look/bare-button.tsx";

/** The shown log beside the field: its runs of keys as a table, or all of it as text. */
export function LogSide() {
  const id = useBench((state) => state.log);
  const text = useProject((state) => (id === null ? undefined : state.project?.logs.get(id)));
  const refused = useBench((state) => state.parsed === null);
  const [tab, setTab] = useState<"keys" | "text">("keys");
  const shown = refused ? "text" : tab;
  return (
    <section className="log-side" aria-label="Log">
      <div className="head">
        <h2>Log</h2>
        <Segments
          label="The log as"
          value={shown}
          choices={[
            { value: "keys", name: "Keys" },
            { value: "text", name: "Text" },
          ]}
          onValue={setTab}
        />
        <span className="grow" />
        <BareButton
          icon="close"
          name="Back to the anatomy"
          title="Back to the anatomy (D)"
          onClick={() => session.benchStore.setState({ side: "anatomy" })}
        />
      </div>
      {id === null || text === undefined ? (
        <p className="quiet log-none">No log yet. Press R, walk, and keep the walk.</p>
      ) : shown === "keys" ? (
        <>
          <LogFacts key={id} id={id} text={text} />
          <LogTable />
        </>
      ) : (
        <LogText key={id} id={id} text={text} />
      )}
    </section>
  );
}
