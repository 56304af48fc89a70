import type { PlaytestSwitch } from "../api.ts";
import type { Services } from "../services/services.ts";
import { worldOf } from "./addresses.ts";
import { SCHEMAS } from "./api-schemas.ts";
import type { Route } from "./route.ts";
import { jsonOf } from "./route.ts";

/** `/worlds/{world}/playtest`: the link at which others can play a world. */
export function playtestRoutes({ playtests }: Pick<Services, "playtests">): Route[] {
  return [
    {
      method: "get",
      path: "/worlds/{world}/playtest",
      operation: "getPlaytest",
      summary: "Whether a world can be played from outside, and at which address",
      status: 200,
      answer: { json: "PlaytestLink" },
      problems: [404],
      handle: async (req, res) => {
        res.json(await playtests.link(worldOf(req)));
      },
    },
    {
      method: "put",
      path: "/worlds/{world}/playtest",
      operation: "switchPlaytest",
      summary: "Switches the link of a world on, at a new address, or off",
      body: { schema: "PlaytestSwitch", max: 1024 },
      often: 100,
      status: 200,
      answer: { json: "PlaytestLink" },
      problems: [404],
      handle: async (req, res) => {
        res.json(await playtests.switch(worldOf(req), jsonOf<PlaytestSwitch>(req, SCHEMAS.PlaytestSwitch).on));
      },
    },
  ];
}
