import { session } from "../page-session.ts";
import type { Project } from "@keen-pebble/core/edit";
import { writeRoomText } from "@keen-pebble/core/formats";
import { roomById } from "@keen-pebble/core/world";
import { useEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import { Icon } from "../look/icon.tsx";
import { useBench, useProject } from "../use-session.ts";
import type { TypedRoom } from "../session/bench/rooms.ts";
import { lookAtTyped } from "../session/bench/rooms.ts";
import Form from "react-bootstrap/Form";

const IN_ORDER: TypedRoom = { refusals: [], unknown: [] };

/** The shown room as rows of characters beside the field: each keystroke is drawn at once. */
export function RoomText() {
  const id = useBench((state) => state.room);
  const world = useProject((state) => state.project?.world ?? null);
  const [text, setText] = useState("");
  const [said, setSaid] = useState<TypedRoom>(IN_ORDER);
  const typing = useRef<{ readonly began: Project; readonly stroke: string } | null>(null);
  const asked = useRef(0);
  const room = world === null ? undefined : roomById(world, id);
  const [unfinished, setUnfinished] = useState(false);
  const draft = `room/${id}`;
  useEffect(() => {
    // What is changed elsewhere is written anew; what is being typed, and is not in order yet, is the person's.
    if (typing.current === null && !unfinished && world && room) {
      setText(writeRoomText(world, room));
      setSaid(IN_ORDER);
    }
  }, [world, room, unfinished]);
  useEffect(() => {
    let wanted = true;
    const { worldId, project } = session.project.store.getState();
    if (worldId === null || project === null) return;
    void session.outbox.keptDraft(worldId, draft).then(async (kept) => {
      if (kept === null || !wanted) return;
      const result = await lookAtTyped(kept, project, id);
      if (!wanted) return;
      setUnfinished(true);
      setText(kept);
      setSaid(result);
    });
    return () => {
      wanted = false;
      setUnfinished(false);
    };
  }, [draft, id]);
  const remember = (next: string | null): void => {
    const { worldId } = session.project.store.getState();
    setUnfinished(next !== null);
    if (worldId !== null) void session.outbox.keepDraft(worldId, draft, next);
  };
  const lay = (next: string): void => {
    typing.current ??= { began: session.project.store.getState().project!, stroke: crypto.randomUUID() };
    const mine = ++asked.current;
    void session.rooms.layTyped(next, typing.current.began, id, typing.current.stroke).then((result) => {
      if (mine !== asked.current) return;
      setSaid(result);
      // What does not read yet is kept over a closed tab; what does is the room itself.
      remember(result.refusals.length > 0 ? next : null);
    });
  };
  const finish = (): void => {
    typing.current = null;
    session.project.endStroke();
  };
  return (
    <section className="room-text" aria-label="Room as text">
      <div className="row-line">
        <h2 className="grow">{room?.name} as text</h2>
        <Button
          variant="bare"
          className="btn-icon"
          aria-label="Close the text"
          title="Close the text"
          onClick={() => session.benchStore.setState({ side: "anatomy" })}
        >
          <Icon name="close" />
        </Button>
      </div>
      <Form.Control
        as="textarea"
        className="mono"
        aria-label="Room text"
        aria-invalid={said.refusals.length > 0}
        spellCheck={false}
        wrap="off"
        value={text}
        onChange={(event) => {
          setText(event.target.value);
          lay(event.target.value);
        }}
        onBlur={finish}
      />
      <div className="room-text-says" role="status">
        {said.refusals.length === 0 ? (
          <p className="quiet">
            A character is a cell. Each keystroke is drawn; below an empty line the legend says what a character is.
          </p>
        ) : (
          <>
            <p className="attention">
              The room stays as it was last until this is in order. The text is kept in this browser meanwhile:
            </p>
            <ul>
              {said.refusals.slice(0, 5).map(({ line, column, message }, i) => (
                <li key={i}>
                  <span className="mono">
                    {line}:{column}
                  </span>{" "}
                  {message}
                </li>
              ))}
            </ul>
            <Button
              variant="plain"
              onClick={() => {
                typing.current = null;
                remember(null);
              }}
            >
              <Icon name="undo" /> Back to the room as it is
            </Button>
            {said.unknown.map((character) => (
              <Button
                key={character}
                variant="plain"
                onMouseDown={(event) => event.preventDefault()}
                onClick={() => {
                  session.tiles.makeTileFor(character);
                  typing.current = null;
                  lay(text);
                }}
              >
                <Icon name="plus" /> Make {character} a tile
              </Button>
            ))}
          </>
        )}
      </div>
    </section>
  );
}
