import type { Fixture } from "@keen-pebble/core/world";
import type { FixtureDrawing, FixtureLook } from "./fixture-drawing.ts";
import { checkpoint } from "./fixtures/checkpoint.ts";
import { door } from "./fixtures/door.ts";
import { hazard } from "./fixtures/hazard.ts";
import { item } from "./fixtures/item.ts";
import { marker } from "./fixtures/marker.ts";
import { portal } from "./fixtures/portal.ts";
import { switchKind } from "./fixtures/switch.ts";

const SIDE = 16;

const DRAWINGS: { readonly [K in Fixture["kind"]]: FixtureDrawing<Extract<Fixture, { kind: K }>> } = {
  item,
  door,
  hazard,
  checkpoint,
  switch: switchKind,
  portal,
  marker,
};

/** How a kind is drawn. */
export function drawingOf(kind: Fixture["kind"]): FixtureDrawing<Fixture> {
  return DRAWINGS[kind] as FixtureDrawing<Fixture>;
}

const pictures = new Map<string, OffscreenCanvas>();

/** Two looks with the same name are the same picture. */
export function lookName({ kind, on, item }: FixtureLook): string {
  return `${kind} ${on} ${item?.colour ?? ""} ${item?.role ?? ""}`;
}

/** The picture of a fixture, 16 by 16, drawn once for each look. */
export function fixturePicture(look: FixtureLook): OffscreenCanvas {
  const key = lookName(look);
  let picture = pictures.get(key);
  if (picture === undefined) {
    picture = new OffscreenCanvas(SIDE, SIDE);
    drawingOf(look.kind).draw(picture.getContext("2d")!, look);
    pictures.set(key, picture);
  }
  return picture;
}
