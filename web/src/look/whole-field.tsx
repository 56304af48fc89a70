import { NumberField } from "./number-field.tsx";

interface Props {
  readonly label: string;
  /** Both ends included. */
  readonly range: readonly [min: number, max: number];
  readonly unit?: string;
  readonly value: number;
  /** Takes a new value; `stroke` names the drag on the label that it belongs to. */
  readonly onValue: (value: number, stroke?: string) => void;
  readonly onStrokeEnd?: () => void;
}

/** A whole number, stepped by one; any in its range is taken. */
export function WholeField({ range: [min, max], onValue, onStrokeEnd = () => undefined, ...rest }: Props) {
  return (
    <NumberField
      {...rest}
      range={{ min, max, whole: true }}
      step={1}
      onValue={(value, stroke) => (stroke === null ? onValue(value) : onValue(value, stroke), true)}
      onStrokeEnd={onStrokeEnd}
    />
  );
}
