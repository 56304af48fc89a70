import type { EditStep, History, Project } from "@keen-pebble/core/edit";
import { EMPTY_HISTORY, apply, applyAll, differences, invert, recent, summary } from "@keen-pebble/core/edit";
import { openRevision, openWorld, quietly, stepsSince, storeBatch } from "./api-client.ts";
import { openedProject } from "./opened-project.ts";
import type { Outbox, OwnEdits, OwnStep } from "./outbox.ts";
import { keepAsFile, sendCopy } from "./own-copy.ts";
import type { Rebased, SaveStore } from "./saving.ts";
import { Saver } from "./saving.ts";
import { OfflineError, ProblemError } from "./server-answer.ts";
import type { Told } from "./told.ts";
import { applyWhatFits } from "./what-fits.ts";

/** A world as one sees it, and what can be taken back. */
export interface InHand {
  readonly project: Project;
  readonly history: History;
}

/** The page that shows the world. */
export interface ShowingPage {
  readonly inHand: () => InHand;
  /** @param changed steps that make it of what was shown before */
  readonly show: (inHand: InHand, changed: readonly EditStep[]) => void;
  readonly notice: (text: string, tone: Told["tone"]) => void;
}

/** What a visit works with. */
export interface VisitTools {
  readonly outbox: Outbox;
  readonly saveStore: SaveStore;
  /** The copies that conflicts went to, by the world's id. */
  readonly copies: Map<string, string>;
}

/** So many things can be undone after a reload. */
const MOST_KEPT = 50;

const isSteps = (under: readonly EditStep[] | Project): under is readonly EditStep[] => Array.isArray(under);

const isNo = (error: unknown): error is ProblemError | OfflineError =>
  error instanceof ProblemError || error instanceof OfflineError;

const count = (n: number): string => `${n} ${n === 1 ? "edit" : "edits"}`;

/** The world at its newest revision. */
export async function openedWorld(worldId: string): Promise<{ readonly revision: number; readonly project: Project }> {
  const opened = await openWorld(worldId);
  return { revision: opened.revision, project: openedProject(opened) };
}

/**
 * One visit to a world: own edits on top of what others do to it, until each of them is stored or kept elsewhere. It goes on
 * by itself once the page has left the world (architecture.md, flow 4).
 */
export class Visit {
  readonly saver: Saver;
  /** What was in hand when the page left the world; null while it shows it. */
  private left: InHand | null = null;

  constructor(
    worldId: string,
    revision: number,
    private readonly page: ShowingPage,
    private readonly tools: VisitTools,
  ) {
    this.saver = new Saver(worldId, revision, {
      outbox: tools.outbox,
      storeBatch,
      stepsSince,
      openWorld: openedWorld,
      rebase: this.rebase,
      saved: (at) =>
        void tools.outbox.keepHistory(worldId, { revision: at, history: recent(this.inHand.history, MOST_KEPT) }),
      tell: (state) => tools.saveStore.setState(state),
    });
  }

  private get inHand(): InHand {
    return this.left ?? this.page.inHand();
  }

  private show(inHand: InHand, changed: readonly EditStep[]): void {
    if (this.left === null) this.page.show(inHand, changed);
    else this.left = inHand;
  }

  /** The page shows the world no more: what waits is sent, and what cannot be stays in the browser. */
  leave(): Promise<void> {
    this.left = this.page.inHand();
    return this.saver.leave();
  }

