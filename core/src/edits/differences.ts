import type { Room, World, Rules } from "../world/world.ts";
import { SETTINGS, settingValue } from "../world/settings.ts";
import type { Json } from "../world/parts.ts";
import { LIST_PARTS, ROOM_PARTS, WHOLE_PARTS, partAddress, partOf, sameJson } from "../world/parts.ts";
import type { Project } from "./project.ts";
import type { ChangeParts, EditStep } from "./step.ts";

type Part = ChangeParts["parts"][number];

/**
 * The steps that turn one project into another of the same id: what a file that was changed elsewhere brings
 * (architecture.md, flow 2). Empty where they are the same.
 */
export function differences(before: Project, after: Project): EditStep[] {
  const settings =
    before.world.tileSize === after.world.tileSize
      ? after.world.rules.flatMap((rules) => settingSteps(before.world, rules))
      : [];
  const parts = partChanges(before.world, after.world, new Set(settings.map((step) => `rules/${step.rules}`)));
  const changed: EditStep[] = parts.length === 0 ? [] : [{ kind: "change-parts", parts }];
  const cells = after.world.rooms.flatMap((room) => cellSteps(before.world, room));
  // Tiles that come are there before their cells are painted, tiles that go are painted over first.
  const grows = after.world.tiles.length >= before.world.tiles.length;
  return [...settings, ...(grows ? [...changed, ...cells] : [...cells, ...changed]), ...logSteps(before, after)];
}

/** Settings of a rule set in which nothing but settings changed. */
function settingSteps(world: World, after: Rules): (EditStep & { kind: "change-rules" })[] {
  const before = world.rules.find((rules) => rules.id === after.id);
  if (!before) return [];
  const rest = ({ id, name, gait, walker: { blockedBy, body } }: Rules): Json => ({ id, name, gait, blockedBy, body });
  if (!sameJson(rest(before), rest(after))) return [];
  return SETTINGS.flatMap(({ path }) => {
    const [was, is] = [settingValue(before, path), settingValue(after, path)];
    return was === is
      ? []
      : [{ kind: "change-rules" as const, rules: after.id, setting: path, before: was, after: is }];
  });
}

function cellSteps(world: World, after: Room): EditStep[] {
  const before = world.rooms.find((room) => room.id === after.id);
  // Nearly always they are the very same: cells are never written to.
  if (!before || before.cells === after.cells || !isSameSize(before, after)) return [];
  const cells: number[] = [];
  after.cells.forEach((tile, cell) => {
    if (tile !== before.cells[cell]) cells.push(cell);
  });
  if (cells.length === 0) return [];
  return [
    {
      kind: "set-cells",
      room: after.id,
      cells,
      before: cells.map((cell) => before.cells[cell]!),
      after: cells.map((cell) => after.cells[cell]!),
    },
  ];
}

const isSameSize = (a: Room, b: Room): boolean => a.width === b.width && a.height === b.height;

function partChanges(before: World, after: World, settled: ReadonlySet<string>): Part[] {
  const parts: Part[] = [];
  const compare = (part: string): void => {
    const address = partAddress(part)!;
    const [was, is] = [partOf(before, address), partOf(after, address)];
    if (!sameJson(was, is)) parts.push({ part, before: was, after: is });
  };
  for (const key of WHOLE_PARTS) compare(key);
  for (const list of LIST_PARTS) {
    const ids = new Set([...before[list], ...after[list]].map((thing) => thing.id));
    for (const id of ids) {
      if (settled.has(`${list}/${id}`)) continue;
      const [was, is] = [before.rooms.find((room) => room.id === id), after.rooms.find((room) => room.id === id)];
      if (list === "rooms" && was && is && isSameSize(was, is))
        for (const key of ROOM_PARTS) compare(`rooms/${id}/${key}`);
      else compare(`${list}/${id}`);
    }
    const [was, is] = [before[list].map((thing) => thing.id), after[list].map((thing) => thing.id)];
    if (!sameJson(settledOrder(was, is), is) || !sameJson(settledOrder(is, was), was)) compare(list);
  }
  return parts;
}

/** How a list stands once things have come and gone, newcomers last, and nothing was sorted. */
function settledOrder(was: readonly string[], is: readonly string[]): string[] {
  return [...was.filter((id) => is.includes(id)), ...is.filter((id) => !was.includes(id))];
}

function logSteps(before: Project, after: Project): EditStep[] {
  const ids = [...new Set([...before.logs.keys(), ...after.logs.keys()])].sort();
  return ids.flatMap((log): EditStep[] => {
    const [was, is] = [before.logs.get(log), after.logs.get(log)];
    if (was === is) return [];
    if (was === undefined) return [{ kind: "add-log", log, text: is! }];
    return is === undefined
      ? [{ kind: "remove-log", log, text: was }]
      : [{ kind: "change-log", log, before: was, after: is }];
  });
}
