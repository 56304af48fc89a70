import type { Remembered } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { allFixtures } from "@keen-pebble/core/world";
import { Pebble } from "../../look/pebble.tsx";
import { stateText } from "../../field/fixture-looks.ts";

/** What a death in the shown frame would give back, and what the bag would then hold. */
export function DieAndReturn({
  world,
  remembered,
  afterRespawn,
}: {
  readonly world: World;
  readonly remembered: Remembered;
  readonly afterRespawn: Remembered;
}) {
  const fixtures = allFixtures(world);
  if (!fixtures.some(({ kind }) => kind === "hazard")) return null;
  const place = remembered.checkpoint < 0 ? "the start" : fixtures[remembered.checkpoint]!.id;
  const back = fixtures.flatMap((fixture, i) => {
    const [now, then] = [stateText(world, fixture, remembered, i), stateText(world, fixture, afterRespawn, i)];
    // An item that is there again while the bag keeps it can be had twice.
    const twice =
      fixture.kind === "item" &&
      remembered.taken[i] === 1 &&
      afterRespawn.taken[i] === 0 &&
      held(world, remembered, fixture.give) === held(world, afterRespawn, fixture.give);
    return now === then ? [] : [{ fixture, text: `${now} to ${then}`, twice }];
  });
  const bag = world.items.filter((_, i) => remembered.bag[i] !== afterRespawn.bag[i]);
  return (
    <section className="re-entry" aria-label="Die and return">
      <div className="row-line">
        <strong className="grow">Die and return</strong>
        <span className="quiet">to {place}</span>
      </div>
      <ul>
        {back.map(({ fixture, text, twice }) => (
          <li key={fixture.id}>
            <Pebble kind={twice ? "fail" : "pass"} label={null} /> {fixture.id} {text}
            {twice && <span className="attention">can be had twice</span>}
          </li>
        ))}
        {bag.map((item) => (
          <li key={item.id}>
            <Pebble kind="pass" label={null} /> {item.name} in the bag: {held(world, remembered, item.id)} to{" "}
            {held(world, afterRespawn, item.id)}
          </li>
        ))}
      </ul>
      {back.length === 0 && bag.length === 0 && <p className="quiet">A death in this frame gives nothing back.</p>}
    </section>
  );
}

const held = (world: World, { bag }: Remembered, item: string): number =>
  bag[world.items.findIndex(({ id }) => id === item)] ?? 0;
