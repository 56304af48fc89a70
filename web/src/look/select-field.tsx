import { useId } from "react";

interface Props {
  readonly label: string;
  readonly value: string;
  readonly choices: readonly string[];
  readonly onValue: (value: string) => void;
}

/** A choice among a few words, the label inside. */
export function SelectField({ label, value, choices, onValue }: Props) {
  const id = useId();
  return (
    <div className="labelled">
      <label htmlFor={id}>{label}</label>
      <select id={id} value={value} onChange={(event) => onValue(event.target.value)}>
        {choices.map((choice) => (
          <option key={choice} value={choice}>
            {choice}
          </option>
        ))}
      </select>
    </div>
  );
}
