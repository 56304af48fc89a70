import { session } from "../../page-session.ts";
import type { JournalEntry, RevisionEntry } from "@keen-pebble/server/api";
import type { ReactNode } from "react";
import { useEffect, useState } from "react";
import Button from "react-bootstrap/Button";
import { useNavigate } from "react-router";
import { useStore } from "zustand";
import { Icon } from "../../look/icon.tsx";
import { ActFinder } from "../../look/act-finder.tsx";
import { Pebble } from "../../look/pebble.tsx";
import { plural } from "../../look/plural.ts";
import { journalAddress } from "../../session/project/api-client.ts";
import { useProject, useProofs, useSaving } from "../../use-session.ts";
import { useCommandKeys } from "../../look/use-commands.ts";
import { Entry, NewEntryForm } from "./entry.tsx";
import { PlaytestStrip } from "./playtest-strip.tsx";
import "./journal.css";
import Form from "react-bootstrap/Form";
import { BareButton } from "../../look/bare-button.tsx";

const ASK_AGAIN_MS = 2000;

/** The Journal: what was changed, why, and what it did to the proofs. */
export function JournalPage() {
  const worldId = useProject((state) => state.worldId);
  const ready = useProject((state) => state.phase === "ready");
  const { revision: newest } = useSaving();
  const server = useProofs(({ server: said }) => (said === null ? "" : `${said.revision} ${said.state}`));
  const { revisions, entries, before, fault, chosen } = useStore(session.journal.store);
  useCommandKeys(session.commands.journal, session.walks.walkTakesKeys);
  // A revision more, or proofs that are through: the list says so.
  useEffect(() => {
    if (ready) void session.journal.readJournal();
  }, [ready, newest, server]);
  const faulty = fault !== null;
  useEffect(() => {
    if (!faulty) return;
    const again = setInterval(() => void session.journal.readJournal(), ASK_AGAIN_MS);
    return () => clearInterval(again);
  }, [faulty]);
  return (
    <>
      <main className="area journal">
        <JournalHead worldId={worldId} />
        <PlaytestStrip />
        {fault !== null && (
          <p className="attention journal-none">
            The journal cannot be read: {fault}. Nothing is lost; it is asked for again by itself.
          </p>
        )}
        {fault === null && revisions === null && <p className="quiet journal-none">reading</p>}
        {fault === null && revisions !== null && <NewEntryForm />}
        <ol className="revisions" aria-label="Revisions">
          {revisions !== null && <Days revisions={revisions} entries={entries} chosen={chosen} newest={newest} />}
          {before !== null && (
            <li className="older">
              <Button variant="plain" onClick={() => void session.journal.readOlder()}>
                Older revisions
              </Button>
            </li>
          )}
        </ol>
      </main>
      <footer className="status">
        <span>{revisions === null ? "" : plural(revisions[0]?.revision ?? 0, "revision")}</span>
        <span className="grow" />
        <span>N writes a note, G compares the proofs with it</span>
      </footer>
      <ActFinder area="Journal" commands={session.commands.journal} isBusy={session.walks.walkTakesKeys} />
    </>
  );
}

/** What the Journal is, and the way to take it home. */
function JournalHead({ worldId }: { readonly worldId: string | null }) {
  return (
    <div className="journal-head">
      <h1>Journal</h1>
      <p className="quiet">What each revision changed, why, and what the proofs said to it.</p>
      <span className="grow" />
      <a
        className="btn btn-plain"
        href={worldId === null ? undefined : journalAddress(worldId)}
        download
        title="For a hand-in or a pull request"
      >
        <Icon name="takeHome" /> Markdown
      </a>
    </div>
  );
}

/** All that was done and written, day by day. */
function Days({
  revisions,
  entries,
  chosen,
  newest,
}: {
  readonly revisions: readonly RevisionEntry[];
  readonly entries: readonly JournalEntry[];
  readonly chosen: number | null;
  readonly newest: number | null;
}) {
  return byDay(revisions, entries).map(({ day, said }) => (
    <Day key={day} day={day}>
      {said.map((each) =>
        "id" in each ? (
          <Entry key={`entry ${each.id}`} entry={each} when={timeOf(each.writtenAt)} />
        ) : (
          <Revision
            key={each.revision}
            entry={each}
            chosen={each.revision === chosen}
            newest={each.revision === newest}
          />
        ),
      )}
    </Day>
  ));
}

/** What was done and written on one day. */
function Day({ day, children }: { readonly day: string; readonly children: ReactNode }) {
  return (
    <>
      <li className="day" aria-hidden="true">
        {day}
      </li>
      {children}
    </>
  );
}

