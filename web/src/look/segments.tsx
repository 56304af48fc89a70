import { useId } from "react";
import ToggleButton from "react-bootstrap/ToggleButton";
import ToggleButtonGroup from "react-bootstrap/ToggleButtonGroup";

interface Props<V extends string> {
  readonly label: string;
  /** Null: none of them. */
  readonly value: V | null;
  readonly choices: readonly {
    readonly value: V;
    readonly name: string;
    readonly disabled?: boolean;
    readonly title?: string;
  }[];
  readonly className?: string;
  readonly onValue: (value: V) => void;
}

/** One of a few, side by side; the arrow keys go from one to the next. */
export function Segments<V extends string>({ label, value, choices, className = "", onValue }: Props<V>) {
  const id = useId();
  return (
    <ToggleButtonGroup
      type="radio"
      role="radiogroup"
      aria-label={label}
      name={id}
      className={`segments ${className}`}
      value={value}
      onChange={(chosen: V) => onValue(chosen)}
    >
      {choices.map(({ value: each, name, disabled = false, title }) => (
        <ToggleButton key={each} id={`${id}${each}`} value={each} disabled={disabled} title={title} variant="segment">
          {name}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
