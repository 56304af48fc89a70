import { session } from "../page-session.ts";
import type { SideName, World, Room } from "@keen-pebble/core/world";
import { writeRoomPixels, writeRoomTable, writeRoomText } from "@keen-pebble/core/formats";
import { LIMITS, SIDES, roomById } from "@keen-pebble/core/world";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { RoomPicture } from "../field/room-picture.ts";
import { FileButton } from "../look/file-button.tsx";
import { Icon } from "../look/icon.tsx";
import { saveFile } from "../look/save-file.ts";
import { useBench } from "../use-session.ts";
import { roomSvg } from "./room-svg.ts";
import { TextField, leaveOnEnter } from "../look/text-field.tsx";
import { BareButton } from "../look/bare-button.tsx";

const SIDE_NAMES: Readonly<Record<SideName, string>> = { north: "North", east: "East", south: "South", west: "West" };

/** The shown room: its name and size, other rooms, and the ways in and out as text, table and picture. */
export function RoomPanel({ world }: { readonly world: World }) {
  const id = useBench((state) => state.room);
  const typing = useBench((state) => state.side === "room");
  const room = roomById(world, id);
  if (!room) return null;
  return (
    <>
      <RoomChoice id={id} world={world} />
      <NameAndSize id={id} room={room} />
      <section className="kit-part" aria-label="Text, table, picture">
        <h3>Text, table, picture</h3>
        <Button
          variant={typing ? "main" : "plain"}
          aria-pressed={typing}
          onClick={() => session.benchStore.setState({ side: typing ? "anatomy" : "room" })}
        >
          {typing ? "Close the text" : "Type this room as text"}
        </Button>
        <SaveAs world={world} room={room} />
        <FileButton
          name="Room file"
          accept=".txt,.csv,.png"
          onFiles={([file]) => void session.rooms.readRoomFile(file!)}
        >
          <Icon name="bringIn" /> Read text, table or cells
        </FileButton>
        <Button variant="plain" onClick={session.mapImport.open}>
          <Icon name="bringIn" /> Bring in a map as a room
        </Button>
      </section>
    </>
  );
}

/** The room as a file of each kind. */
function SaveAs({ world, room }: { readonly world: World; readonly room: Room }) {
  const { id } = room;
  const picture = async (): Promise<void> => {
    const canvas = new OffscreenCanvas(room.width * world.tileSize, room.height * world.tileSize);
    new RoomPicture(world).draw(canvas.getContext("2d")!, world, room, 1, 0, 0, canvas.width, canvas.height);
    saveFile(`${id}.png`, await canvas.convertToBlob({ type: "image/png" }));
  };
  const pixels = async (): Promise<void> => {
    const { writePng } = await import("@keen-pebble/core/reading");
    saveFile(`${id}.cells.png`, new Blob([writePng(writeRoomPixels(world, room)).slice()], { type: "image/png" }));
  };
  return (
    <div className="save-as">
      <Button
        variant="plain"
        title="Rows of characters with a legend"
        onClick={() => saveFile(`${id}.room.txt`, writeRoomText(world, room))}
      >
        Text
      </Button>
      <Button variant="plain" title="Tile numbers as CSV" onClick={() => saveFile(`${id}.csv`, writeRoomTable(room))}>
        Table
      </Button>
      <Button variant="plain" title="A PNG of one pixel a cell" onClick={() => void pixels()}>
        Cells
      </Button>
      <Button variant="plain" title="A PNG as the room looks" onClick={() => void picture()}>
        PNG
      </Button>
      <Button
        variant="plain"
        title="An SVG of the cells and the solid shapes"
        onClick={() => saveFile(`${id}.svg`, roomSvg(world, room))}
      >
        SVG
      </Button>
    </div>
  );
}

/** The room's name, id and size. */
function NameAndSize({ id, room }: { readonly id: string; readonly room: Room }) {
  return (
    <section className="kit-part" aria-label="Name and size">
      <TextField
        label="Name"
        aria-label="Room name"
        key={`${id} ${room.name}`}
        defaultValue={room.name}
        maxLength={80}
        onBlur={(event) => session.rooms.callRoom(event.target.value)}
        onKeyDown={leaveOnEnter}
      />
      <TextField
        label="Id"
        aria-label="Room id"
        title="What files, links and checks name it by; all of them follow"
        key={id}
        defaultValue={id}
        maxLength={40}
        spellCheck={false}
        onBlur={(event) => session.rooms.identifyRoom(event.target.value)}
        onKeyDown={leaveOnEnter}
      />
      <h3>Size</h3>
      <div className="row-line">
        <SizeField
          label="Width"
          value={room.width}
          onSize={(width) => session.rooms.growRoom({ east: width - room.width })}
        />
        <SizeField
          label="Height"
          value={room.height}
          onSize={(height) => session.rooms.growRoom({ south: height - room.height })}
        />
      </div>
      {SIDES.map((side) => (
        <div key={side} className="row-line">
          <span className="grow">{SIDE_NAMES[side]}</span>
          <BareButton
            icon="minus"
            name={`Cut a row at the ${side}`}
            title="Cut one"
            variant="plain"
            onClick={() => session.rooms.growRoom({ [side]: -1 })}
          />
          <BareButton
            icon="plus"
            name={`Add a row at the ${side}`}
            title="Add one"
            variant="plain"
            onClick={() => session.rooms.growRoom({ [side]: 1 })}
          />
        </div>
      ))}
    </section>
  );
}

/** Which room is shown; new ones, copies, and away with it. */
function RoomChoice({ id, world }: { readonly id: string; readonly world: World }) {
  return (
    <div className="row-line">
      <Form.Select
        aria-label="Shown room"
        value={id}
        onChange={(event) => session.shownRoom.chooseRoom(event.target.value)}
      >
        {world.rooms.map((each) => (
          <option key={each.id} value={each.id}>
            {each.name}
          </option>
        ))}
      </Form.Select>
      <BareButton icon="plus" name="New room" onClick={session.rooms.makeRoom} />
      <BareButton icon="copy" name="Copy this room" onClick={session.rooms.copyShownRoom} />
      <BareButton
        icon="bin"
        name="Delete this room"
        disabled={world.rooms.length === 1}
        onClick={session.rooms.removeShownRoom}
      />
    </div>
  );
}

/** A room's width or height. It is typed and taken over when one leaves it: on the way there cells would be cut off. */
function SizeField({
  label,
  value,
  onSize,
}: {
  readonly label: string;
  readonly value: number;
  readonly onSize: (size: number) => void;
}) {
  const [min, max] = LIMITS.roomSide;
  return (
    <div className="grow">
      <TextField
        label={label}
        aria-label={`Room ${label.toLowerCase()} in cells`}
        title={`${min} to ${max} cells; it grows and is cut at the ${label === "Width" ? "east" : "south"}`}
        type="number"
        min={min}
        max={max}
        key={value}
        defaultValue={value}
        onBlur={(event) => {
          const size = Math.round(Number(event.target.value));
          if (size >= min && size <= max && size !== value) onSize(size);
          else event.target.value = String(value);
        }}
        onKeyDown={leaveOnEnter}
      />
    </div>
  );
}
