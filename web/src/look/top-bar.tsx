import { useSyncExternalStore } from "react";
import type { ReactNode } from "react";
import { Link, useLocation } from "react-router";
import { showActs } from "./act-finder.tsx";
import { onThemeChange, switchTheme, themeInUse } from "./theme.ts";
import { Wordmark } from "./wordmark.tsx";
import { WorldSwitch } from "./world-switch.tsx";
import "./top-bar.css";
import { BareButton } from "./bare-button.tsx";
import { SkipLink } from "./skip-link.tsx";

/** The areas of one world, by the ends of their addresses. */
export const WORLD_AREAS = ["bench", "floorplan", "reach", "proofs", "journal"] as const;
export type WorldArea = (typeof WORLD_AREAS)[number];

interface Props {
  /** The area that is shown. */
  readonly area: WorldArea | "shelf";
  /** The open world; its name is null until it is there. */
  readonly world?: { readonly id: string; readonly name: string | null } | null;
  /** What stands beside the name of Proofs. */
  readonly proofs?: ReactNode;
  /** How saving stands, undo and redo. */
  readonly tools: ReactNode;
}

/** Wordmark, world, areas, how saving stands, undo and help. */
export function TopBar({ area, world = null, proofs, tools }: Props) {
  // Room, log and frame go along from area to area.
  const { search } = useLocation();
  return (
    <header className="top">
      <SkipLink />
      <Link to="/" className="home" aria-label="Keen Pebble, to the Shelf">
        <Wordmark />
        <span className="product">Keen Pebble</span>
      </Link>
      {world !== null && world.name !== null && <WorldSwitch worldId={world.id} name={world.name} area={area} />}
      <nav className="areas" aria-label="Areas">
        <Link to="/" aria-current={area === "shelf" ? "page" : undefined}>
          Shelf
        </Link>
        {world !== null &&
          WORLD_AREAS.map((each) => (
            <Link key={each} to={`/w/${world.id}/${each}${search}`} aria-current={area === each ? "page" : undefined}>
              {each[0]!.toUpperCase()}
              {each.slice(1)} {each === "proofs" && proofs}
            </Link>
          ))}
      </nav>
      <span className="grow" />
      {tools}
      <ThemeButton />
    </header>
  );
}

/** Draws the page in the other theme. */
function ThemeButton() {
  const theme = useSyncExternalStore(onThemeChange, themeInUse);
  const other = theme === "dark" ? "Light theme" : "Dark theme";
  return <BareButton icon={theme === "dark" ? "light" : "dark"} name={other} title={other} onClick={switchTheme} />;
}

/** Opens the list of acts and keys. */
export function HelpButton() {
  return <BareButton icon="help" name="Commands and keys" title="Commands and keys (? or Ctrl K)" onClick={showActs} />;
}
