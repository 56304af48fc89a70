import type { Outbox, OwnEdits } from "./outbox.ts";
import type { SaveStore } from "./saving.ts";
import type { ServerStream } from "./server-events.ts";
import type { EditStep, Followed, History, Project } from "@keen-pebble/core/edit";
import type { World } from "@keen-pebble/core/world";
import {
  EMPTY_HISTORY,
  EditError,
  apply,
  close,
  differences,
  invert,
  logsThatCannotStart,
  onTop,
  record,
  redo,
  undo,
} from "@keen-pebble/core/edit";
import { createStore } from "zustand/vanilla";
import { storeBatch } from "./api-client.ts";
import { OfflineError, ProblemError } from "./server-answer.ts";
import { SimulationClient } from "./simulation-client.ts";
import type { Told } from "./told.ts";
import type { ShowingPage } from "./visit.ts";
import { Visit, openedWorld } from "./visit.ts";

/** The world that is open, and what can be taken back. */
export interface ProjectState {
  readonly phase: "none" | "loading" | "ready" | "missing" | "failed";
  /** Why it is missing or failed. */
  readonly message: string | null;
  readonly worldId: string | null;
  readonly project: Project | null;
  readonly history: History;
  /** Something that must be told, until it is dismissed. */
  readonly notice: Told | null;
}

const NOTHING: ProjectState = {
  phase: "none",
  message: null,
  worldId: null,
  project: null,
  history: EMPTY_HISTORY,
  notice: null,
};

/** Told of every change of the open project, with the steps that made it; null for a whole new project. */
export type ProjectListener = (project: Project, steps: readonly EditStep[] | null, stroke: string | null) => void;

const MOST_TOLD = 12;

/** The world that is open: changed, undone, saved, and told of to whoever listens. */
export class ProjectSession {
  readonly store = createStore<ProjectState>(() => NOTHING);
  private readonly listeners = new Set<ProjectListener>();
  private visit: Visit | null = null;
  private simulation: SimulationClient | null = null;
  private asked = 0;
  /** Ends once the world that was open before is left. */
  private leaving: Promise<unknown> = Promise.resolve();
  /** What the reader of world files says of a part that an edit makes. */
  private partFault: ((part: string, value: unknown, tileSize: number) => string | null) | null = null;
  /** The copies that conflicts went to, by the world's id. */
  private readonly copies = new Map<string, string>();

  constructor(
    private readonly outbox: Outbox,
    private readonly saveStore: SaveStore,
    private readonly serverEvents: ServerStream,
  ) {}

  private unlisten: () => void = () => undefined;

  /** What a visit sees and changes of what is open. */
  private readonly page: ShowingPage = {
    inHand: () => {
      const { project, history } = this.store.getState();
      return { project: project!, history };
    },
    show: ({ project, history }, changed) => {
      this.store.setState({ project, history });
      if (changed.length > 0) this.tell(project, changed, null);
    },
    notice: (text, tone) => this.notice(text, tone),
  };

  /** Calls the listener at every change of the project; gives back what stops that. */
  readonly onProject = (listener: ProjectListener): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private readonly tell = (project: Project, steps: readonly EditStep[] | null, stroke: string | null): void => {
    if (steps === null) this.simulation?.load(project);
    else this.simulation?.apply(steps);
    for (const listener of [...this.listeners]) listener(project, steps, stroke);
  };

  /** Says, whenever it is asked, whether the world that is open now still is: an answer that came late changes no other one. */
  readonly stillOpen = (): (() => boolean) => {
    const { visit } = this;
    return () => visit !== null && this.visit === visit;
  };

  /** The worker that runs logs of the open project. */
  readonly simulationClient = (): SimulationClient | null => {
    return this.simulation;
  };

