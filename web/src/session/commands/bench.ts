import { sideCommand } from "./sides.ts";
import { undoCommands } from "./undo.ts";
import type { Parts } from "../session.ts";
import type { Overlay, Pen } from "../bench/bench-store.ts";
import type { Command } from "./command.ts";
import { always, following } from "./command.ts";

/** Every command of the Bench that is built. */
export function benchCommands(session: Parts) {
  const hasRun = (): boolean =>
    session.benchStore.getState().run !== null && session.benchStore.getState().walk === null;
  const stepBy = (by: number) => (): void => {
    session.playing.pause();
    session.playing.showFrame(session.benchStore.getState().frame + by);
  };
  const jump = (frame: () => number | null) => (): void => {
    const to = frame();
    if (to === null) return;
    session.playing.pause();
    session.playing.showFrame(to);
  };
  const canPaint = (): boolean => session.benchStore.getState().walk === null;
  const hasSelection = (): boolean => canPaint() && session.benchStore.getState().selection !== null;
  const isLaying = (): boolean => canPaint() && session.benchStore.getState().laying;
  const pen = (name: string, key: string, which: Pen): Omit<Command, "onChange"> => ({
    name,
    keys: [key],
    can: canPaint,
    act: () => session.painting.choosePen(which),
  });
  const cursor = (name: string, key: string, dx: number, dy: number): Omit<Command, "onChange"> => ({
    name,
    keys: [key],
    can: canPaint,
    act: () => session.fieldCursor.moveBy(dx, dy),
  });
  function pickAtPointer(): void {
    const { pointer } = session.benchStore.getState();
    const size = session.project.store.getState().project?.world.tileSize;
    if (pointer !== null && size !== undefined)
      session.painting.pickTile({ x: Math.floor(pointer.x / size), y: Math.floor(pointer.y / size) });
  }
  const overlay = (name: string, key: string, which: Overlay): Omit<Command, "onChange"> => ({
    name,
    keys: [key],
    can: always,
    act: () => session.shownRoom.toggleOverlay(which),
  });
  function toggleLogSide(): void {
    session.benchStore.setState(({ side }) => ({ side: side === "log" ? "anatomy" : "log" }));
  }
  return following(session.onChange, {
    ...undoCommands(session),
    leftSide: sideCommand(session, "anatomy"),
    rightSide: sideCommand(session, "kit"),
    walk: {
      name: "Walk and record",
      keys: ["R", "W"],
      can: () => session.benchStore.getState().walk?.phase !== "offered",
      act: () => (session.walks.isWalking() ? session.walks.endWalk() : session.walks.beginWalk()),
    },
    setDown: {
      name: "Start at the pointer",
      keys: ["S"],
      can: () => session.benchStore.getState().walk === null && session.benchStore.getState().pointer !== null,
      act: () => session.walks.setDownAtPointer(),
    },
    setDownAsNow: {
      name: "Start at the pointer with this frame's bag, doors and memory",
      keys: ["Shift+S"],
      can: () =>
        session.benchStore.getState().walk === null &&
        session.benchStore.getState().pointer !== null &&
        session.benchStore.getState().explanation !== null,
      act: () => session.walks.setDownAtPointer(true),
    },
    brush: pen("Paint with the brush", "P", "brush"),
    line: pen("Paint a line", "L", "line"),
    box: {
      name: "Paint a box; pressed again its frame only",
      keys: ["O"],
      can: canPaint,
      act: session.painting.chooseBox,
    },
    bucket: pen("Fill", "K", "bucket"),
    erase: pen("Erase", "E", "erase"),
    place: {
      name: "Place, choose and move fixtures",
      keys: ["N"],
      can: canPaint,
      act: () => session.placing.takeUpKind(session.benchStore.getState().placing),
    },
    removeFixtures: {
      name: "Delete the chosen fixtures",
      keys: ["Delete", "Backspace"],
      can: () => canPaint() && session.benchStore.getState().fixtures.length > 0,
      act: session.fixtures.removeChosenFixtures,
    },
    wall: { name: "Draw a wall off the cells", keys: ["J"], can: canPaint, act: session.walls.takeUp },
    cursorLeft: cursor("Cursor a cell to the left", "Ctrl+ArrowLeft", -1, 0),
    cursorRight: cursor("Cursor a cell to the right", "Ctrl+ArrowRight", 1, 0),
    cursorUp: cursor("Cursor a cell up", "Ctrl+ArrowUp", 0, -1),
    cursorDown: cursor("Cursor a cell down", "Ctrl+ArrowDown", 0, 1),
    press: {
      name: "Use the tool at the cursor",
      keys: ["Enter"],
      can: session.fieldCursor.isShown,
      act: session.fieldCursor.press,
    },
    hold: {
      name: "Hold the tool down at the cursor, and let it go",
      keys: ["Shift+Enter"],
      can: session.fieldCursor.isShown,
      act: session.fieldCursor.hold,
    },
    noteFault: {
      name: "Note a fault in the shown frame in the Journal",
      keys: ["Shift+F"],
      can: hasRun,
      act: () => {
        session.playing.pause();
        session.asked.noteFault.ask();
      },
    },
    finishWall: {
      name: "Add the wall that is drawn",
      keys: ["Enter", "Ctrl+Enter"],
      can: () => canPaint() && session.walls.isUnderWay(),
      act: session.walls.finish,
    },
    select: pen("Choose a rectangle", "M", "select"),
    smaller: { name: "Smaller brush", keys: ["["], can: canPaint, act: () => session.painting.changeBrush(-1) },
    larger: { name: "Larger brush", keys: ["]"], can: canPaint, act: () => session.painting.changeBrush(1) },
    pick: {
      name: "Pick the tile under the pointer",
      keys: ["I"],
      can: () => canPaint() && session.benchStore.getState().pointer !== null,
      act: pickAtPointer,
    },
    copy: {
      name: "Copy the rectangle",
      keys: ["Ctrl+C"],
      can: hasSelection,
      act: () => session.painting.copySelection(false),
    },
    cut: {
      name: "Cut the rectangle",
      keys: ["Ctrl+X"],
      can: hasSelection,
      act: () => session.painting.copySelection(true),
    },
    lay: {
      name: "Paste the copy",
      keys: ["Ctrl+V"],
      can: () => canPaint() && session.benchStore.getState().piece !== null,
      act: session.painting.takeUpPiece,
    },
    flipX: {
      name: "Flip the copy sideways",
      keys: ["Shift+H"],
      can: isLaying,
      act: () => session.painting.changePiece("flip x"),
    },
    flipY: {
      name: "Flip the copy upside down",
      keys: ["Shift+V"],
      can: isLaying,
      act: () => session.painting.changePiece("flip y"),
    },
    turn: { name: "Turn the copy", keys: ["Shift+R"], can: isLaying, act: () => session.painting.changePiece("turn") },
    letGo: {
      name: "Let go",
      keys: ["Escape"],
      can: () =>
        session.fieldCursor.isHeld() ||
        isLaying() ||
        hasSelection() ||
        session.benchStore.getState().drag !== null ||
        session.walls.isUnderWay(),
      act: () => {
        if (session.fieldCursor.isHeld()) session.fieldCursor.hold();
        else if (session.walls.isUnderWay()) session.walls.letGo();
        else session.painting.letGo();
      },
    },
    playPause: {
      name: "Play or pause",
      keys: ["Space"],
      can: hasRun,
      act: () => (session.benchStore.getState().playing ? session.playing.pause() : session.playing.play()),
    },
    first: { name: "First frame", keys: ["Home"], can: hasRun, act: jump(() => 0) },
    last: {
      name: "Last frame",
      keys: ["End"],
      can: hasRun,
      act: jump(() => session.benchStore.getState().run?.frames ?? null),
    },
    back: { name: "A frame back", keys: ["ArrowLeft"], can: hasRun, act: stepBy(-1) },
    forward: { name: "A frame forward", keys: ["ArrowRight"], can: hasRun, act: stepBy(1) },
    backTen: { name: "Ten frames back", keys: ["Shift+ArrowLeft"], can: hasRun, act: stepBy(-10) },
    forwardTen: { name: "Ten frames forward", keys: ["Shift+ArrowRight"], can: hasRun, act: stepBy(10) },
    nearer: { name: "Zoom in on the line", keys: ["="], can: hasRun, act: () => session.asked.zoomLine.ask(2) },
    farther: { name: "Zoom out of the line", keys: ["-"], can: hasRun, act: () => session.asked.zoomLine.ask(1 / 2) },
    nextMark: { name: "Next pebble or event", keys: ["."], can: hasRun, act: jump(() => session.playing.nextMark(1)) },
    previousMark: {
      name: "Pebble or event before",
      keys: [","],
      can: hasRun,
      act: jump(() => session.playing.nextMark(-1)),
    },
    addCheck: {
      name: "Add a check at this frame",
      keys: ["A"],
      can: session.checks.canWriteCheck,
      act: () => session.checks.beginCheck(),
    },
    editLog: {
      name: "The log as a table and as text",
      keys: ["D"],
      can: () => session.benchStore.getState().walk === null && session.benchStore.getState().log !== null,
      act: toggleLogSide,
    },
    cutHere: {
      name: "Cut the log's end off behind this frame",
      keys: ["Shift+X"],
      can: session.logEdits.canCut,
      act: session.logEdits.cutHere,
    },
    goOn: {
      name: "Go on walking from this frame",
      keys: ["Shift+W"],
      can: () => hasRun() && session.benchStore.getState().parsed !== null,
      act: session.walks.goOnWalking,
    },
    fix: {
      name: "What would fix it",
      keys: ["Y"],
      can: session.fixes.isBroken,
      act: () => void session.fixes.searchFixes(),
    },
    grid: overlay("Grid", "G", "grid"),
    solid: overlay("Solid shapes", "X", "solid"),
    clearance: overlay("Where the body does not fit", "C", "clearance"),
    body: overlay("Body, gaps and tested cells", "B", "body"),
    velocity: overlay("Velocity", "V", "velocity"),
    trail: overlay("Trail", "T", "trail"),
    ghost: overlay("Ghost of the run before the change", "H", "ghost"),
    camera: overlay("What the camera shows", "Q", "camera"),
    sound: { name: "Sound of bumps, doors and hazards", keys: ["U"], can: always, act: session.sound.toggleSound },
    takeHome: {
      name: "Rules as a program to take home",
      keys: ["Shift+T"],
      can: canPaint,
      act: session.takenHome.toggle,
    },
    fit: { name: "Show the whole room", keys: ["F"], can: always, act: () => session.asked.fitRoom.ask() },
  });
}
