import { useId } from "react";
import Form from "react-bootstrap/Form";

interface Props {
  readonly label: string;
  readonly value: string;
  /** Values, or values with what they are called. */
  readonly choices: readonly (string | readonly [value: string, name: string])[];
  readonly disabled?: boolean;
  readonly onValue: (value: string) => void;
}

/** A choice among a few words, the label inside. */
export function SelectField({ label, value, choices, disabled = false, onValue }: Props) {
  const id = useId();
  return (
    <div className="labelled">
      <Form.Label htmlFor={id}>{label}</Form.Label>
      <Form.Select id={id} value={value} disabled={disabled} onChange={(event) => onValue(event.target.value)}>
        {choices.map((choice) => {
          const [each, name] = typeof choice === "string" ? [choice, choice] : choice;
          return (
            <option key={each} value={each}>
              {name}
            </option>
          );
        })}
      </Form.Select>
    </div>
  );
}
