import { useEffect, useRef } from "react";
import Button from "react-bootstrap/Button";
import { useStore } from "zustand";
import { onWalkerLoaded } from "../field/walker-art.ts";
import { FixtureImage } from "../field/fixture-image.tsx";
import type { Remembered } from "@keen-pebble/core/simulate";
import type { World } from "@keen-pebble/core/world";
import { ENDINGS } from "./endings.ts";
import type { Game } from "./game.ts";
import { PlayPainter } from "./play-painter.ts";
import { PlaySession } from "./play-session.ts";
import { TellForm } from "./tell-form.tsx";
import { TouchPad } from "./touch-pad.tsx";

const session = new PlaySession();

/** A playtest: the game, and a way to say what one thinks of it. */
export function PlayPage() {
  const { fault, game, isOver, phase, world } = useStore(session.store);
  useEffect(() => session.controls.listen(), []);
  useEffect(() => void session.start(), []);
  useEffect(() => {
    if (world !== null) document.title = `${world.name}, playtest`;
  }, [world]);
  if (phase === "loading") return <p className="play-none quiet">loading</p>;
  if (phase === "closed" || world === null || game === null)
    return (
      <main className="play-none">
        <h1>Playtest</h1>
        <p role="alert">{fault}</p>
      </main>
    );
  return (
    <div className="play">
      <header>
        <h1 title={world.name}>{world.name}</h1>
        <Held world={world} />
        <span className="grow" />
        <Button variant="plain" onClick={session.begin}>
          Start over
        </Button>
        <Button variant="main" disabled={phase !== "playing"} onClick={session.tell}>
          Say what you think
        </Button>
      </header>
      <main>
        <PlayField game={game} />
        {phase === "playing" && <TouchPad controls={session.controls} />}
        {(phase === "telling" || phase === "sending") && (
          <TellForm
            ending={isOver ? (ENDINGS[game.status] ?? "You may play no longer.") : null}
            fault={fault}
            isSending={phase === "sending"}
            onSend={(name, opinion) => void session.send(name, opinion)}
            onGoOn={isOver ? null : session.goOn}
            onAgain={session.begin}
          />
        )}
        {phase === "sent" && (
          <section className="tell" aria-label="Sent">
            <p role="status">Sent, with what you pressed. Thank you.</p>
            <Button variant="main" autoFocus onClick={session.begin}>
              Play again
            </Button>
          </section>
        )}
      </main>
      <footer className="quiet">
        Arrow keys or WASD walk, E or Space acts. A game controller works, too, and so do fingers.
      </footer>
    </div>
  );
}

/** What the walker holds, and its lives where they are counted. */
function Held({ world }: { readonly world: World }) {
  const remembered = useStore(session.store, (state) => state.remembered);
  if (remembered === null) return null;
  return (
    <ul className="held" aria-label="What you hold">
      {remembered.lives !== null && <li>{lives(remembered)}</li>}
      {world.items.map((item, i) =>
        remembered.bag[i]! > 0 ? (
          <li key={item.id} title={item.name}>
            <FixtureImage look={{ kind: "item", on: false, item }} size={16} />
            <span className="visually-hidden">{item.name}</span>
            <span className="mono">{remembered.bag[i]}</span>
          </li>
        ) : null,
      )}
    </ul>
  );
}

const lives = ({ lives: left }: Remembered): string => `${left ?? 0} ${left === 1 ? "life" : "lives"}`;

/** What the player sees. */
function PlayField({ game }: { readonly game: Game }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const images = useStore(session.store, (state) => state.images);
  useEffect(() => {
    if (canvas.current === null) return;
    const painter = new PlayPainter(canvas.current, game, images);
    const paint = (): void => painter.paint();
    session.draw = paint;
    const sizes = new ResizeObserver(paint);
    sizes.observe(canvas.current);
    const stop = onWalkerLoaded(paint);
    const place = ({ offsetX, offsetY }: MouseEvent): void => {
      const { left, top, zoom } = painter.view;
      session.pointer = { x: Math.floor((offsetX - left) / zoom), y: Math.floor((offsetY - top) / zoom) };
    };
    const element = canvas.current;
    element.addEventListener("pointermove", place);
    paint();
    return () => {
      element.removeEventListener("pointermove", place);
      sizes.disconnect();
      stop();
      session.draw = null;
    };
  }, [game, images]);
  return <canvas ref={canvas} className="play-field" role="img" aria-label={`${game.world.name}, the game`} />;
}
