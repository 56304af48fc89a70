import type { ShelfParts } from "./shelf/shelf-parts.ts";
import { makeShelfParts } from "./shelf/shelf-parts.ts";
import { Sides } from "./sides.ts";
import { ProjectSession } from "./project/project.ts";
import { TriedValues } from "./bench/tried.ts";
import { Chosen } from "./bench/chosen.ts";
import { ShownRoom } from "./bench/shown-room.ts";
import { Proofs } from "./proofs/proofs.ts";
import { ShownExplanation } from "./bench/explanation.ts";
import { BesideRun } from "./bench/beside.ts";
import { Latency } from "./bench/latency.ts";
import { ShownLog } from "./bench/shown-log.ts";
import { Playing } from "./bench/playing.ts";
import { Sounds } from "./bench/sound.ts";
import { TakenHome } from "./bench/taken-home.ts";
import { FieldCursor } from "./bench/field-cursor.ts";
import { FieldTool } from "./bench/field-tool.ts";
import { FirstMinute } from "./bench/first-minute.ts";
import { RuleSets } from "./bench/rule-sets.ts";
import { Fixes } from "./bench/fixes.ts";
import { Feels } from "./bench/feel.ts";
import { Painting } from "./bench/painting.ts";
import { Actors } from "./bench/actors.ts";
import { Fixtures } from "./bench/fixtures.ts";
import { Placing } from "./bench/placing.ts";
import { Walls } from "./bench/walls.ts";
import { WorldSettings } from "./bench/world-settings.ts";
import { Rooms } from "./bench/rooms.ts";
import { Tiles } from "./bench/tiles.ts";
import { Sheets } from "./bench/sheets.ts";
import { WalkOffer } from "./walk/offered-walk.ts";
import { Walks } from "./walk/walks.ts";
import { ReEntries } from "./walk/re-entry.ts";
import { LogEdits } from "./log/log-edits.ts";
import { CheckWriting } from "./log/checks.ts";
import { UntilLines } from "./log/until.ts";
import { ProofBoard } from "./proofs/board.ts";
import { ManyLogs } from "./proofs/many-logs.ts";
import { RandomWalkSearch } from "./proofs/random-walks.ts";
import { AcceptedWalk } from "./proofs/accepted.ts";
import { ReachSession } from "./reach/reach.ts";
import { FloorplanSession } from "./floorplan/floorplan.ts";
import { PlanCursor } from "./floorplan/plan-cursor.ts";
import { Entries } from "./journal/entries.ts";
import { PlaytestLinkSession } from "./journal/playtest-link.ts";
import { JournalSession } from "./journal/journal.ts";
import { makeBenchStore } from "./bench/bench-store.ts";
import { benchCommands } from "./commands/bench.ts";
import { floorplanCommands } from "./commands/floorplan.ts";
import { journalCommands } from "./commands/journal.ts";
import { reachCommands } from "./commands/reach.ts";
import { proofsCommands } from "./commands/proofs.ts";
import { MapImport } from "./elsewhere/map-import.ts";
import { OwnGame } from "./elsewhere/own-game.ts";
import { WhichRulesSearch } from "./elsewhere/which-rules.ts";
import { RecordingImport } from "./elsewhere/recording.ts";
import { moreRoomTarget } from "./elsewhere/more-room-target.ts";
import { ByChance } from "./proofs/by-chance.ts";
import { makeSaveStore } from "./project/saving.ts";

