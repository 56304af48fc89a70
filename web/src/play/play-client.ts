import type { KeptPlay, NewPlay, PlaytestGame } from "@keen-pebble/server/api";
import { fromPlain } from "@keen-pebble/core/formats";
import type { World } from "@keen-pebble/core/world";
import { answerOf, jsonBody } from "../session/project/server-answer.ts";

/** `/play/TOKEN`, of which this page is. */
const base = (): string => window.location.pathname.replace(/\/$/, "");

/** The world of the link as it is now. */
export async function readGame(): Promise<{ readonly revision: number; readonly world: World }> {
  const { revision, world } = await answerOf<PlaytestGame>(`${base()}/game`);
  return { revision, world: fromPlain(world) };
}

/** Sends what was played. */
export const sendPlay = (play: NewPlay): Promise<KeptPlay> =>
  answerOf<KeptPlay>(`${base()}/plays`, jsonBody("POST", play));

/** The pictures of a world's sheets, by their ids; those that cannot be had are missing. */
export async function readSheets({ sheets }: World): Promise<ReadonlyMap<string, ImageBitmap>> {
  const read = sheets.map(async ({ file, id }) => {
    const response = await fetch(`${base()}/sheets/${encodeURIComponent(file)}`).catch(() => null);
    if (!response?.ok) return null;
    const options = { premultiplyAlpha: "none", colorSpaceConversion: "none" } as const;
    const image = await createImageBitmap(await response.blob(), options).catch(() => null);
    return image && ([id, image] as const);
  });
  return new Map((await Promise.all(read)).filter((each) => each !== null));
}
