import type { ButtonProps } from "react-bootstrap/Button";
import Button from "react-bootstrap/Button";
import type { IconName } from "./icon.tsx";
import { Icon } from "./icon.tsx";

interface Props extends Omit<ButtonProps, "as" | "children" | "aria-label"> {
  readonly icon: IconName;
  /** What it does, for screen readers; its tooltip too, unless `title` says it shorter or longer. */
  readonly name: string;
}

/** A small button that is a picture only. */
export function BareButton({ icon, name, title = name, variant = "bare", ...more }: Props) {
  return (
    <Button {...more} variant={variant} className="btn-icon" aria-label={name} title={title}>
      <Icon name={icon} />
    </Button>
  );
}
