import { Model } from "objection";

/** A world that can be played from outside; there is none where that is off. */
export class PlaytestRow extends Model {
  static override tableName = "playtests";
  static override idColumn = "worldId";

  declare worldId: number;
  /** What its address ends with; nobody guesses it. */
  declare token: string;
  declare switchedOnAt: Date;
}
