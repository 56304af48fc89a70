import type { Outbox, OwnEdits, OwnStep } from "./outbox.ts";
import type { SaveStore, Rebased } from "./saving.ts";
import type { ServerStream } from "./server-events.ts";
import type { EditStep, Followed, History, Project } from "@keen-pebble/core/edit";
import type { World } from "@keen-pebble/core/world";
import {
  EMPTY_HISTORY,
  EditError,
  apply,
  applyAll,
  close,
  differences,
  invert,
  logsThatCannotStart,
  onTop,
  recent,
  record,
  redo,
  summary,
  undo,
} from "@keen-pebble/core/edit";
import { createStore } from "zustand/vanilla";
import { openRevision, openWorld, quietly, stepsSince, storeBatch } from "./api-client.ts";
import { OfflineError, ProblemError } from "./server-answer.ts";
import { openedProject } from "./opened-project.ts";
import { keepAsFile, sendCopy } from "./own-copy.ts";
import { Saver } from "./saving.ts";
import { SimulationClient } from "./simulation-client.ts";
import { applyWhatFits } from "./what-fits.ts";

/** Something told to the person: good to know, or in need of attention. */
export interface Told {
  readonly tone: "info" | "attention";
  readonly text: string;
}

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

/** So many things can be undone after a reload. */
const MOST_KEPT = 50;

async function openedWorld(worldId: string): Promise<{ readonly revision: number; readonly project: Project }> {
  const opened = await openWorld(worldId);
  return { revision: opened.revision, project: openedProject(opened) };
}

const MOST_TOLD = 12;

const isSteps = (under: readonly EditStep[] | Project): under is readonly EditStep[] => Array.isArray(under);

const count = (n: number): string => `${n} ${n === 1 ? "edit" : "edits"}`;

/** The world that is open: changed, undone, saved, and told of to whoever listens. */
export class ProjectSession {
  readonly store = createStore<ProjectState>(() => NOTHING);
  private readonly listeners = new Set<ProjectListener>();
  private saver: Saver | null = null;
  private simulation: SimulationClient | null = null;
  private asked = 0;
  /** Ends once the world that was open before is left. */
  private leaving: Promise<unknown> = Promise.resolve();
  /** What could be undone in worlds that were left, for what of them is stored later. */
  private readonly leftWith = new WeakMap<Saver, History>();
  /** What the reader of world files says of a part that an edit makes. */
  private partFault: ((part: string, value: unknown, tileSize: number) => string | null) | null = null;
  /** The copy that conflicts of this visit to a world go to, by the world's id. */
  private readonly copies = new Map<string, string>();

  constructor(
    private readonly outbox: Outbox,
    private readonly saveStore: SaveStore,
    private readonly serverEvents: ServerStream,
  ) {}

  private unlisten: () => void = () => undefined;

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

  /** The worker that runs logs of the open project. */
  readonly simulationClient = (): SimulationClient | null => {
    return this.simulation;
  };

