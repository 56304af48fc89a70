import { session } from "../../page-session.ts";
import type { ReEntry } from "@keen-pebble/core/analyse";
import type { World } from "@keen-pebble/core/world";
import { allFixtures, roomById } from "@keen-pebble/core/world";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { plural } from "../../look/plural.ts";
import { Pebble } from "../../look/pebble.tsx";
import { useBench } from "../../use-session.ts";

/** Leaves the walker's room and comes back, in one click, and says what came back with it. */
export function ReEntryTest({ world }: { readonly world: World }) {
  const tested = useStore(session.reEntries.store);
  const here = useBench((state) =>
    state.run === null ? null : world.rooms[state.run.rows.room[Math.min(state.frame, state.run.frames)]!],
  );
  if (here === null || here === undefined) return null;
  const name = tested.phase === "none" ? "" : (roomById(world, tested.room)?.name ?? tested.room);
  return (
    <section className="re-entry" aria-label="Re-entry test">
      <div className="row-line">
        <strong className="grow">Re-entry test</strong>
        <Button
          variant="main"
          disabled={tested.phase === "looking"}
          onClick={() => void session.reEntries.testReEntry()}
        >
          Leave {here.name} and return
        </Button>
      </div>
      <div role="status">
        {tested.phase === "looking" && <p>Looking for the way out and back</p>}
        {tested.phase === "refused" && <p className="attention">{tested.why}</p>}
        {tested.phase === "not found" && (
          <p>
            {tested.exhaustive
              ? `From this frame there is no way out of ${name} and back.`
              : `From this frame no way out of ${name} and back was found within ${plural(tested.states, "state")}.`}
          </p>
        )}
        {tested.phase === "done" && <Outcome world={world} name={name} result={tested.result} />}
      </div>
    </section>
  );
}

function Outcome({ world, name, result }: { readonly world: World; readonly name: string; readonly result: ReEntry }) {
  const changed = allFixtures(world).flatMap((fixture, i) => {
    const [took, opened] = [
      result.before.taken[i] !== result.after.taken[i],
      result.before.open[i] !== result.after.open[i],
    ];
    if (!took && !opened) return [];
    return [
      {
        fixture,
        text: took
          ? result.after.taken[i] === 1
            ? "taken on the way"
            : "there again"
          : result.after.open[i] === 1
            ? "opened on the way"
            : "closed again",
        back: took ? result.after.taken[i] === 0 : result.after.open[i] === 0,
      },
    ];
  });
  const circuits = world.circuits.filter((_, i) => result.before.on[i] !== result.after.on[i]);
  return (
    <>
      {changed.length === 0 && circuits.length === 0 && (
        <p>
          <Pebble kind="pass" label={null} /> {name} is as it was left.
        </p>
      )}
      <ul>
        {changed.map(({ fixture, text, back }) => (
          <li key={fixture.id}>
            <Pebble kind={back ? "fail" : "pass"} label={null} /> {fixture.id} {text}
            {back && fixture.keeps === "visit" && (
              <Button variant="plain" onClick={() => session.reEntries.keepForTheRun(fixture.id)}>
                Keep for the run
              </Button>
            )}
          </li>
        ))}
        {circuits.map((circuit) => (
          <li key={circuit}>
            <Pebble kind="fail" label={null} /> {circuit}{" "}
            {result.after.on[world.circuits.indexOf(circuit)] === 1 ? "on" : "off"} now
          </li>
        ))}
      </ul>
      <div className="row-line">
        <span className="quiet grow">
          frame {result.from} to {result.to}
        </span>
        <Button variant="plain" onClick={session.reEntries.keepReEntry}>
          Keep as a log
        </Button>
      </div>
    </>
  );
}
