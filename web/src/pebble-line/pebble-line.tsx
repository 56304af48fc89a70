import { useBench, useProject, useProofs } from "../use-session.ts";
import { useCan } from "../look/use-commands.ts";
import { session } from "../page-session.ts";
import type { InputLog, Verdict } from "@keen-pebble/core/check";
import { logFrames } from "@keen-pebble/core/check";
import { useEffect, useRef } from "react";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import Dropdown from "react-bootstrap/Dropdown";
import { Icon } from "../look/icon.tsx";
import { IconButton } from "../look/icon-button.tsx";
import { Pebble } from "../look/pebble.tsx";
import { SelectField } from "../look/select-field.tsx";
import { logFileAddress } from "../session/project/api-client.ts";
import type { Command } from "../session/commands/command.ts";
import { CheckWriter } from "./check-writer.tsx";
import { KeepFault } from "./keep-fault.tsx";
import { KeepWalk } from "./keep-walk.tsx";
import { keyText } from "../session/commands/keys.ts";
import { Lanes } from "./lanes.tsx";
import { LogChoice } from "../logs/log-choice.tsx";

// One and the same list: a selector that makes a new one each time would draw for ever.
const NO_VERDICTS: readonly Verdict[] = [];

const RATES: Readonly<Record<string, number>> = {
  "1/8x": 1 / 8,
  "1/4x": 1 / 4,
  "1/2x": 1 / 2,
  "1x": 1,
  "2x": 2,
  "4x": 4,
};

/** The log as a line of frames: chooser and transport on the left, the line beside it. */
export function PebbleLine() {
  const offered = useBench((state) => state.walk?.phase === "offered");
  const faulting = useStore(session.entries.store, (state) => state.fault !== null);
  const writing = useBench((state) => state.writing !== null && state.walk === null);
  return (
    <section className="pebble-line" aria-label="Pebble line">
      <div className="line-head">
        <LogChooser />
        <Transport />
        <FrameCount />
      </div>
      <Lanes />
      {offered && <KeepWalk />}
      {writing && <CheckWriter />}
      {faulting && <KeepFault />}
    </section>
  );
}

function LogChooser() {
  const log = useBench((state) => state.log);
  const walking = useBench((state) => state.walk !== null);
  return (
    <div className="row-line">
      <LogChoice />
      <LogMenu disabled={walking || log === null} />
    </div>
  );
}

function LogMenu({ disabled }: { readonly disabled: boolean }) {
  const world = useProject((state) => state.worldId);
  const log = useBench((state) => state.log);
  return (
    <Dropdown align="end">
      <Dropdown.Toggle
        variant="plain"
        className="btn-icon bare-toggle"
        aria-label="More about this log"
        title="More about this log"
        disabled={disabled}
      >
        <Icon name="more" />
      </Dropdown.Toggle>
      <Dropdown.Menu>
        <MenuCommand command={session.commands.bench.addCheck} />
        <MenuCommand command={session.commands.bench.noteFault} />
        <MenuCommand command={session.commands.bench.editLog} />
        <MenuCommand command={session.commands.bench.cutHere} />
        <MenuCommand command={session.commands.bench.goOn} />
        <Ghosts log={log} />
        <Dropdown.Divider />
        {world !== null && log !== null && (
          <Dropdown.Item href={logFileAddress(world, log)} download>
            Save as a file
          </Dropdown.Item>
        )}
        <Dropdown.Item as="button" onClick={() => void session.shownLog.tellFingerprint()}>
          Fingerprint of this run
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => log !== null && session.logEdits.copyLog(log)}>
          Copy this log
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => log !== null && session.logEdits.takeLogAway(log)}>
          Delete this log
        </Dropdown.Item>
      </Dropdown.Menu>
    </Dropdown>
  );
}

/** Other runs of the log that may lie beside it as the pale second trail. */
function Ghosts({ log }: { readonly log: string | null }) {
  const compared = useProofs((state) => state.compared?.revision ?? null);
  const accepted = useBench((state) => (state.parsed?.accept ?? null) !== null);
  const laid = useBench((state) => state.beside?.where.kind === "revision");
  if (log === null || (compared === null && !accepted)) return null;
  return (
    <>
      <Dropdown.Divider />
      {compared !== null && (
        <Dropdown.Item as="button" onClick={() => void session.beside.layRevisionBeside(compared)}>
          Ghost of revision {compared}
        </Dropdown.Item>
      )}
      {accepted && (
        <Dropdown.Item as="button" onClick={() => void session.accepted.layAccepted(log)}>
          Ghost of the accepted walk
        </Dropdown.Item>
      )}
      {laid && (
        <Dropdown.Item as="button" onClick={() => session.beside.layBeside(null)}>
          Ghost of the run before the change again
        </Dropdown.Item>
      )}
    </>
  );
}

