import { session } from "../page-session.ts";
import type { Look, Pattern, World } from "@keen-pebble/core/world";
import { PATTERNS } from "@keen-pebble/core/world";
import { useRef } from "react";
import Form from "react-bootstrap/Form";
import { SheetPlace } from "./sheet-place.tsx";
import { Segments } from "../look/segments.tsx";
import { TextField } from "../look/text-field.tsx";

interface Props {
  readonly world: World;
  readonly look: Look;
  readonly name: string;
  /** Whether it may have a pattern: what covers a whole cell. */
  readonly patterned?: boolean;
  /** A row of changes in one stroke is undone as one. */
  readonly onLook: (look: Look, stroke?: string) => void;
}

/** One look: a colour, a pattern over it, or a place in an image sheet. */
export function LookFields({ world, look, name, patterned = true, onLook }: Props) {
  const kind = "sheet" in look ? "image" : look.pattern ? "pattern" : "colour";
  const fill = "fill" in look ? look.fill : "#8d7f6f";
  const stroke = useRef("");
  const choose = (next: string): void => {
    const sheet = world.sheets[0];
    if (next === "colour") onLook({ fill });
    else if (next === "pattern") onLook({ fill, pattern: "flagstone" });
    else if (sheet) onLook({ sheet: sheet.id, at: [0, 0] });
  };
  return (
    <>
      <Segments
        label={`Kind of ${name}`}
        value={kind}
        choices={[
          { value: "colour", name: "Colour" },
          ...(patterned ? [{ value: "pattern", name: "Pattern" }] : []),
          world.sheets.length === 0
            ? { value: "image", name: "Image", disabled: true, title: "Bring in an image sheet first" }
            : { value: "image", name: "Image" },
        ]}
        onValue={choose}
      />
      {"fill" in look && (
        <div className="row-line">
          <TextField
            type="color"
            label="Colour"
            className="colour grow"
            aria-label={`Colour of ${name}`}
            value={look.fill}
            onFocus={() => (stroke.current = crypto.randomUUID())}
            onChange={(event) => onLook({ ...look, fill: event.target.value }, stroke.current)}
            onBlur={session.project.endStroke}
          />
          {look.pattern && (
            <Form.Select
              aria-label={`Pattern of ${name}`}
              value={look.pattern}
              onChange={(event) => onLook({ fill: look.fill, pattern: event.target.value as Pattern })}
            >
              {PATTERNS.map((pattern) => (
                <option key={pattern} value={pattern}>
                  {pattern}
                </option>
              ))}
            </Form.Select>
          )}
        </div>
      )}
      {"sheet" in look && <SheetPlace world={world} look={look} onLook={onLook} />}
    </>
  );
}
