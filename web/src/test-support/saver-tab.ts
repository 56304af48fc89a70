import type { EditStep, Project } from "@keen-pebble/core/edit";
import { EditError, apply, applyAll, invert } from "@keen-pebble/core/edit";
import { emptyWorld } from "@keen-pebble/core/world";
import type { StaleBase, StoredRevision } from "@keen-pebble/server/api";
import type { OutboxEntry, OwnStep, SentBatch } from "../session/project/outbox.ts";
import type { Rebased, SaveState, SaverTools } from "../session/project/saving.ts";
import { Saver } from "../session/project/saving.ts";
import { OfflineError, ProblemError } from "../session/project/server-answer.ts";

const made = emptyWorld("cellar", "Cellar", 16);
export const start: Project = {
  world: { ...made, rooms: made.rooms.map((room) => ({ ...room, cells: new Uint16Array(room.cells.length) })) },
  logs: new Map(),
};
export const ROOM = start.world.rooms[0]!.id;
export const paint = (project: Project, cell: number, tile: number): EditStep => ({
  kind: "set-cells",
  room: ROOM,
  cells: [cell],
  before: [project.world.rooms[0]!.cells[cell]!],
  after: [tile],
});
export const name = (before: string, after: string): EditStep => ({
  kind: "change-parts",
  parts: [{ part: "name", before, after }],
});
export const speedOf = (project: Project): number => project.world.rules[0]!.glide.speed;
export const speed = (project: Project, after: number): EditStep => ({
  kind: "change-rules",
  rules: "main",
  setting: "glide.speed",
  before: speedOf(project),
  after,
});
export const problem = (code: string, status: number, data: unknown = null): ProblemError =>
  new ProblemError({ type: "", title: "", status, detail: code, code, data });

/** A server that keeps one world as ours does, and can be made to say no. */
export class FakeServer {
  readonly projects: Project[] = [start];
  readonly steps: (readonly EditStep[])[] = [];
  readonly batches = new Map<string, number>();
  down = false;
  /** The next answer gets lost on its way. */
  losesAnswer = false;
  refuses: (step: EditStep) => boolean = () => false;

  get project(): Project {
    return this.projects.at(-1)!;
  }

  get revision(): number {
    return this.projects.length;
  }

  store = (_world: string, { batch, base, steps }: SentBatch): Promise<StoredRevision> => {
    if (this.down) return Promise.reject(new OfflineError("down"));
    const known = this.batches.get(batch);
    if (known === undefined) {
      if (base !== this.revision) return Promise.reject(problem("stale-base", 409, this.since(base)));
      try {
        if (steps.some(this.refuses)) return Promise.reject(problem("refused", 422));
        this.projects.push(applyAll(this.project, steps));
      } catch (error) {
        if (!(error instanceof EditError)) throw error;
        return Promise.reject(problem("edit-does-not-fit", 422));
      }
      this.steps.push(steps);
      this.batches.set(batch, this.revision);
    }
    if (this.losesAnswer) {
      this.losesAnswer = false;
      return Promise.reject(new OfflineError("lost"));
    }
    return Promise.resolve({ revision: this.batches.get(batch)!, summary: "" });
  };

  since(base: number): StaleBase {
    return { revision: this.revision, steps: this.steps.slice(base - 1).flat() };
  }
}

/** A tab: what it shows, and its saver. */
export class Tab {
  project: Project;
  entry: OutboxEntry | null = null;
  state: SaveState | null = null;
  copies: Project[] = [];
  /** Keeps what fits no more elsewhere. */
  copied: () => Promise<boolean> = () => Promise.resolve(true);
  readonly saver: Saver;

  constructor(
    readonly server: FakeServer,
    tools: Partial<SaverTools> = {},
  ) {
    this.project = server.project;
    this.saver = new Saver("cellar", server.revision, {
      outbox: {
        write: (entry) => {
          this.entry = entry;
          return Promise.resolve(true);
        },
        release: () => undefined,
        keeps: true,
      },
      storeBatch: server.store,
      stepsSince: (_world, base) =>
        server.down ? Promise.reject(new OfflineError("down")) : Promise.resolve(server.since(base)),
      openWorld: () => Promise.resolve({ revision: server.revision, project: server.project }),
      rebase: (under, own) => this.rebase(under, own),
      saved: () => undefined,
      tell: (state) => {
        this.state = state;
      },
      ...tools,
    });
  }

  edit(step: EditStep): void {
    this.project = apply(this.project, step);
    this.saver.add([step]);
  }

  private rebase(under: readonly EditStep[] | Project, own: readonly OwnStep[]): Rebased {
    const base = Array.isArray(under)
      ? applyAll(
          [...own].reverse().reduce((at, { step }) => apply(at, invert(step)), this.project),
          under as EditStep[],
        )
      : (under as Project);
    const kept: OwnStep[] = [];
    let after = base;
    let lost = false;
    for (const each of own) {
      try {
        after = apply(after, each.step);
        kept.push(each);
      } catch (error) {
        if (!(error instanceof EditError)) throw error;
        lost = true;
      }
    }
    if (lost) this.copies.push(this.project);
    this.project = after;
    return { kept, copied: lost ? this.copied() : null };
  }
}
