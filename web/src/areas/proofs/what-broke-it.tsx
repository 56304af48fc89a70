import { session } from "../../page-session.ts";
import Button from "react-bootstrap/Button";
import { useProofs } from "../../use-session.ts";
import { BareButton } from "../../look/bare-button.tsx";

/** The search over the revisions for the first one at which a check fails: how far it is, or what it found. */
export function WhatBrokeIt({ id }: { readonly id: string }) {
  const search = useProofs((state) => state.search);
  if (search?.log !== id) return null;
  const { state, good, bad, found, check } = search;
  return (
    <section className={`broke${found === null ? "" : " found"}`} aria-label="What broke it" role="status">
      <div className="row-line">
        <strong className="grow">
          {state === "running" &&
            (good === null ? "Looking for a revision at which it held" : `Between revision ${good} and ${bad ?? ""}`)}
          {state === "found" && found !== null && `Revision ${found.revision} broke it`}
          {state === "never-held" && "It never held"}
          {state === "holds" && "It holds at the newest revision"}
          {state === "cancelled" && "Given up"}
          {state === "failed" && "The search could not be finished"}
        </strong>
        <BareButton
          icon="close"
          name={state === "running" ? "Give the search up" : "Put the answer away"}
          onClick={session.proofs.endSearchBreak}
        />
      </div>
      <span className="mono quiet">{check}</span>
      {found !== null && (
        <>
          <p>{found.summary}</p>
          <p className="quiet">
            Fails there at frame {found.frame}
            {found.seen !== null && `; seen: ${found.seen}`}
          </p>
          {found.revision > 1 && (
            <Button
              variant="plain"
              onClick={() => {
                void session.proofs.compareWithRevision(found.revision - 1);
                void session.beside.layRevisionBeside(found.revision - 1);
              }}
            >
              Compare with {found.revision - 1}, the last that held
            </Button>
          )}
        </>
      )}
      {state === "never-held" && <p className="quiet">No revision was found at which this check of this log passes.</p>}
    </section>
  );
}
