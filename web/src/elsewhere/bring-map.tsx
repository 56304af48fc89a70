import { useEffect, useRef } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import Modal from "react-bootstrap/Modal";
import { useStore } from "zustand";
import { FileButton } from "../look/file-button.tsx";
import { Icon } from "../look/icon.tsx";
import { plural } from "../look/plural.ts";
import { Segments } from "../look/segments.tsx";
import { TextField } from "../look/text-field.tsx";
import { WholeField } from "../look/whole-field.tsx";
import { useFileDrop } from "../look/use-file-drop.ts";
import type { MapImport } from "../session/elsewhere/map-import.ts";
import type { MapRead } from "../session/elsewhere/read-map.ts";
import { MapKinds } from "./map-kinds.tsx";
import { MapPreview } from "./map-preview.tsx";
import "./bring-map.css";

interface Props {
  readonly mapImport: MapImport;
  /** What is made: a world of its own, or a room more of the open one. */
  readonly makes: "world" | "room";
  /** The cell size of the open world; null where it is asked. */
  readonly tileSize: number | null;
}

/** Brings a map in from elsewhere: what it was taken for, the room as it will be, and which kinds of cell block. */
export default function BringMap({ mapImport, makes, tileSize }: Props) {
  const { files, name, reading, images, fault, busy } = useStore(mapImport.store);
  const { over, handlers } = useFileDrop((dropped) => void mapImport.take(dropped));
  const read = reading !== null && !("refused" in reading) ? reading : null;
  return (
    <Modal
      show
      onHide={mapImport.close}
      aria-labelledby="bring-map-title"
      centered
      animation={false}
      dialogClassName={`bring-map${over ? " dropping" : ""}`}
      {...handlers}
    >
      <Modal.Header closeButton>
        <Modal.Title id="bring-map-title" as="h2">
          {makes === "world" ? "Bring in a map as a world" : "Bring in a map as a room"}
        </Modal.Title>
      </Modal.Header>
      <Modal.Body tabIndex={0}>
        <div className="map-answers">
          <Sources mapImport={mapImport} />
          {files !== null && <Answers mapImport={mapImport} tileSize={tileSize} read={read} />}
        </div>
        <div className="map-preview">
          {read !== null ? (
            <MapPreview read={read} images={images} onCell={mapImport.toggleSolid} />
          ) : (
            <p className="quiet map-empty">
              Numbers in your source, a picture of the map, rows of characters: drop a file, choose one, or paste the
              text on the left. The room shows here as it will be.
            </p>
          )}
        </div>
        <div className="map-kinds">
          {read !== null && <MapKinds read={read} images={images} onKind={mapImport.toggleSolid} />}
        </div>
      </Modal.Body>
      <Modal.Footer>
        <p className="grow" role="status">
          <Says mapImport={mapImport} fault={fault} />
        </p>
        <Button variant="plain" onClick={mapImport.close}>
          Cancel
        </Button>
        <Button
          variant="main"
          disabled={read === null || busy || name.trim() === ""}
          onClick={() => void mapImport.make()}
        >
          {read === null ? "Create" : createText(read, makes)}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

function createText({ room, world }: MapRead, makes: Props["makes"]): string {
  const size = `${room.width} x ${room.height}`;
  return makes === "world"
    ? `Create a world of ${size} cells and ${plural(world.tiles.length, "tile")}`
    : `Create a room of ${size} cells`;
}

/** What went wrong, or what the map was read as. */
function Says({ mapImport, fault }: { readonly mapImport: MapImport; readonly fault: string | null }) {
  const reading = useStore(mapImport.store, (state) => state.reading);
  if (fault !== null) return <span className="attention">{fault}</span>;
  if (reading === null) return null;
  if ("refused" in reading) return <span className="attention">Not understood: {reading.refused}.</span>;
  const [x, y] = reading.over;
  if (x === 0 && y === 0) return <span className="quiet">Click a cell: its kind blocks the walker, or no longer.</span>;
  return (
    <span className="attention">
      {x} px at the right and {y} px below are no whole cell and are left out.
    </span>
  );
}

/** What was dropped and what it was taken for; or the field to paste a text into. */
function Sources({ mapImport }: { readonly mapImport: MapImport }) {
  const { files, reading } = useStore(mapImport.store);
  const isPasted = files === null || files.source.name === "pasted text";
  const readAs = reading === null || "refused" in reading ? null : reading.grid.readAs;
  return (
    <>
      {files !== null && !isPasted && (
        <p className="map-source">
          <strong>{files.source.name}</strong>
          {readAs !== null && <span className="quiet">{readAs}</span>}
        </p>
      )}
      {isPasted && <PastedText mapImport={mapImport} readAs={readAs} />}
      {files?.sheet && (
        <p className="map-source">
          <strong>{files.sheet.name}</strong>
          <span className="quiet">
            a sheet of {files.sheet.picture.width} x {files.sheet.picture.height} px
          </span>
        </p>
      )}
      <FileButton name="A map or a sheet" accept="" multiple onFiles={(chosen) => void mapImport.take(chosen)}>
        <Icon name="bringIn" />{" "}
        {files === null ? "Choose a file" : files.sheet ? "Another file" : "Add a sheet, or another file"}
      </FileButton>
    </>
  );
}

function PastedText({ mapImport, readAs }: { readonly mapImport: MapImport; readonly readAs: string | null }) {
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => field.current?.focus(), []);
  return (
    <>
      <Form.Control
        as="textarea"
        ref={field}
        className="mono"
        rows={8}
        wrap="off"
        spellCheck={false}
        aria-label="Map as text"
        placeholder={"int hall[3][4] = {\n  {1, 1, 1, 1},\n  {1, 0, 0, 1},\n  {1, 1, 1, 1}};"}
        onChange={(event) => mapImport.paste(event.target.value)}
      />
      {readAs !== null && <p className="quiet">{readAs}</p>}
    </>
  );
}

/** The two or three answers that only a person can give. */
function Answers({
  mapImport,
  tileSize,
  read,
}: {
  readonly mapImport: MapImport;
  readonly tileSize: number | null;
  readonly read: MapRead | null;
}) {
  const { files, name, asked } = useStore(mapImport.store);
  const isText = files?.source.kind === "text";
  const number = (label: string, value: number, min: number, max: number, set: (value: number) => void, unit = "") => (
    <WholeField label={label} unit={unit} range={[min, max]} value={value} onValue={(next) => set(next)} />
  );
  return (
    <>
      {tileSize === null ? (
        number("Cell size", asked.tileSize, 4, 128, (size) => mapImport.answer({ tileSize: size }), "px")
      ) : (
        <p className="quiet">Cells of {tileSize} px, as in this world</p>
      )}
      <TextField label="Name" maxLength={80} value={name} onChange={(event) => mapImport.call(event.target.value)} />
      {!isText && (
        <Segments
          label="The picture is"
          value={asked.picture}
          choices={[
            { value: "map", name: "The whole map" },
            { value: "cells", name: "A pixel a cell" },
          ]}
          onValue={(picture) => mapImport.answer({ picture })}
        />
      )}
      {isText && read !== null && !read.grid.characters && (
        <>
          {number("Empty is", read.answers.empty ?? 0, -999_999, 999_999, (empty) => mapImport.answer({ empty }))}
          {number("First in the sheet is", asked.first, -999_999, 999_999, (first) => mapImport.answer({ first }))}
        </>
      )}
      {isText &&
        (asked.width !== null || read === null) &&
        number("Cells a row", asked.width ?? 1, 1, 512, (width) => mapImport.answer({ width }))}
    </>
  );
}
