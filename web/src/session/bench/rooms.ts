import type { ProjectSession } from "../project/project.ts";
import type { BenchStore } from "./bench-store.ts";
import type { ShownRoom } from "./shown-room.ts";
import type { Growth, Project } from "@keen-pebble/core/edit";
import type { ColourMatch, Pixels } from "@keen-pebble/core/formats";
import {
  addRoom,
  changeRoomId,
  copyRoom,
  freeId,
  layRoomInto,
  removeRoom,
  renameRoom,
  resizeRoom,
} from "@keen-pebble/core/edit";
import { coloursOf, nameOf, pixelColours, readRoomPixels, readRoomTable } from "@keen-pebble/core/formats";
import { ID_PATTERN, roomById } from "@keen-pebble/core/world";
import { createStore } from "zustand/vanilla";

/** More colours than this are not asked for one by one. */
const MOST_MATCHED = 64;

/** A picture whose colours are to be matched to tiles before it is laid down. */
export interface Matching {
  readonly name: string;
  readonly room: string;
  readonly pixels: Pixels;
  /** Colours that are no tile's own, the most frequent first. */
  readonly colours: readonly { readonly colour: string; readonly cells: number }[];
}

/** What a text typed for a room says of itself. */
export interface TypedRoom {
  readonly refusals: readonly {
    readonly line: number | null;
    readonly column: number | null;
    readonly message: string;
  }[];
  readonly unknown: readonly string[];
}

/** Text as a file holds it; what is no UTF-8 is shown as such. */
const textIn = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);

/** Says what of a typed text is not in order, and changes nothing. */
export async function lookAtTyped(text: string, project: Project, room: string): Promise<TypedRoom> {
  const { readRoomText } = await import("@keen-pebble/core/reading");
  const result = readRoomText(text, project.world, room);
  return "refusals" in result ? result : { refusals: [], unknown: [] };
}

/** Rooms made, renamed, resized and read from files. */
export class Rooms {
  readonly store = createStore<{ readonly matching: Matching | null }>(() => ({ matching: null }));

  constructor(
    private readonly project: ProjectSession,
    private readonly benchStore: BenchStore,
    private readonly shownRoom: ShownRoom,
  ) {}

  private readonly world = () => this.project.store.getState().project!.world;

  /** Adds an empty room as large as the shown one and shows it. */
  readonly makeRoom = (): void => {
    const id = freeId(
      "room",
      this.world().rooms.map((room) => room.id),
    );
    const shown = roomById(this.world(), this.benchStore.getState().room);
    if (this.project.changeWorld((w) => addRoom(w, id, nameOf(id), shown?.width ?? 20, shown?.height ?? 12)))
      this.shownRoom.chooseRoom(id);
  };

  /** Copies the shown room and shows the copy. */
  readonly copyShownRoom = (): void => {
    const before = new Set(this.world().rooms.map((room) => room.id));
    if (!this.project.changeWorld((w) => copyRoom(w, this.benchStore.getState().room))) return;
    const copy = this.world().rooms.find((room) => !before.has(room.id));
    if (copy) this.shownRoom.chooseRoom(copy.id);
  };

  /** Takes the shown room away. */
  readonly removeShownRoom = (): void => {
    this.project.change((project) => removeRoom(project, this.benchStore.getState().room));
  };

  /** Gives the shown room another name; its id, which files and checks name it by, stays. */
  readonly callRoom = (name: string): void => {
    const { room } = this.benchStore.getState();
    if (name.trim() === "" || name === roomById(this.world(), room)?.name) return;
    this.project.changeWorld((w) => renameRoom(w, room, name.trim()));
  };

  /** Gives the shown room another id; every check, link and log follows. */
  readonly identifyRoom = (id: string): void => {
    const { room } = this.benchStore.getState();
    if (id === room) return;
    if (!ID_PATTERN.test(id)) this.project.notice(`A room's id has 1 to 40 of a to z, 0 to 9 and -; it stays ${room}.`);
    else if (roomById(this.world(), id) !== undefined)
      this.project.notice(`There is a room ${id} already; this one stays ${room}.`);
    else if (this.project.change((project) => changeRoomId(project, room, id))) this.shownRoom.chooseRoom(id);
  };

  /** Grows or cuts the shown room at its sides. */
  readonly growRoom = (growth: Partial<Growth>): void => {
    const fits = this.project.change((project) =>
      resizeRoom(project, this.benchStore.getState().room, { north: 0, east: 0, south: 0, west: 0, ...growth }),
    );
    if (!fits) this.project.notice("A room has 1 to 512 cells each way; it stays as it is.");
  };

  /** Lays the picture down, its colours matched: a colour without a tile makes a new one. Null lets it go. */
  readonly layMatched = (matched: ColourMatch | null): void => {
    const { matching } = this.store.getState();
    this.store.setState({ matching: null });
    if (matching === null || matched === null) return;
    this.project.change((project) =>
      layRoomInto(project, matching.room, readRoomPixels(matching.pixels, project.world, matched, matching.name)),
    );
  };

  /** Lays a table or a picture that was read into the shown room. */
  readonly readRoomFile = async (file: File): Promise<void> => {
    const { room } = this.benchStore.getState();
    const stillOpen = this.project.stillOpen();
    try {
      const { readPng, readRoomText } = await import("@keen-pebble/core/reading");
      const bytes = new Uint8Array(await file.arrayBuffer());
      if (!stillOpen()) return;
      if (file.name.endsWith(".png")) {
        const pixels = readPng(bytes, 512, file.name);
        const own = new Set(["", ...pixelColours(this.world().tiles)]);
        const colours = coloursOf(pixels).filter(({ colour }) => !own.has(colour));
        if (colours.length === 0)
          this.project.change((project) =>
            layRoomInto(project, room, readRoomPixels(pixels, project.world, new Map(), file.name)),
          );
        else if (colours.length > MOST_MATCHED)
          this.project.notice(
            `${file.name} has ${colours.length} colours that are no tile's; a picture of one pixel a cell has few. The room stays as it is.`,
          );
        else this.store.setState({ matching: { name: file.name, room, pixels, colours } });
      } else if (file.name.endsWith(".csv")) {
        this.project.change((project) =>
          layRoomInto(project, room, readRoomTable(textIn(bytes), project.world, false, file.name)),
        );
      } else {
        const result = readRoomText(textIn(bytes), this.world(), room);
        if ("draft" in result) this.project.change((project) => layRoomInto(project, room, result.draft));
        else {
          const { line, column, message } = result.refusals[0]!;
          this.project.notice(`${file.name}: row ${line}, column ${column}: ${message}. The room stays as it is.`);
        }
      }
    } catch (error) {
      if (!(error instanceof Error)) throw error;
      this.project.notice(`${error.message}. The room stays as it is.`);
    }
  };

  /**
   * Lays a typed text into a room of the world as it was when the typing began, so that a tile whose name is still being
   * typed leaves none behind. Where the text is not in order the room stays as it was last.
   */
  readonly layTyped = async (text: string, began: Project, room: string, stroke: string): Promise<TypedRoom> => {
    const { readRoomText } = await import("@keen-pebble/core/reading");
    const result = readRoomText(text, began.world, room);
    if ("refusals" in result) return result;
    this.project.change(
      (project) => ({ ...project, world: layRoomInto(began, room, result.draft).project.world }),
      stroke,
    );
    return { refusals: [], unknown: [] };
  };
}
