import Button from "react-bootstrap/Button";
import { useCan } from "../look/use-commands.ts";
import type { IconName } from "./icon.tsx";
import { Icon } from "./icon.tsx";
import { keyText } from "../session/commands/keys.ts";
import type { Command } from "../session/commands/command.ts";

/** A command as a button with a picture: named for screen readers, its key in the tooltip. */
export function IconButton({
  command,
  icon,
  variant = "bare",
  pressed,
  badge,
}: {
  readonly command: Command;
  readonly icon: IconName;
  readonly variant?: string;
  readonly pressed?: boolean;
  readonly badge?: string | undefined;
}) {
  const title = `${command.name} (${command.keys.map(keyText).join(", ")})`;
  return (
    <Button
      variant={variant}
      className={`btn-icon${pressed ? " active" : ""}`}
      title={title}
      aria-label={command.name}
      aria-pressed={pressed}
      disabled={!useCan(command)}
      onClick={command.act}
    >
      <Icon name={icon} />
      {badge !== undefined && (
        <span className="badge-number" aria-hidden="true">
          {badge}
        </span>
      )}
    </Button>
  );
}
