import type { PlaytestLink } from "@keen-pebble/server/api";
import { createStore } from "zustand/vanilla";
import { playtestLink, quietly, switchPlaytest } from "../project/api-client.ts";
import type { ProjectSession } from "../project/project.ts";
import { OfflineError, ProblemError } from "../project/server-answer.ts";

/** The link at which others can play the open world; null until the server said how it stands. */
export class PlaytestLinkSession {
  readonly store = createStore<{ readonly world: string | null; readonly link: PlaytestLink | null }>(() => ({
    world: null,
    link: null,
  }));

  /** Counted up where a switch begins and where it is answered: how the link stood before is no answer any more. */
  private switched = 0;

  constructor(private readonly project: ProjectSession) {}

  /** Asks how it stands. */
  readonly read = async (): Promise<void> => {
    const { worldId } = this.project.store.getState();
    if (worldId === null) return;
    if (this.store.getState().world !== worldId) this.store.setState({ world: worldId, link: null });
    const { switched } = this;
    const link = await quietly(playtestLink(worldId));
    if (link !== null && switched === this.switched) this.put(worldId, link);
  };

  /** Switches it on, at a new address, or off. */
  readonly switch = async (on: boolean): Promise<void> => {
    const { worldId } = this.project.store.getState();
    if (worldId === null) return;
    this.switched++;
    try {
      const link = await switchPlaytest(worldId, on);
      this.switched++;
      this.put(worldId, link);
    } catch (error) {
      if (!(error instanceof ProblemError || error instanceof OfflineError)) throw error;
      this.project.notice(`The playtest link could not be switched: ${error.message}. It is as it was.`);
    }
  };

  private put(world: string, link: PlaytestLink): void {
    if (this.project.store.getState().worldId === world) this.store.setState({ world, link });
  }
}
