import type { Beside } from "../../session/bench/bench-store.ts";
import type { ComparedRevision } from "../../session/proofs/proofs.ts";
import { session } from "../../page-session.ts";
import type { Proof, Verdict } from "@keen-pebble/core/check";
import { ACCEPTED } from "@keen-pebble/core/check";
import { differences, summary } from "@keen-pebble/core/edit";
import { useMemo, useState } from "react";
import Button from "react-bootstrap/Button";
import Dropdown from "react-bootstrap/Dropdown";
import { Icon } from "../../look/icon.tsx";
import { Pebble } from "../../look/pebble.tsx";
import { useFocus } from "../../look/use-focus.ts";
import { expectedText } from "../../logs/expected-text.ts";
import { LogFacts } from "../../logs/log-facts.tsx";
import { logTitle } from "../../session/log/log-title.ts";
import { readOrNull } from "../../session/log/read-or-null.ts";
import { logFileAddress } from "../../session/project/api-client.ts";
import type { PathAnswer } from "../../workers/proofs.ts";
import { useBench, useBoard, useProject, useProofs } from "../../use-session.ts";
import { ByChance } from "./by-chance.tsx";
import { CloseUp } from "./close-up.tsx";
import { partingText } from "./path-text.ts";
import { WhatBrokeIt } from "./what-broke-it.tsx";
import Form from "react-bootstrap/Form";

/** The shown log: its checks, the frame that decides the chosen one, and what may be done about it. */
export function LogDetail({ id, onOpen }: { readonly id: string; readonly onOpen: () => void }) {
  const text = useProject((state) => state.project?.logs.get(id) ?? "");
  const world = useProject((state) => state.project?.world ?? null);
  const proof = useProofs((state) => state.proofs.get(id) ?? null);
  const path = useProofs((state) => state.paths.get(id) ?? null);
  const compared = useProofs((state) => state.compared);
  const check = useBoard((state) => state.check);
  const beside = useBench((state) => state.beside);
  const [form, setForm] = useState<"accept" | "rename" | null>(null);
  const frame = useBench((state) => state.frame);
  const verdict = check === null ? undefined : proof?.checks[check];
  return (
    <aside className="proof-detail" aria-label="Shown log">
      <div className="row-line detail-head">
        <h2 className="grow">{logTitle(text, id)}</h2>
        <DetailMenu id={id} onForm={setForm} />
      </div>
      {form === "rename" && <RenameForm id={id} onDone={() => setForm(null)} />}
      {form === "accept" && <AcceptForm id={id} onDone={() => setForm(null)} />}
      <div className="detail-scroll">
        {proof !== null && <Checks proof={proof} chosen={check} />}
        {world !== null && <ByChance id={id} world={world} />}
        <WhatBrokeIt id={id} />
        <CloseUp />
        <dl className="detail-says">
          {verdict !== undefined && <Says verdict={verdict} />}
          <PathSays path={path} holds={proof?.holds ?? true} />
          {compared !== null && path?.kind === "differs" && (
            <Changed compared={compared.project} revision={compared.revision} />
          )}
          <AcceptedSays id={id} text={text} proof={proof} />
          {proof?.status != null && (
            <>
              <dt>Ends</dt>
              <dd>
                {proof.status} at frame {proof.frames}
              </dd>
            </>
          )}
        </dl>
        <details className="detail-more">
          <summary>Title, tags, notes, rules</summary>
          <LogFacts key={id} id={id} text={text} />
        </details>
      </div>
      <DetailFoot onOpen={onOpen} frame={frame} compared={compared} beside={beside} verdict={verdict} />
    </aside>
  );
}

/** What can be done with the shown frame. */
function DetailFoot({
  onOpen,
  frame,
  compared,
  beside,
  verdict,
}: {
  readonly onOpen: () => void;
  readonly frame: number;
  readonly compared: ComparedRevision | null;
  readonly beside: Beside | null;
  readonly verdict: Verdict | undefined;
}) {
  return (
    <div className="row-line detail-foot">
      <Button variant="main" onClick={onOpen} title="Open on the Bench (Enter)">
        <Icon name="open" /> Open at frame {frame}
      </Button>
      {compared !== null && (
        <Button
          variant="plain"
          aria-pressed={beside?.where.kind === "revision"}
          className={beside?.where.kind === "revision" ? "active" : ""}
          onClick={session.commands.proofs.ghost.act}
          title="Its run at that revision as the pale second trail (G)"
        >
          Ghost of {compared.revision}
        </Button>
      )}
      {verdict !== undefined && verdict.verdict !== "pass" && (
        <Button
          variant="plain"
          onClick={session.commands.proofs.whatBroke.act}
          title="Search the revisions for the one that broke this check (B)"
        >
          What broke it
        </Button>
      )}
    </div>
  );
}

function Checks({ proof, chosen }: { readonly proof: Proof; readonly chosen: number | null }) {
  if (proof.refused !== null)
    return (
      <p className="attention detail-refused">This log cannot be run: {proof.refused}. Its text is kept as it is.</p>
    );
  if (proof.checks.length === 0)
    return <p className="quiet detail-refused">No checks yet. Open it on the Bench, go to a frame, and press A.</p>;
  return (
    <ul className="detail-checks" aria-label="Checks">
      {proof.checks.map((verdict, i) => (
        <li key={`${i} ${verdict.check}`}>
          <button
            type="button"
            className={`${verdict.verdict}${i === chosen ? " on" : ""}`}
            aria-current={i === chosen}
            onClick={() => session.board.chooseCheck(i)}
          >
            <Pebble
              kind={verdict.verdict}
              label={verdict.verdict === "pass" ? "passes" : verdict.verdict === "fail" ? "fails" : "not reached"}
            />
            <span className="mono">{verdict.check}</span>
            {verdict.law && <span className="quiet">law</span>}
            <span className="number quiet">{verdict.frame}</span>
          </button>
        </li>
      ))}
    </ul>
  );
}

