import { session } from "../page-session.ts";
import type { Project } from "@keen-pebble/core/edit";
import { writeRoomText } from "@keen-pebble/core/formats";
import type { World } from "@keen-pebble/core/world";
import { roomById } from "@keen-pebble/core/world";
import { useDraft } from "../look/use-draft.ts";
import { useEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import { Icon } from "../look/icon.tsx";
import { useBench, useProject } from "../use-session.ts";
import type { TypedRoom } from "../session/bench/rooms.ts";
import { lookAtTyped } from "../session/bench/rooms.ts";
import Form from "react-bootstrap/Form";
import { BareButton } from "../look/bare-button.tsx";

const IN_ORDER: TypedRoom = { refusals: [], unknown: [] };

/** The shown room as rows of characters beside the field: each keystroke is drawn at once. */
export function RoomText() {
  const id = useBench((state) => state.room);
  const world = useProject((state) => state.project?.world ?? null);
  const name = world === null ? "" : (roomById(world, id)?.name ?? "");
  const typed = useTypedRoom(id, world);
  return (
    <section className="room-text" aria-label="Room as text">
      <div className="row-line">
        <h2 className="grow">{name} as text</h2>
        <BareButton
          icon="close"
          name="Close the text"
          onClick={() => session.benchStore.setState({ side: "anatomy" })}
        />
      </div>
      <Form.Control
        as="textarea"
        className="mono"
        aria-label="Room text"
        aria-invalid={typed.said.refusals.length > 0}
        spellCheck={false}
        wrap="off"
        value={typed.text}
        onChange={(event) => typed.type(event.target.value)}
        onBlur={() => {
          typed.settle();
          session.project.endStroke();
        }}
      />
      <TextSays typed={typed} />
    </section>
  );
}

/** A room's text while it is typed. */
interface TypedText {
  readonly text: string;
  /** What was not understood, and which characters nothing explains. */
  readonly said: TypedRoom;
  readonly type: (next: string) => void;
  /** What is typed next is a stroke of its own. */
  readonly settle: () => void;
  /** Gives up what does not read yet: the text is the room's own again. */
  readonly giveUp: () => void;
}

function useTypedRoom(id: string, world: World | null): TypedText {
  const [text, setText] = useState("");
  const [said, setSaid] = useState<TypedRoom>(IN_ORDER);
  const [unfinished, setUnfinished] = useState(false);
  const typing = useRef<{ readonly began: Project; readonly stroke: string } | null>(null);
  const asked = useRef(0);
  const room = world === null ? undefined : roomById(world, id);
  useEffect(() => {
    // What is changed elsewhere is written anew; what is being typed, and is not in order yet, is the person's.
    if (typing.current === null && !unfinished && world && room) {
      setText(writeRoomText(world, room));
      setSaid(IN_ORDER);
    }
  }, [world, room, unfinished]);
  const draft = useDraft(`room/${id}`, async (kept, isWanted) => {
    const { project } = session.project.store.getState();
    if (project === null) return;
    const result = await lookAtTyped(kept, project, id);
    if (!isWanted()) return;
    setUnfinished(true);
    setText(kept);
    setSaid(result);
  });
  useEffect(() => () => setUnfinished(false), [id]);
  const remember = (next: string | null): void => {
    setUnfinished(next !== null);
    draft.keep(next);
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
  const settle = (): void => {
    typing.current = null;
  };
  // What is typed is laid into the world as it was when the typing began: what somebody else does meanwhile is a new beginning.
  useEffect(
    () =>
      session.project.onProject((_project, _steps, stroke) => {
        if (stroke !== typing.current?.stroke) typing.current = null;
      }),
    [],
  );
  const type = (next: string): void => {
    setText(next);
    lay(next);
  };
  const giveUp = (): void => {
    settle();
    remember(null);
  };
  return { text, said, type, settle, giveUp };
}

/** What is wrong with the text, and the ways out. */
function TextSays({ typed }: { readonly typed: TypedText }) {
  const { said } = typed;
  return (
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
          <Button variant="plain" onClick={typed.giveUp}>
            <Icon name="undo" /> Back to the room as it is
          </Button>
          {said.unknown.map((character) => (
            <Button
              key={character}
              variant="plain"
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => {
                session.tiles.makeTileFor(character);
                typed.settle();
                typed.type(typed.text);
              }}
            >
              <Icon name="plus" /> Make {character} a tile
            </Button>
          ))}
        </>
      )}
    </div>
  );
}
