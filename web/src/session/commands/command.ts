/** One act: answers whether it is possible now, and does it. Buttons and keys share it. */
export interface Command {
  readonly name: string;
  readonly keys: readonly string[];
  readonly can: () => boolean;
  readonly act: () => void;
  /** Listens to what may change whether it is possible; gives back what stops that. */
  readonly onChange: (listener: () => void) => () => void;
}

/** The commands of an area. */
export type Commands = Readonly<Record<string, Command>>;

/** A table of commands, all of which follow the same. */
export function following<T extends Readonly<Record<string, Omit<Command, "onChange">>>>(
  onChange: Command["onChange"],
  table: T,
): { readonly [K in keyof T]: Command } {
  return Object.fromEntries(
    Object.entries(table).map(([key, command]) => [key, { ...command, onChange }]),
  ) as unknown as { readonly [K in keyof T]: Command };
}

/** For acts that are possible at any time. */
export const always = (): boolean => true;

/** The command of an area that a key stands for, if it can act now. */
export function commandFor(commands: Commands, key: string): Command | null {
  return Object.values(commands).find((command) => command.keys.includes(key) && command.can()) ?? null;
}
