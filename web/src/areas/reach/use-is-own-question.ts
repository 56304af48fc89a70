import type { World } from "@keen-pebble/core/world";
import { useStore } from "zustand";
import { session } from "../../page-session.ts";

/** Whether it is asked from the world's start under its default rules: that is what its checks of all play are about. */
export function useIsOwnQuestion({ activeRules }: World): boolean {
  return useStore(
    session.reach.store,
    ({ origin, rules }) => origin === "start" && (rules === null || rules === activeRules),
  );
}