  /** Puts own edits back that were not acknowledged when their tab was closed. What no longer fits is kept as a copy. */
  async bringBack(left: readonly OwnEdits[]): Promise<void> {
    if (left.length === 0) return;
    const { project, history } = this.inHand;
    const { after, kept, lost } = applyWhatFits(
      project,
      left.flatMap(({ waiting }) => waiting),
    );
    this.show(
      { project: after, history },
      kept.map(({ step }) => step),
    );
    // Those of a visit of which something does not fit stay until they are kept as a copy.
    const torn = left.filter(({ waiting }) => waiting.some((each) => lost.includes(each)));
    this.saver.adopt(kept, torn);
    if (lost.length === 0) {
      this.page.notice(`${count(kept.length)} from your last visit brought back.`, "info");
      return;
    }
    this.page.notice(
      `This world was changed elsewhere since your last visit. ${count(kept.length)} brought back; no longer fitting: ${summary(
        project.world,
        lost.map(({ step }) => step),
      )}.`,
      "attention",
    );
    for (const [i, edits] of torn.entries()) {
      const then = edits.base === null ? null : await quietly(openRevision(project.world.id, edits.base));
      const was = then === null ? project : openedProject(then);
      if (await this.keepAsCopy(applyWhatFits(was, edits.waiting).after, lost, kept.length))
        this.saver.adopt([], torn.slice(i + 1));
    }
  }

  /** Somebody else was faster: their steps go below the own ones, as far as those still fit; the rest is kept as a copy. */
  private readonly rebase = (under: readonly EditStep[] | Project, own: readonly OwnStep[]): Rebased => {
    const { project: mine, history } = this.inHand;
    // Back to what both sides began with, then theirs, then the own ones again.
    const base = isSteps(under)
      ? applyAll(
          [...own].reverse().reduce((at, { step }) => apply(at, invert(step)), mine),
          under,
        )
      : under;
    const { after, kept, lost } = applyWhatFits(base, own);
    this.show({ project: after, history: lost.length > 0 ? EMPTY_HISTORY : history }, differences(mine, after));
    const copied = lost.length > 0 ? this.keepAsCopy(mine, lost, kept.length) : null;
    if (copied === null && this.left === null && isSteps(under) && under.length > 0)
      this.page.notice(
        own.length > 0
          ? "This world was changed elsewhere; your edits were put on top."
          : `Changed elsewhere: ${summary(after.world, under)}.`,
        "info",
      );
    return { kept, copied };
  };

  /**
   * Puts the world as it was here on the shelf under an id of its own, its sheets and logs with it, and says what could not
   * be put on top. Further conflicts of this tab go to the same copy.
   */
  private async keepAsCopy(mine: Project, lost: readonly OwnStep[], kept: number): Promise<boolean> {
    const { id: world, name } = mine.world;
    const which = this.left === null ? "This world" : name;
    const what = `${which} was changed elsewhere. ${count(kept)} of yours could be put on top; not ${summary(
      mine.world,
      lost.map(({ step }) => step),
    )}`;
    try {
      const id = await sendCopy(mine, this.tools.copies.get(world) ?? null);
      this.tools.copies.set(world, id);
      this.page.notice(`${what}. The world as it was here is kept on the shelf as ${id}.`, "attention");
      return true;
    } catch (error) {
      if (!isNo(error)) throw error;
      keepAsFile(mine, lost);
      this.page.notice(
        `${what}. No copy could be put on the shelf (${error.message}); it was saved as a file instead.`,
        "attention",
      );
      return false;
    }
  }

  /** Puts the world as it is here on the shelf as a copy, or into a file where the server does not take it. */
  async keepRefused(): Promise<void> {
    const { project } = this.inHand;
    const { refused } = this.tools.saveStore.getState();
    try {
      this.page.notice(`Kept on the shelf as ${await sendCopy(project, null)}.`, "info");
    } catch (error) {
      if (!isNo(error)) throw error;
      keepAsFile(project, refused);
      this.page.notice(`The server takes no world like this (${error.message}); it was saved as a file.`, "info");
    }
  }

  /** Forgets the edits that the server has refused: everything else stays. */
  async discardRefused(): Promise<void> {
    try {
      await this.saver.discardRefused();
      // What was done before them may stand on them.
      this.show({ project: this.inHand.project, history: EMPTY_HISTORY }, []);
    } catch (error) {
      if (!isNo(error)) throw error;
      this.page.notice(`${error.message}; nothing was discarded.`, "attention");
    }
  }
}
