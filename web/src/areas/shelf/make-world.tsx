import { shelfParts } from "../../page-shelf.ts";
import type { World, Room } from "@keen-pebble/core/world";
import { useEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { RoomPicture } from "../../field/room-picture.ts";
import { useShelf } from "../../use-shelf.ts";
import type { TypedWorld } from "../../session/shelf/make-world.ts";
import { SIZES, TEMPLATES, readTyped } from "../../session/shelf/make-world.ts";
import { TextField } from "../../look/text-field.tsx";

/** Makes a world: by typing its first room, or an empty one. */
export function MakeWorld() {
  const [name, setName] = useState("");
  const called = name.trim() === "" ? "New world" : name.trim();
  return (
    <>
      <div className="row-line">
        <h2 className="grow">Create a world</h2>
        <TextField
          label="Name"
          className="world-called"
          aria-label="Name of the new world"
          placeholder="New world"
          maxLength={80}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </div>
      <TypeRoom name={called} />
      <Empty name={called} />
      <Grounds name={called} />
    </>
  );
}

function TypeRoom({ name }: { readonly name: string }) {
  const busy = useShelf((state) => state.busy);
  const [text, setText] = useState(TEMPLATES[0]!.text);
  const [typed, setTyped] = useState<TypedWorld | null>(null);
  useEffect(() => {
    let wanted = true;
    void readTyped(text).then((result) => {
      if (wanted) setTyped(result);
    });
    return () => {
      wanted = false;
    };
  }, [text]);
  const world = typed !== null && "world" in typed ? typed.world : null;
  const first = typed !== null && "refusals" in typed ? typed.refusals[0] : undefined;
  const room = world?.rooms[0];
  return (
    <section className="type-room" aria-label="Type a room">
      <div className="row-line">
        <strong>Type a room</strong>
        <span className="quiet grow">a character is a cell</span>
        <Form.Select
          aria-label="Begin with"
          className="template"
          value={TEMPLATES.find((each) => each.text === text)?.name ?? ""}
          onChange={(event) => setText(TEMPLATES.find((each) => each.name === event.target.value)?.text ?? text)}
        >
          <option value="" disabled>
            Begin with
          </option>
          {TEMPLATES.map((each) => (
            <option key={each.name} value={each.name}>
              {each.name}
            </option>
          ))}
        </Form.Select>
      </div>
      <Form.Control
        as="textarea"
        className="mono"
        aria-label="Room as text"
        aria-invalid={first !== undefined}
        spellCheck={false}
        wrap="off"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <TypedRoom world={world} first={first} room={room} busy={busy} name={name} />
    </section>
  );
}

/** The typed room as a picture, and what is wrong with it. */
function TypedRoom({
  world,
  first,
  room,
  busy,
  name,
}: {
  readonly world: World | null;
  readonly first:
    | { readonly line: number | null; readonly column: number | null; readonly message: string }
    | undefined;
  readonly room: Room | undefined;
  readonly busy: boolean;
  readonly name: string;
}) {
  return (
    <div className="typed-room">
      <TypedPicture world={world} />
      <div className="row-line">
        <span className={first ? "attention grow" : "quiet grow"} role="status">
          {first
            ? `${first.line}:${first.column} ${first.message}`
            : world && room
              ? `${room.width} x ${room.height}, start ${world.start.cell.join(",")}`
              : ""}
        </span>
        <Button
          variant="plain"
          disabled={world === null || busy}
          onClick={() => world && shelfParts.makeWorld.makeTypedWorld(name, world)}
        >
          Create world
        </Button>
      </div>
    </div>
  );
}

function TypedPicture({ world }: { readonly world: World | null }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const room = world?.rooms[0];
    if (!world || !room) return;
    const { width, height } = canvas.current!;
    const c = canvas.current!.getContext("2d")!;
    c.clearRect(0, 0, width, height);
    const zoom = Math.min(width / (room.width * world.tileSize), height / (room.height * world.tileSize), 2);
    new RoomPicture(world).draw(
      c,
      world,
      room,
      zoom,
      Math.round((width - room.width * world.tileSize * zoom) / 2),
      0,
      width,
      height,
    );
  }, [world]);
  return <canvas ref={canvas} width={384} height={224} aria-hidden="true" />;
}

function Grounds({ name }: { readonly name: string }) {
  const busy = useShelf((state) => state.busy);
  return (
    <section className="row-line grounds" aria-label="Trying grounds">
      <strong>Trying grounds</strong>
      <span className="quiet grow">nine rooms, one thing each</span>
      <Button variant="plain" disabled={busy} onClick={() => void shelfParts.makeWorld.makeTryingGrounds(name)}>
        Create world
      </Button>
    </section>
  );
}

function Empty({ name }: { readonly name: string }) {
  const busy = useShelf((state) => state.busy);
  const [size, setSize] = useState({ width: "20", height: "12", tile: "16" });
  const whole = (text: string, [min, max]: readonly [number, number]): number | null =>
    /^\d{1,3}$/.test(text) && Number(text) >= min && Number(text) <= max ? Number(text) : null;
  const [width, height, tile] = [
    whole(size.width, SIZES.cells),
    whole(size.height, SIZES.cells),
    whole(size.tile, SIZES.tileSize),
  ];
  const field = (label: string, key: keyof typeof size, unit: string, fine: boolean) => (
    <TextField
      label={label}
      className={fine ? "" : "fault"}
      inputMode="numeric"
      value={size[key]}
      onChange={(event) => setSize({ ...size, [key]: event.target.value })}
    >
      {unit !== "" && <span className="unit">{unit}</span>}
    </TextField>
  );
  return (
    <section className="empty-world" aria-label="Empty world">
      <strong>Empty</strong>
      {field("Across", "width", "", width !== null)}
      {field("Down", "height", "", height !== null)}
      {field("Cell", "tile", "px", tile !== null)}
      <Button
        variant="plain"
        disabled={busy || width === null || height === null || tile === null}
        onClick={() => shelfParts.makeWorld.makeEmptyWorld(name, width!, height!, tile!)}
      >
        Create world
      </Button>
    </section>
  );
}
