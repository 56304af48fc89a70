import type { ReactNode } from "react";
import { useId } from "react";
import type { FormControlProps } from "react-bootstrap/FormControl";
import Form from "react-bootstrap/Form";

interface Props
  extends
    Omit<FormControlProps, "id" | "className">,
    Pick<
      React.InputHTMLAttributes<HTMLInputElement>,
      "maxLength" | "spellCheck" | "inputMode" | "min" | "max" | "title" | "placeholder" | "autoComplete"
    > {
  readonly label: string;
  /** The label is said and not shown. */
  readonly quietLabel?: boolean;
  /** Of the whole field. */
  readonly className?: string;
  /** Of the text in it. */
  readonly face?: string;
  /** What stands behind the text: a unit, a count. */
  readonly children?: ReactNode;
}

/** A text with its label inside. What else is said goes to the control. */
export function TextField({ label, quietLabel = false, className = "", face = "", children, ...control }: Props) {
  const id = useId();
  return (
    <div className={`labelled ${className}`}>
      <Form.Label htmlFor={id} className={quietLabel ? "visually-hidden" : "name"}>
        {label}
      </Form.Label>
      <Form.Control autoComplete="off" {...control} id={id} className={face} />
      {children}
    </div>
  );
}

/** For `onKeyDown`: Enter takes what was typed, as leaving the field does. */
export function leaveOnEnter(event: React.KeyboardEvent<HTMLElement>): void {
  if (event.key === "Enter") event.currentTarget.blur();
}
