/** One act: answers whether it is possible now, and does it. Buttons and keys share it. */
export interface Command {
  readonly name: string;
  readonly keys: readonly string[];
  readonly can: () => boolean;
  readonly act: () => void;
}

/** The commands of an area. */
export type Commands = Readonly<Record<string, Command>>;

/** For acts that are possible at any time. */
export const always = (): boolean => true;

/** The command of an area that a key stands for, if it can act now. */
export function commandFor(commands: Commands, key: string): Command | null {
  return Object.values(commands).find((command) => command.keys.includes(key) && command.can()) ?? null;
}