  /** Opens a world, with what a closed tab had not had acknowledged put on top. */
  readonly openProject = async (worldId: string): Promise<void> => {
    this.closeProject();
    const mine = ++this.asked;
    this.store.setState({ ...NOTHING, phase: "loading", worldId });
    try {
      // The same tab may still be leaving it.
      await this.leaving;
      // What a file may hold also decides what an edit may make.
      const [{ STRICT, partSchema }] = await Promise.all([
        import("@keen-pebble/core/reading"),
        this.outbox.claim(worldId),
      ]);
      this.partFault = (part, value, tileSize) =>
        partSchema(part, tileSize)?.validate(value, STRICT).error?.message ?? null;
      const left = await this.sentAgain(worldId, await this.outbox.takeOver(worldId));
      const { revision, project } = await openedWorld(worldId);
      const history = (left.length === 0 ? await this.outbox.keptHistory(worldId, revision) : null) ?? EMPTY_HISTORY;
      if (mine !== this.asked) return this.letGo(worldId);
      this.simulation = new SimulationClient();
      const visit = new Visit(worldId, revision, this.page, {
        outbox: this.outbox,
        saveStore: this.saveStore,
        copies: this.copies,
      });
      this.visit = visit;
      // The world that was open before may have told of something while it was left.
      const { notice } = this.store.getState();
      this.store.setState({ ...NOTHING, phase: "ready", worldId, project, history, notice });
      this.tell(project, null, null);
      this.unlisten = this.serverEvents.onServerEvent((event) => {
        if (event.event === "saved" && event.data.world === worldId) visit.saver.heard(event.data.revision);
        // What was saved while nobody listened is asked for.
        else if (event.event === "open") visit.saver.look();
      });
      await visit.bringBack(left);
    } catch (error) {
      if (mine !== this.asked) return this.letGo(worldId);
      this.outbox.release(worldId);
      const missing = error instanceof ProblemError && (error.problem.status === 404 || error.problem.status === 400);
      const message = missing
        ? `There is no world ${worldId} on the shelf.`
        : error instanceof Error
          ? error.message
          : String(error);
      this.store.setState({ ...NOTHING, phase: missing ? "missing" : "failed", worldId, message });
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
    }
  };

  /** A world that is not wanted any more may be taken over by others, unless it was asked for once more. */
  private letGo(worldId: string): void {
    if (this.store.getState().worldId !== worldId) this.outbox.release(worldId);
  }

  /**
   * Sends batches that were under way when their tab was closed once more: each is stored once. One that is answered with no
   * is an edit that waits, like those behind it.
   */
  private readonly sentAgain = async (worldId: string, left: readonly OwnEdits[]): Promise<readonly OwnEdits[]> => {
    const after: OwnEdits[] = [];
    for (const [i, edits] of left.entries()) {
      const { base, sent, waiting } = edits;
      let unsent = edits;
      if (sent !== null) {
        try {
          await storeBatch(worldId, sent);
          unsent = { base, sent: null, waiting };
        } catch (error) {
          if (!(error instanceof ProblemError)) throw error;
          unsent = { base, sent: null, waiting: [...sent.steps.map((step) => ({ step, refused: null })), ...waiting] };
        }
      }
      if (unsent.waiting.length > 0) after.push(unsent);
      await this.outbox.write({
        world: worldId,
        base: null,
        sent: null,
        waiting: [],
        left: [...after, ...left.slice(i + 1)],
      });
    }
    return after;
  };

  /** Lets go of the open world; what waits is sent, and what cannot be stays in the browser. */
  readonly closeProject = (): void => {
    // One that is on its way is not wanted any more.
    this.asked++;
    this.unlisten();
    this.unlisten = () => undefined;
    if (this.visit !== null) this.leaving = this.visit.leave();
    this.simulation?.close();
    this.visit = null;
    this.simulation = null;
    this.store.setState(NOTHING);
  };

  /**
   * Makes an edit: the project changes at once, the log re-runs, the server hears of it.
   * @param stroke steps with the same name are undone together
   * @returns whether it fitted; if not, nothing changed and the notice says why
   */
  readonly edit = (step: EditStep, stroke: string | null = null): boolean => {
    const { project, history } = this.store.getState();
    if (project === null) return false;
    try {
      this.ensureReadable(project, step);
      const after = apply(project, step);
      this.store.setState({ project: after, history: record(history, step, stroke), notice: null });
      this.visit?.saver.add([step]);
      this.tell(after, [step], stroke);
      return true;
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      this.notice(error.message);
      return false;
    }
  };