  /** Opens a world, with what a closed tab had not had acknowledged put on top. */
  readonly openProject = async (worldId: string): Promise<void> => {
    const mine = ++this.asked;
    this.closeProject();
    this.store.setState({ ...NOTHING, phase: "loading", worldId });
    try {
      // The same tab may still be leaving it.
      await this.leaving;
      // What a file may hold also decides what an edit may make.
      const [{ partSchema }] = await Promise.all([import("@keen-pebble/core/reading"), this.outbox.claim(worldId)]);
      this.partFault = (part, value, tileSize) =>
        partSchema(part, tileSize)?.validate(value, { errors: { wrap: { label: false } } }).error?.message ?? null;
      const left = await this.sentAgain(worldId, await this.outbox.takeOver(worldId));
      const { revision, project } = await openedWorld(worldId);
      const history = (left.length === 0 ? await this.outbox.keptHistory(worldId, revision) : null) ?? EMPTY_HISTORY;
      if (mine !== this.asked) {
        if (this.store.getState().worldId !== worldId) this.outbox.release(worldId);
        return;
      }
      this.simulation = new SimulationClient();
      const saver: Saver = new Saver(worldId, revision, {
        outbox: this.outbox,
        storeBatch,
        stepsSince,
        openWorld: openedWorld,
        rebase: this.rebase,
        saved: (at) =>
          void this.outbox.keepHistory(worldId, {
            revision: at,
            // What was edited just before one left is stored once another world is shown.
            history: recent(this.leftWith.get(saver) ?? this.store.getState().history, MOST_KEPT),
          }),
        tell: (state) => this.saveStore.setState(state),
      });
      this.saver = saver;
      this.store.setState({ ...NOTHING, phase: "ready", worldId, project, history });
      this.tell(project, null, null);
      await this.bringBack(this.saver, left);
      const heard = this.saver;
      this.unlisten = this.serverEvents.onServerEvent((event) => {
        if (event.event === "saved" && event.data.world === worldId) heard.heard(event.data.revision);
        // What was saved while nobody listened is asked for.
        else if (event.event === "open") heard.look();
      });
    } catch (error) {
      if (mine !== this.asked) return;
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
    this.unlisten();
    this.unlisten = () => undefined;
    if (this.saver !== null) {
      this.leftWith.set(this.saver, this.store.getState().history);
      this.leaving = this.saver.leave();
    }
    this.simulation?.close();
    this.saver = null;
    this.simulation = null;
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
      this.saver?.add([step]);
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
    this.saver?.note(text);
  };

  /** Sends what waits now, without waiting for more. */
  readonly saveNow = (): void => {
    this.saver?.sendNow();
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
      this.saver?.add(steps);
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

  /** Puts own edits back that were not acknowledged when their tab was closed. What no longer fits is kept as a copy. */
  private readonly bringBack = async (to: Saver, left: readonly OwnEdits[]): Promise<void> => {
    if (left.length === 0) return;
    const { project } = this.store.getState();
    const { after, kept, lost } = applyWhatFits(
      project!,
      left.flatMap(({ waiting }) => waiting),
    );
    this.store.setState({ project: after });
    this.tell(
      after,
      kept.map(({ step }) => step),
      null,
    );
    // Those of a visit of which something does not fit stay until they are kept as a copy.
    const torn = left.filter(({ waiting }) => waiting.some((each) => lost.includes(each)));
    to.adopt(kept, torn);
    if (lost.length === 0) {
      this.notice(`${count(kept.length)} from your last visit brought back.`, "info");
      return;
    }
    this.notice(
      `This world was changed elsewhere since your last visit. ${count(kept.length)} brought back; no longer fitting: ${summary(
        project!.world,
        lost.map(({ step }) => step),
      )}.`,
    );
    for (const edits of torn) {
      const then = edits.base === null ? null : await quietly(openRevision(project!.world.id, edits.base));
      const was: Project = then === null ? project! : openedProject(then);
      if (await this.keepAsCopy(applyWhatFits(was, edits.waiting).after, lost, kept.length))
        to.adopt(
          [],
          torn.filter((each) => torn.indexOf(each) > torn.indexOf(edits)),
        );
    }
  };

  /** Somebody else was faster: their steps go below the own ones, as far as those still fit; the rest is kept as a copy. */
  private readonly rebase = (under: readonly EditStep[] | Project, own: readonly OwnStep[]): Rebased => {
    const { project: mine } = this.store.getState();
    // Back to what both sides began with, then theirs, then the own ones again.
    const base = isSteps(under)
      ? applyAll(
          [...own].reverse().reduce((at, { step }) => apply(at, invert(step)), mine!),
          under,
        )
      : under;
    const { after, kept, lost } = applyWhatFits(base, own);
    const changed = differences(mine!, after);
    this.store.setState({ project: after, history: lost.length > 0 ? EMPTY_HISTORY : this.store.getState().history });
    const copied = lost.length > 0 ? this.keepAsCopy(mine!, lost, kept.length) : null;
    if (copied === null && isSteps(under) && under.length > 0)
      this.notice(
        own.length > 0
          ? "This world was changed elsewhere; your edits were put on top."
          : `Changed elsewhere: ${summary(after.world, under)}.`,
        "info",
      );
    if (changed.length > 0) this.tell(after, changed, null);
    return { kept, copied };
  };

  /**
   * Puts the world as it was here on the shelf under an id of its own, its sheets and logs with it, and says what could not
   * be put on top. Further conflicts of this visit go to the same copy.
   */
  private readonly keepAsCopy = async (mine: Project, lost: readonly OwnStep[], kept: number): Promise<boolean> => {
    const what = `This world was changed elsewhere. ${count(kept)} of yours could be put on top; not ${summary(
      mine.world,
      lost.map(({ step }) => step),
    )}`;
    try {
      const id = await sendCopy(mine, this.copies.get(mine.world.id) ?? null);
      this.copies.set(mine.world.id, id);
      this.notice(`${what}. The world as it was here is kept on the shelf as ${id}.`);
      return true;
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      keepAsFile(mine, lost);
      this.notice(`${what}. No copy could be put on the shelf (${error.message}); it was saved as a file instead.`);
      return false;
    }
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
    const { project } = this.store.getState();
    if (project === null) return;
    const { refused } = this.saveStore.getState();
    try {
      this.notice(`Kept on the shelf as ${await sendCopy(project, null)}.`, "info");
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      keepAsFile(project, refused);
      this.notice(`The server takes no world like this (${error.message}); it was saved as a file.`, "info");
    }
  };

  /** Forgets the edits that the server has refused: everything else stays. */
  readonly discardRefused = async (): Promise<void> => {
    const { worldId } = this.store.getState();
    const of = this.saver;
    if (worldId === null || of === null) return;
    try {
      const { revision, project } = await openedWorld(worldId);
      const { project: mine } = this.store.getState();
      if (this.saver !== of || mine === null) return;
      const { after, kept } = applyWhatFits(
        project,
        of.own.filter(({ refused }) => refused === null),
      );
      this.store.setState({ project: after, history: EMPTY_HISTORY });
      this.tell(after, differences(mine, after), null);
      of.forgetRefused(kept, revision);
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      this.notice(`${error.message}; nothing was discarded.`);
    }
  };
}
