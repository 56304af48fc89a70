import { useId } from "react";
import Form from "react-bootstrap/Form";

/** Something that is on or off, the label inside. */
export function ToggleField({
  label,
  value,
  onValue,
}: {
  readonly label: string;
  readonly value: boolean;
  readonly onValue: (value: boolean) => void;
}) {
  return (
    <Form.Check
      type="switch"
      role="switch"
      id={useId()}
      className="labelled toggle"
      label={label}
      checked={value}
      onChange={(event) => onValue(event.target.checked)}
    />
  );
}