function Says({ verdict }: { readonly verdict: Verdict }) {
  return (
    <>
      <dt>Expected</dt>
      <dd>{expectedText(verdict.check)}</dd>
      <dt>Seen</dt>
      <dd>
        {verdict.seen ?? (verdict.verdict === "pass" ? `as expected, decided at frame ${verdict.frame}` : "nothing")}
      </dd>
    </>
  );
}

function PathSays({ path, holds }: { readonly path: PathAnswer | null; readonly holds: boolean }) {
  if (path === null || path.kind === "unknown") return null;
  return (
    <>
      <dt>Path</dt>
      <dd>{path.kind === "same" ? `the same${holds ? "" : ": the check is what changed"}` : partingText(path.at)}</dd>
    </>
  );
}

/** What was changed since the compared revision, in words. */
function Changed({
  compared,
  revision,
}: {
  readonly compared: Parameters<typeof differences>[0];
  readonly revision: number;
}) {
  const project = useProject((state) => state.project);
  const words = useMemo(
    () => (project === null ? "" : summary(project.world, differences(compared, project))),
    [compared, project],
  );
  return (
    <>
      <dt>Change</dt>
      <dd title={`Since revision ${revision}`}>{words}</dd>
    </>
  );
}

function AcceptedSays({
  id,
  text,
  proof,
}: {
  readonly id: string;
  readonly text: string;
  readonly proof: Proof | null;
}) {
  const log = useMemo(() => readOrNull(text), [text]);
  if (log?.accept == null || proof === null) return null;
  const reason = log.notes.find((note) => note.startsWith(ACCEPTED))?.slice(ACCEPTED.length);
  return (
    <>
      <dt>Accepted</dt>
      <dd className={proof.accepted === false ? "attention" : ""}>
        {proof.accepted === false ? "another walk than the accepted one" : "walks just so"}
        {reason !== undefined && <span className="quiet">: {reason}</span>}{" "}
        {proof.accepted === false && (
          <button type="button" className="link" onClick={() => void session.accepted.layAccepted(id)}>
            show it as ghost
          </button>
        )}
      </dd>
    </>
  );
}

function DetailMenu({ id, onForm }: { readonly id: string; readonly onForm: (form: "accept" | "rename") => void }) {
  const world = useProject((state) => state.worldId);
  const accepted = useProject((state) => /^accept /m.test(state.project?.logs.get(id)?.split("\n---")[0] ?? ""));
  return (
    <Dropdown align="end">
      <Dropdown.Toggle
        variant="plain"
        className="btn-icon bare-toggle"
        aria-label="More about this log"
        title="More about this log"
      >
        <Icon name="more" />
      </Dropdown.Toggle>
      <Dropdown.Menu>
        <Dropdown.Item as="button" onClick={() => onForm("accept")}>
          Accept this walk
        </Dropdown.Item>
        {accepted && (
          <Dropdown.Item as="button" onClick={() => session.logEdits.acceptNone(id)}>
            Accept no walk any more
          </Dropdown.Item>
        )}
        <Dropdown.Divider />
        <Dropdown.Item as="button" onClick={() => onForm("rename")}>
          Rename its file
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => session.logEdits.copyLog(id)}>
          Copy this log
        </Dropdown.Item>
        {world !== null && (
          <Dropdown.Item href={logFileAddress(world, id)} download>
            Save as a file
          </Dropdown.Item>
        )}
        <Dropdown.Item as="button" onClick={() => session.logEdits.takeLogAway(id)}>
          Delete this log
        </Dropdown.Item>
      </Dropdown.Menu>
    </Dropdown>
  );
}

function RenameForm({ id, onDone }: { readonly id: string; readonly onDone: () => void }) {
  const field = useFocus<HTMLInputElement>();
  const [name, setName] = useState(id);
  const [fault, setFault] = useState<string | null>(null);
  return (
    <Form
      className="detail-form"
      onSubmit={(event) => {
        event.preventDefault();
        const said = session.logEdits.renameLog(id, name.trim());
        setFault(said);
        if (said === null) onDone();
      }}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
    >
      <label>
        <span>File name</span>
        <Form.Control
          ref={field}
          className="mono"
          value={name}
          maxLength={40}
          aria-invalid={fault !== null}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <Button type="submit" variant="main">
        Rename
      </Button>
      {fault !== null && <p className="attention">{fault}</p>}
    </Form>
  );
}

function AcceptForm({ id, onDone }: { readonly id: string; readonly onDone: () => void }) {
  const field = useFocus<HTMLInputElement>();
  const [reason, setReason] = useState("");
  return (
    <Form
      className="detail-form"
      onSubmit={(event) => {
        event.preventDefault();
        void session.logEdits.acceptLog(id, reason).then(onDone);
      }}
      onKeyDown={(event) => event.key === "Escape" && onDone()}
    >
      <label>
        <span>This is how it should walk, because</span>
        <Form.Control
          ref={field}
          value={reason}
          maxLength={300}
          placeholder="the turn at the basin feels right now"
          onChange={(event) => setReason(event.target.value)}
        />
      </label>
      <Button type="submit" variant="main" disabled={reason.trim() === ""}>
        Accept
      </Button>
    </Form>
  );
}
