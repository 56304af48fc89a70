import { plural } from "../look/plural.ts";
import { session } from "../page-session.ts";
import type { Tile, World, Rules } from "@keen-pebble/core/world";
import { flagUses } from "@keen-pebble/core/edit";
import { useMemo, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Table from "react-bootstrap/Table";
import { leaveOnEnter } from "../look/text-field.tsx";
import { BareButton } from "../look/bare-button.tsx";

/** The flags as a row of toggles for all chosen tiles; behind them where each is used and who asks for it. */
export function FlagList({
  world,
  tiles,
  uses,
}: {
  readonly world: World;
  readonly tiles: readonly Tile[];
  readonly uses: Uint32Array;
}) {
  const [open, setOpen] = useState(false);
  const fixed = tiles.every((tile) => tile.id === world.tiles[0]!.id);
  const rules = world.rules.find((each) => each.id === world.activeRules);
  return (
    <section className="kit-part" aria-label="Flags">
      <div className="row-line">
        <h3 className="grow">Flags</h3>
        <Button variant="bare" className="text-button" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "done" : "where used"}
        </Button>
      </div>
      <div className="flags">
        {world.flags.map((flag) => {
          const carriers = tiles.filter((tile) => tile.flags.includes(flag)).length;
          const state = carriers === 0 ? "false" : carriers === tiles.length ? "true" : "mixed";
          const asked = rules?.walker.blockedBy.includes(flag) ?? false;
          return (
            <button
              key={flag}
              type="button"
              className="flag"
              role="checkbox"
              aria-checked={state}
              disabled={fixed}
              title={asked ? `${flag}: stops the walker` : `${flag}: the walker does not ask for it`}
              onClick={() => session.tiles.toggleFlag(flag, state !== "true")}
            >
              <i className={asked ? "blocking" : ""} />
              {flag}
            </button>
          );
        })}
        {fixed && <span className="quiet">The empty tile carries none.</span>}
      </div>
      {open && <FlagTable world={world} uses={uses} />}
    </section>
  );
}

function FlagTable({ world, uses }: { readonly world: World; readonly uses: Uint32Array }) {
  const [name, setName] = useState("");
  const used = useMemo(() => flagUses(world, uses), [world, uses]);
  const rules = world.rules.find((each) => each.id === world.activeRules)!;
  return (
    <Table className="flag-table">
      <thead>
        <tr>
          <th scope="col">Flag</th>
          <th scope="col">Cells</th>
          <th scope="col">Stops {rules.name}</th>
          <th scope="col">
            <span className="visually-hidden">Delete</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {world.flags.map((flag) => {
          const { tiles, cells, rules: askedBy } = used.get(flag)!;
          const on = rules.walker.blockedBy.includes(flag);
          return <FlagRow key={flag} flag={flag} tiles={tiles} cells={cells} on={on} rules={rules} askedBy={askedBy} />;
        })}
      </tbody>
      <tfoot>
        <tr>
          <td colSpan={3}>
            <Form.Control
              aria-label="New flag"
              placeholder="New flag"
              maxLength={40}
              value={name}
              onChange={(event) => setName(event.target.value)}
              onKeyDown={(event) => event.key === "Enter" && add()}
            />
          </td>
          <td>
            <BareButton icon="plus" name="Add the flag" disabled={name.trim() === ""} onClick={add} />
          </td>
        </tr>
      </tfoot>
    </Table>
  );

  function add(): void {
    if (name.trim() === "") return;
    session.tiles.makeFlag(name.trim());
    setName("");
  }
}

/** One flag: its name, where it is, whether it stops the walker. */
function FlagRow({
  flag,
  tiles,
  cells,
  on,
  rules,
  askedBy,
}: {
  readonly flag: string;
  readonly tiles: number;
  readonly cells: number;
  readonly on: boolean;
  readonly rules: Rules;
  readonly askedBy: readonly string[];
}) {
  return (
    <tr>
      <td>
        <Form.Control
          aria-label={`Name of flag ${flag}`}
          defaultValue={flag}
          maxLength={40}
          onBlur={(event) => session.tiles.callFlag(flag, event.target.value.trim())}
          onKeyDown={leaveOnEnter}
        />
      </td>
      <td className="mono" title={`in ${tiles} tiles`}>
        {cells}
      </td>
      <td>
        <label className="row-line">
          <Form.Check.Input
            className="m-0"
            aria-label={`${flag} stops the walker`}
            checked={on}
            onChange={(event) => session.tiles.toggleBlockedBy(rules.id, flag, event.target.checked)}
          />
          <span className={askedBy.length === 0 ? "attention" : "quiet"}>
            {askedBy.length === 0 ? "nobody asks" : on ? "yes" : "no"}
          </span>
        </label>
      </td>
      <td>
        <BareButton
          icon="bin"
          name={`Delete the flag ${flag} from ${plural(tiles, "tile")}`}
          title={`Delete it from ${plural(tiles, "tile")} and ${plural(askedBy.length, "rule set")}`}
          onClick={() => session.tiles.dropFlag(flag)}
        />
      </td>
    </tr>
  );
}
