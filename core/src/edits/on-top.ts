import type { Json } from "../world/parts.ts";
import { partAddress, partOf, sameJson } from "../world/parts.ts";
import type { Project } from "./project.ts";
import type { ChangeParts, EditStep } from "./step.ts";

/**
 * A step as it does the same to a project that has changed since it was made (architecture.md, flow 4): where it changes
 * some fixtures or actors of a room and others of that room have changed since, theirs stay. What it changes itself must
 * be what it was; else the step is given back as it is, and does not apply.
 */
export function onTop({ world }: Project, step: EditStep): EditStep {
  if (step.kind !== "change-parts") return step;
  const parts = step.parts.map((each) => {
    const address = partAddress(each.part);
    if (address?.kind !== "of-room" || (address.key !== "fixtures" && address.key !== "actors")) return each;
    return onTopOf(partOf(world, address), each);
  });
  return { ...step, parts };
}

interface Thing {
  readonly id: string;
}
type Part = ChangeParts["parts"][number];

function onTopOf(present: Json, part: Part): Part {
  if (present === null || sameJson(present, part.before)) return part;
  const after = merged(things(present), things(part.before), things(part.after));
  return after === null ? part : { part: part.part, before: present, after: after as unknown as Json };
}

/** What is there with the changes from `before` to `after` made to it; null where one of them does not fit. */
function merged(present: readonly Thing[], before: readonly Thing[], after: readonly Thing[]): Thing[] | null {
  const [is, was, shall] = [present, before, after].map((list) => new Map(list.map((each) => [each.id, each]))) as [
    Map<string, Thing>,
    Map<string, Thing>,
    Map<string, Thing>,
  ];
  const touched = [...new Set([...was.keys(), ...shall.keys()])].filter((id) => !same(was.get(id), shall.get(id)));
  if (touched.some((id) => !same(is.get(id), was.get(id)))) return null;
  // Their order says who moves first: one that was changed is not put together with another.
  const stayed = (list: readonly Thing[]) => list.filter(({ id }) => was.has(id) && shall.has(id)).map(({ id }) => id);
  if (!sameJson(stayed(before), stayed(after))) return null;
  const changed = new Set(touched);
  const result = present
    .filter(({ id }) => !changed.has(id) || shall.has(id))
    .map((each) => (changed.has(each.id) ? shall.get(each.id)! : each));
  after.forEach((thing, at) => {
    if (was.has(thing.id)) return;
    // Behind the one that it stood behind, so that what comes back stands where it was.
    const behind = at === 0 ? -1 : result.findIndex(({ id }) => id === after[at - 1]!.id);
    result.splice(at > 0 && behind < 0 ? result.length : behind + 1, 0, thing);
  });
  return result;
}

const same = (one: Thing | undefined, other: Thing | undefined): boolean =>
  sameJson((one ?? null) as unknown as Json, (other ?? null) as unknown as Json);

const things = (list: Json): readonly Thing[] => (list ?? []) as unknown as readonly Thing[];