  /**
   * One rule decides here and on the server: what a step brings must be what the reader of world files takes.
   * @throws {EditError}
   */
  private readonly ensureReadable = ({ world }: Project, step: EditStep): void => {
    if (step.kind !== "change-parts" || this.partFault === null) return;
    const size = step.parts.find(({ part }) => part === "tileSize")?.after;
    for (const { part, after } of step.parts) {
      const fault = this.partFault(part, after, typeof size === "number" ? size : world.tileSize);
      if (fault !== null) throw new EditError(`${part}: ${fault}`, step, part);
    }
  };

  /**
   * Changes the project as a whole: what differs afterwards becomes the edits, undone together. What could not follow
   * the change is told.
   * @param stroke changes with the same name are undone together
   * @returns whether it could be made
   */
  readonly change = (
    how: (project: Project) => Project | Followed | null,
    stroke: string = crypto.randomUUID(),
  ): boolean => {
    const { project } = this.store.getState();
    if (project === null) return false;
    const made = how(project);
    if (made === null) return false;
    const after = "fellAway" in made ? made.project : made;
    const fits = differences(project, after).every((step) => this.edit(step, stroke));
    if (fits) this.tellWhatWent("fellAway" in made ? made.fellAway : [], logsThatCannotStart(project, after));
    return fits;
  };

  /** Says what a change took along, and which logs it keeps from starting. */
  private readonly tellWhatWent = (fellAway: readonly string[], stuck: readonly string[]): void => {
    const listed = (all: readonly string[]): string =>
      `${all.slice(0, MOST_TOLD).join("; ")}${all.length > MOST_TOLD ? `; and ${all.length - MOST_TOLD} more` : ""}`;
    const told = [
      ...(fellAway.length > 0 ? [`Fell away with it: ${listed(fellAway)}.`] : []),
      ...(stuck.length > 0 ? [`Logs: ${listed(stuck)}.`] : []),
    ];
    if (told.length > 0) this.notice(`${told.join(" ")} Undo brings it back.`, "info");
  };

  /** Changes the world as a whole, as `change` does. */
  readonly changeWorld = (how: (world: World) => World, stroke?: string): boolean => {
    return this.change((project) => ({ ...project, world: how(project.world) }), stroke);
  };

  /** Says why of the edits that are made next: it becomes the note of their revision. */
  readonly noteNextRevision = (text: string): void => {
    this.visit?.saver.note(text);
  };

  /** Sends what waits now, without waiting for more. */
  readonly saveNow = (): void => {
    this.visit?.saver.sendNow();
  };

  /** Ends the stroke under way. */
  readonly endStroke = (): void => {
    this.store.setState((state) => ({ history: close(state.history) }));
  };

  /** Takes back the last edit, or makes it again. Asked with `dry`, it only says whether there is one. */
  readonly travel = (direction: "undo" | "redo", dry = false): boolean => {
    const { project, history } = this.store.getState();
    const moved = direction === "undo" ? undo(history) : redo(history);
    if (moved === null || project === null) return false;
    if (dry) return true;
    try {
      // Others may have changed what stands beside it since.
      let after = project;
      const steps = moved.steps.map((each) => {
        const step = onTop(after, each);
        after = apply(after, step);
        return step;
      });
      this.store.setState({ project: after, history: moved.history, notice: null });
      this.visit?.saver.add(steps);
      this.tell(after, steps, null);
      return true;
    } catch (error) {
      if (!(error instanceof EditError)) throw error;
      this.notice(`That cannot be undone any more: ${error.message}.`);
      return false;
    }
  };

  /** Tells the person something that stays until it is dismissed. */
  readonly notice = (text: string | null, tone: Told["tone"] = "attention"): void => {
    this.store.setState({ notice: text === null ? null : { text, tone } });
  };

  /** Takes back the edits that the server has refused, like any other edit: it can be done again. */
  readonly undoRefused = (): void => {
    const stroke = crypto.randomUUID();
    const { refused } = this.saveStore.getState();
    if (![...refused].reverse().every(({ step }) => this.edit(invert(step), stroke)))
      this.notice("Later edits stand on some of those that were refused: undo those first, or discard.");
  };

  /** Puts the world as it is here on the shelf as a copy, or into a file where the server does not take it. */
  readonly keepRefused = async (): Promise<void> => {
    await this.visit?.keepRefused();
  };

  /** Forgets the edits that the server has refused: everything else stays. */
  readonly discardRefused = async (): Promise<void> => {
    await this.visit?.discardRefused();
  };
}