/** Makes everything that the page works with, each part with those that it needs. */
function makeParts({ outbox, serverEvents, asked, shelf, makeWorld }: ShelfParts) {
  const benchStore = makeBenchStore();
  const saveStore = makeSaveStore();
  const project = new ProjectSession(outbox, saveStore, serverEvents);
  const tried = new TriedValues();
  const sides = new Sides();
  const chosen = new Chosen(benchStore, project);
  const shownRoom = new ShownRoom(benchStore, project);
  const proofs = new Proofs(project, serverEvents, saveStore);
  const explanation = new ShownExplanation(project, benchStore);
  const beside = new BesideRun(benchStore, project, proofs, explanation);
  const latency = new Latency();
  const shownLog = new ShownLog(project, tried, benchStore, chosen, shownRoom, beside, latency, explanation);
  const playing = new Playing(benchStore, project, explanation);
  const sound = new Sounds(benchStore);
  const ruleSets = new RuleSets(project, benchStore);
  const fixes = new Fixes(benchStore, project, ruleSets);
  const feel = new Feels(project, benchStore, fixes);
  const fixtures = new Fixtures(project, benchStore);
  const actors = new Actors(project, benchStore);
  const placing = new Placing(project, benchStore, fixtures);
  const painting = new Painting(benchStore, project, placing);
  const worldSettings = new WorldSettings(project, benchStore);
  const walls = new Walls(project, benchStore);
  const fieldTool = new FieldTool(project, benchStore, { painting, placing, walls, actors, worldSettings });
  const fieldCursor = new FieldCursor(project, benchStore, fieldTool, asked);
  const rooms = new Rooms(project, benchStore, shownRoom);
  const mapImport = new MapImport(moreRoomTarget(project, shownRoom));
  const tiles = new Tiles(project, chosen, benchStore);
  const sheets = new Sheets(project);
  const offeredWalk = new WalkOffer(project, benchStore, outbox, shownLog);
  const walks = new Walks(benchStore, project, offeredWalk);
  const reEntries = new ReEntries(project, benchStore, shownLog, fixtures);
  const logEdits = new LogEdits(project, benchStore, shownLog);
  const checks = new CheckWriting(benchStore, project, logEdits);
  const untilLines = new UntilLines(project, benchStore);
  const ownGame = new OwnGame(benchStore, project);
  const firstMinute = new FirstMinute(benchStore, project);
  const takenHome = new TakenHome(benchStore, project);
  const whichRules = new WhichRulesSearch(benchStore, project, ownGame);
  const recordings = new RecordingImport(project, ownGame);
  const board = new ProofBoard(proofs, shownLog, benchStore, playing, project, recordings, ownGame);
  const manyLogs = new ManyLogs(project, board);
  const randomWalks = new RandomWalkSearch(project, board, shownLog);
  const byChance = new ByChance(project, board, shownLog);
  const accepted = new AcceptedWalk(project, beside);
  const floorplan = new FloorplanSession(project);
  const planCursor = new PlanCursor(project, floorplan, worldSettings);
  const reach = new ReachSession(project, benchStore, shownLog);
  const journal = new JournalSession(project, proofs);
  const entries = new Entries(project, benchStore, journal);
  const playtestLink = new PlaytestLinkSession(project);
  const stores = [
    benchStore,
    project.store,
    fixes.store,
    board.store,
    proofs.store,
    floorplan.store,
    planCursor.store,
    reach.store,
    journal.store,
    entries.store,
    playtestLink.store,
    shelf.store,
  ];
  /** Listens to whatever may decide what can be done now; gives back what stops that. */
  const onChange = (listener: () => void): (() => void) => {
    const stops = stores.map((store) => store.subscribe(listener));
    return () => stops.forEach((stop) => stop());
  };
  return {
    benchStore,
    saveStore,
    outbox,
    asked,
    serverEvents,
    project,
    tried,
    sides,
    chosen,
    shownRoom,
    proofs,
    explanation,
    beside,
    latency,
    shownLog,
    playing,
    sound,
    ruleSets,
    fixes,
    feel,
    painting,
    fixtures,
    actors,
    placing,
    walls,
    fieldTool,
    fieldCursor,
    worldSettings,
    rooms,
    mapImport,
    recordings,
    ownGame,
    whichRules,
    takenHome,
    firstMinute,
    tiles,
    sheets,
    offeredWalk,
    walks,
    reEntries,
    logEdits,
    checks,
    untilLines,
    board,
    manyLogs,
    randomWalks,
    byChance,
    accepted,
    floorplan,
    planCursor,
    reach,
    journal,
    entries,
    playtestLink,
    shelf,
    makeWorld,
    onChange,
  };
}

/** The parts of a session, by what one works on. */
export type Parts = ReturnType<typeof makeParts>;

function makeCommands(parts: Parts) {
  return {
    bench: benchCommands(parts),
    floorplan: floorplanCommands(parts),
    journal: journalCommands(parts),
    proofs: proofsCommands(parts),
    reach: reachCommands(parts),
  };
}

/** All that one tab of the page works with, and what can be done in it. */
export interface Session extends Parts {
  readonly commands: ReturnType<typeof makeCommands>;
}

/**
 * Makes a session: the page has one, a test as many as it wants.
 * @param base what is there already without an open world
 */
export function makeSession(base: ShelfParts = makeShelfParts()): Session {
  const parts = makeParts(base);
  return { ...parts, commands: makeCommands(parts) };
}
