import { session } from "../page-session.ts";
import type { World, Item } from "@keen-pebble/core/world";
import { FixtureImage } from "../field/fixture-image.tsx";
import { Icon } from "../look/icon.tsx";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { BareButton } from "../look/bare-button.tsx";

/** What fixtures are about: items and circuits, each with its small editor. */
export function WorldThings({ world }: { readonly world: World }) {
  return (
    <section className="world-things" aria-label="Items and circuits">
      <h3>Items</h3>
      {world.items.map((item) => (
        <ItemRow key={item.id} item={item} />
      ))}
      <div className="row-line">
        <Button variant="plain" onClick={() => session.fixtures.makeItem("key")}>
          <Icon name="plus" /> key
        </Button>
        <Button variant="plain" onClick={() => session.fixtures.makeItem("treasure")}>
          <Icon name="plus" /> treasure
        </Button>
      </div>
      <h3>Circuits</h3>
      <Circuits world={world} />
    </section>
  );
}

/** One item: how it looks and what it is called. */
function ItemRow({ item }: { readonly item: Item }) {
  return (
    <div className="row-line">
      <FixtureImage look={{ kind: "item", on: false, item }} size={16} />
      <Form.Control
        className="grow"
        aria-label={`Name of ${item.id}`}
        title={item.id}
        maxLength={80}
        value={item.name}
        onChange={(event) =>
          event.target.value.trim() !== "" && session.fixtures.setItem(item.id, { name: event.target.value })
        }
      />
      <Form.Control
        type="color"
        aria-label={`Colour of ${item.id}`}
        value={item.colour}
        onChange={(event) => session.fixtures.setItem(item.id, { colour: event.target.value })}
      />
      <BareButton icon="close" name={`Delete ${item.id}`} onClick={() => session.fixtures.removeItem(item.id)} />
    </div>
  );
}

/** The circuits, and one more. */
function Circuits({ world }: { readonly world: World }) {
  return (
    <div className="row-line wrap">
      {world.circuits.map((circuit) => (
        <span key={circuit} className="pill">
          {circuit}
          <BareButton icon="close" name={`Delete ${circuit}`} onClick={() => session.fixtures.removeCircuit(circuit)} />
        </span>
      ))}
      <Button variant="plain" onClick={session.fixtures.makeCircuit}>
        <Icon name="plus" /> circuit
      </Button>
    </div>
  );
}
