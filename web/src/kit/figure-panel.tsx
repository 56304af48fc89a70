import type { Figure, World } from "@keen-pebble/core/world";
import Button from "react-bootstrap/Button";
import { WalkingImages } from "../field/walking-images.tsx";
import { FileButton } from "../look/file-button.tsx";
import { Icon } from "../look/icon.tsx";
import { plural } from "../look/plural.ts";
import { session } from "../page-session.ts";
import { KitField } from "./kit-field.tsx";
import { FacingImages } from "./facing-images.tsx";

/** The walker's pictures: chosen by dragging over a sheet, a row or a column for each facing, and seen walking. */
export function FigurePanel({ world }: { readonly world: World }) {
  const { figure } = world;
  return (
    <section className="kit-part" aria-label="Walker's pictures">
      <div className="row-line">
        <h3 className="grow">Walker</h3>
        <FileButton
          name="Sheet with the walker"
          accept=".png"
          variant="bare"
          className="text-button"
          onFiles={([file]) => void session.sheets.bringInSheet(file!)}
        >
          <Icon name="bringIn" /> sheet
        </FileButton>
      </div>
      <WalkingImages world={world} />
      {world.sheets.length === 0 ? (
        <p className="quiet small">The default walker. Bring in a sheet (PNG) to give it pictures of your own.</p>
      ) : (
        <FacingImages world={world} figure={figure} name="the walker" onFigure={session.worldSettings.setFigure} />
      )}
      {figure !== null && <Drawn world={world} figure={figure} />}
    </section>
  );
}

/** How far pictures may be from their cell, in px. */
const FAR = [-512, 512] as const;

/** How many pictures a facing has, where they are drawn, and away with them. */
function Drawn({ world, figure }: { readonly world: World; readonly figure: Figure }) {
  const [x, y] = figure.offset;
  const rules = world.rules.find(({ id }) => id === world.activeRules)!;
  const images = Math.max(...Object.values(figure.images).map((places) => places.length));
  return (
    <>
      <div className="pair">
        <KitField
          label="Right"
          range={FAR}
          unit="px"
          value={x}
          onValue={(next, stroke) => session.worldSettings.setFigureOffset([next, y], stroke)}
        />
        <KitField
          label="Down"
          range={FAR}
          unit="px"
          value={y}
          onValue={(next, stroke) => session.worldSettings.setFigureOffset([x, next], stroke)}
        />
      </div>
      {rules.pose.images !== images && (
        <div className="row-line">
          <span className="grow small">
            {rules.name} goes through {plural(rules.pose.images, "image")}, these are {images}.
          </span>
          <Button variant="plain" onClick={() => session.worldSettings.setPoseImages(images)}>
            Use {images}
          </Button>
        </div>
      )}
      <Button variant="plain" onClick={session.worldSettings.removeFigure}>
        Use the default walker
      </Button>
    </>
  );
}
