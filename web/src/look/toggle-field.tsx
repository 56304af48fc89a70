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
    <button
      type="button"
      role="switch"
      aria-checked={value}
      className="labelled toggle"
      onClick={() => onValue(!value)}
    >
      {label}
      <span className="switch" aria-hidden="true" />
    </button>
  );
}