/** A command as a line of a menu, with its key. */
function MenuCommand({ command }: { readonly command: Command }) {
  return (
    <Dropdown.Item as="button" disabled={!useCan(command)} onClick={command.act}>
      {command.name} <kbd>{keyText(command.keys[0]!)}</kbd>
    </Dropdown.Item>
  );
}

function Transport() {
  const playing = useBench((state) => state.playing);
  const walking = useBench((state) => state.walk?.phase === "walking");
  const rate = useBench((state) => state.rate);
  const rateName = Object.keys(RATES).find((name) => RATES[name] === rate) ?? "1x";
  return (
    <div className="row-line transport">
      <Button
        variant="plain"
        className={`btn-icon${walking ? " active" : ""}`}
        title={`${walking ? "Stop walking (Esc)" : "Walk and record (R)"}`}
        aria-label={walking ? "Stop walking" : "Walk and record"}
        disabled={!useCan(session.commands.bench.walk)}
        onClick={session.commands.bench.walk.act}
      >
        <svg width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
          {walking ? (
            <rect x="1" y="1" width="10" height="10" rx="1.5" fill="var(--kp-attention)" />
          ) : (
            <circle cx="6" cy="6" r="5" fill="var(--kp-attention)" />
          )}
        </svg>
      </Button>
      <span className="gap" />
      <IconButton command={session.commands.bench.first} icon="first" variant="plain" />
      <IconButton command={session.commands.bench.back} icon="back" variant="plain" />
      <Button
        variant="main"
        className="play"
        title="Play or pause (Space)"
        aria-label={playing ? "Pause" : "Play"}
        disabled={!useCan(session.commands.bench.playPause)}
        onClick={session.commands.bench.playPause.act}
      >
        <Icon name={playing ? "pause" : "play"} />
      </Button>
      <IconButton command={session.commands.bench.forward} icon="forward" variant="plain" />
      <div className="grow">
        <SelectField
          label="Speed"
          value={rateName}
          choices={Object.keys(RATES)}
          onValue={(name) => {
            session.playing.chooseRate(RATES[name]!);
            session.asked.focusField.ask();
          }}
        />
      </div>
    </div>
  );
}

/** The frames of a log; null where it has `until` lines, since it rarely needs all of them. */
function knownFrames(log: InputLog): number | null {
  return log.lines.every((line) => line.kind === "comment" || line.until === null) ? logFrames(log) : null;
}

/** The shown frame in large figures; follows by itself, without React. */
function FrameCount() {
  const frame = useRef<HTMLSpanElement>(null);
  const rest = useRef<HTMLSpanElement>(null);
  const seconds = useRef<HTMLSpanElement>(null);
  const frameRate = useProject((state) => state.project?.world.frameRate ?? 60);
  const verdicts = useBench((state) => (state.walk === null ? (state.run?.verdicts ?? NO_VERDICTS) : NO_VERDICTS));
  useEffect(() => {
    // Counted once a log: this follows every frame that is shown.
    let counted: InputLog | null = null;
    let known: number | null = null;
    const follow = (): void => {
      // It may be told once more while it is taken off the page.
      if (frame.current === null || rest.current === null || seconds.current === null) return;
      const state = session.benchStore.getState();
      const frames = state.walk ? state.walk.rows.count - 1 : (state.run?.frames ?? 0);
      if (counted !== state.parsed) {
        counted = state.parsed;
        known = counted === null ? null : knownFrames(counted);
      }
      const unused = state.walk === null && state.run !== null ? (known ?? frames) : frames;
      frame.current.textContent = String(state.frame);
      rest.current.textContent = `of ${frames}${unused > frames ? ` (log ${unused})` : ""}`;
      seconds.current.textContent = `${(state.frame / frameRate).toFixed(2)} s`;
    };
    follow();
    return session.benchStore.subscribe(follow);
  }, [frameRate]);
  const kinds = (["pass", "fail", "unreached"] as const).map((kind) => ({
    kind,
    count: verdicts.filter((v) => v.verdict === kind).length,
  }));
  return (
    <div className="row-line frame-count">
      <span className="frame" ref={frame} />
      <span className="quiet" ref={rest} />
      <span className="quiet" ref={seconds} />
      <span className="grow" />
      {kinds
        .filter(({ count }) => count > 0)
        .map(({ kind, count }) => (
          <span key={kind} className="tally">
            <Pebble kind={kind} /> {count}
          </span>
        ))}
    </div>
  );
}
