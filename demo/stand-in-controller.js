// A stand-in for a game controller: pasted into the console of a playtest (or put there by a test) it answers as the
// Gamepad API does, with the standard layout. `standInController.hold("right", "a")` holds, `.hold()` lets go; `.stick(x, y)`
// pushes the left stick, -1 to 1 on each axis.
(() => {
  const NAMES = { a: 0, b: 1, x: 2, y: 3, up: 12, down: 13, left: 14, right: 15 };
  const held = new Set();
  const axes = [0, 0, 0, 0];
  const pad = () => ({
    id: "Stand-in controller (made up)",
    index: 0,
    connected: true,
    mapping: "standard",
    timestamp: performance.now(),
    axes: [...axes],
    buttons: Array.from({ length: 17 }, (_, at) => ({ pressed: held.has(at), touched: held.has(at), value: held.has(at) ? 1 : 0 })),
  });
  Object.defineProperty(navigator, "getGamepads", { configurable: true, value: () => [pad(), null, null, null] });
  window.standInController = {
    hold: (...names) => {
      held.clear();
      for (const name of names) {
        if (!Object.hasOwn(NAMES, name)) throw new Error(`a controller has ${Object.keys(NAMES).join(", ")}, not ${name}`);
        held.add(NAMES[name]);
      }
    },
    stick: (x, y) => {
      axes[0] = x;
      axes[1] = y;
    },
  };
})();
