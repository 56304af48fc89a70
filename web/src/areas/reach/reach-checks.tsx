import type { World } from "@keen-pebble/core/world";
import { allFixtures } from "@keen-pebble/core/world";
import Button from "react-bootstrap/Button";
import { BareButton } from "../../look/bare-button.tsx";
import { Pebble } from "../../look/pebble.tsx";
import { plural } from "../../look/plural.ts";
import { session } from "../../page-session.ts";
import type { ReachShown } from "../../workers/reach.ts";
import { useIsOwnQuestion } from "./use-is-own-question.ts";

/** The world's reach checks with what they come to, and those that could be added because they are true. */
export function ReachChecks({ world, shown }: { readonly world: World; readonly shown: ReachShown }) {
  const isOwn = useIsOwnQuestion(world);
  if (!isOwn)
    return (
      <section className="reach-checks" aria-label="Reach checks">
        <h2>Checks of all play</h2>
        <p className="quiet small">
          They are about the world's start and its default rules: ask from there to see them.
        </p>
      </section>
    );
  const offered = trueChecks(world, shown).filter((check) => !world.reachChecks.includes(check));
  return (
    <section className="reach-checks" aria-label="Reach checks">
      <div className="row-line">
        <h2 className="grow">Checks of all play</h2>
        {offered.length > 0 && (
          <Button variant="plain" title={offered.join("; ")} onClick={() => session.reach.addChecks(offered)}>
            Add {plural(offered.length, "check")} that hold
          </Button>
        )}
      </div>
      {world.reachChecks.length === 0 && (
        <p className="quiet small">
          None yet. They hold in all play there could be, and are part of Proofs, verify and JUnit.
        </p>
      )}
      <ul>
        {shown.verdicts.map(({ check, verdict, seen, way }) => (
          <li key={check}>
            <Pebble kind={verdict === "open" ? "unreached" : verdict} radius={4.5} label={verdict} />
            <button
              type="button"
              className="thing"
              disabled={way === null}
              onClick={() => way !== null && void session.reach.showWay(check, { kind: "way", way })}
            >
              {check}
              {seen !== null && <span className="reason">{seen}</span>}
            </button>
            <BareButton icon="close" name={`Delete ${check}`} onClick={() => session.reach.removeCheck(check)} />
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Checks that say what is so now; that something is never reached is kept where one looks at it. */
function trueChecks(world: World, { answer }: ReachShown): string[] {
  const items = new Set(allFixtures(world).flatMap((each) => (each.kind === "item" ? [each.give] : [])));
  const reachesAll = (item: string): boolean =>
    allFixtures(world).every((each, i) => each.kind !== "item" || each.give !== item || answer.fixtures[i]! >= 0);
  const losable = new Set(answer.losable?.map(({ fixture }) => fixture) ?? []);
  const isSafe = (item: string): boolean =>
    answer.losable !== null &&
    allFixtures(world).every((each) => each.kind !== "item" || each.give !== item || !losable.has(each.id));
  return [
    ...(answer.goal !== null && answer.goal >= 0 ? ["winnable"] : []),
    ...(answer.goal !== null && answer.goal >= 0 && answer.losable !== null && answer.stuck?.states === 0
      ? ["never stuck"]
      : []),
    ...[...items].filter(reachesAll).map((item) => `reachable all ${item}`),
    ...[...items].filter((item) => reachesAll(item) && isSafe(item)).map((item) => `never lost ${item}`),
    ...allFixtures(world).flatMap(({ id, kind }, i) =>
      kind !== "item" && answer.fixtures[i]! >= 0 ? [`reachable ${id}`] : [],
    ),
    ...(answer.alignment.verdict === "proved" ? ["aligned"] : []),
  ];
}
