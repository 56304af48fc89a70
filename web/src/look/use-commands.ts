import { useEffect, useSyncExternalStore } from "react";
import type { Command, Commands } from "../session/commands/command.ts";
import { commandFor } from "../session/commands/command.ts";
import { isForItself, isTyping, keyOf } from "../session/commands/keys.ts";

/** Whether a command can be used now; the component draws again when that changes. */
export const useCan = (command: Command): boolean => useSyncExternalStore(command.onChange, command.can);

const NOTHING_ELSE = (): boolean => false;

/**
 * Gives an area's commands their keys, outside of fields and dialogs.
 * @param isBusy whether something else takes the keys now: somebody walks, say
 */
export function useCommandKeys(commands: Commands, isBusy: () => boolean = NOTHING_ELSE): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      if (isTyping(event) || isBusy() || document.querySelector(".modal.show")) return;
      const key = keyOf(event);
      if (isForItself(event, key)) return;
      const command = commandFor(commands, key);
      if (command === null) return;
      event.preventDefault();
      command.act();
    };
    window.addEventListener("keydown", press);
    return () => window.removeEventListener("keydown", press);
  }, [commands, isBusy]);
}