/** Revisions and entries together by day, the newest first. */
function byDay(
  revisions: readonly RevisionEntry[],
  entries: readonly JournalEntry[],
): { readonly day: string; readonly said: readonly (RevisionEntry | JournalEntry)[] }[] {
  const moment = (each: RevisionEntry | JournalEntry): string => ("id" in each ? each.writtenAt : each.savedAt);
  const all = [...entries, ...revisions].sort((one, other) => (moment(one) < moment(other) ? 1 : -1));
  const days: { day: string; said: (RevisionEntry | JournalEntry)[] }[] = [];
  for (const each of all) {
    const day = dayOf(moment(each));
    if (days.at(-1)?.day !== day) days.push({ day, said: [] });
    days.at(-1)!.said.push(each);
  }
  return days;
}

interface Props {
  readonly entry: RevisionEntry;
  readonly chosen: boolean;
  readonly newest: boolean;
}

function Revision({ entry, chosen, newest }: Props) {
  const { revision, summary, savedAt } = entry;
  const [writing, setWriting] = useState(false);
  return (
    <li
      className={`revision${chosen ? " on" : ""}`}
      aria-current={chosen}
      data-revision={revision}
      onClick={() => session.journal.chooseRevision(revision)}
    >
      <span className="number mono">{revision}</span>
      <span className="quiet when" title={savedAt}>
        {timeOf(savedAt)}
      </span>
      <ProofsSaid entry={entry} />
      <div className="said">
        <p>{summary}</p>
        <Note entry={entry} writing={writing} onWrite={() => setWriting(true)} onDone={() => setWriting(false)} />
      </div>
      <RevisionActs revision={revision} onWrite={() => setWriting(true)} newest={newest} />
    </li>
  );
}

/** What can be done with a revision. */
function RevisionActs({
  revision,
  onWrite,
  newest,
}: {
  readonly revision: number;
  readonly onWrite: () => void;
  readonly newest: boolean;
}) {
  const navigate = useNavigate();
  const worldId = useProject((state) => state.worldId);
  return (
    <div className="row-line acts">
      <BareButton
        icon="pen"
        name={`Note to revision ${revision}`}
        title="Write a note: a reason, a fault found, what somebody said (N)"
        variant="plain"
        data-note={revision}
        onClick={onWrite}
      />
      <Button
        variant="plain"
        disabled={newest}
        title="The board compares all paths with this revision"
        onClick={() => {
          void session.proofs.compareWithRevision(revision);
          void navigate(`/w/${worldId ?? ""}/proofs${window.location.search}`);
        }}
      >
        Compare
      </Button>
      <Button
        variant="plain"
        disabled={newest}
        title="Make everything as it was, as a new revision"
        onClick={() => void session.journal.restoreRevision(revision)}
      >
        <Icon name="undo" /> Restore
      </Button>
    </div>
  );
}

function ProofsSaid({ entry: { proofs } }: { readonly entry: RevisionEntry }) {
  if (proofs === null) return <span className="proofs-said quiet">not run</span>;
  if (proofs.state !== "done")
    return <span className="proofs-said quiet">{proofs.state === "running" ? "running" : "cancelled"}</span>;
  const { total, holds } = proofs;
  return (
    <span className="proofs-said">
      <Pebble kind={holds === total ? "pass" : "fail"} label={null} />
      {holds === total ? `all ${total} hold` : `${holds} of ${total} hold`}
    </span>
  );
}

/** What somebody says of a revision: shown, and written in place. */
function Note({
  entry: { revision, note },
  writing,
  onWrite,
  onDone,
}: {
  readonly entry: RevisionEntry;
  readonly writing: boolean;
  readonly onWrite: () => void;
  readonly onDone: () => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null) {
    if (note === null && !writing) return null;
    if (!writing) {
      return (
        <button type="button" className="note" onClick={onWrite}>
          {note}
        </button>
      );
    }
  }
  const keep = async (): Promise<void> => {
    if (typed === null || typed.trim() === (note ?? "") || (await session.journal.noteRevision(revision, typed))) {
      setTyped(null);
      onDone();
    }
  };
  return (
    <Form.Control
      as="textarea"
      aria-label={`Note to revision ${revision}`}
      autoFocus
      rows={3}
      maxLength={4000}
      placeholder="A reason, a fault found, what somebody said"
      value={typed ?? note ?? ""}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => void keep()}
      onKeyDown={(event) => {
        if (event.key === "Escape") {
          setTyped(null);
          onDone();
        } else if (event.key === "Enter" && event.ctrlKey) event.currentTarget.blur();
      }}
    />
  );
}

const dayOf = (moment: string): string =>
  new Date(moment).toLocaleDateString("en", { weekday: "long", day: "numeric", month: "long", year: "numeric" });
const timeOf = (moment: string): string =>
  new Date(moment).toLocaleTimeString("en", { hour: "2-digit", minute: "2-digit", hour12: false });
