import type { ComponentProps } from "react";
import { WholeField } from "../look/whole-field.tsx";
import { session } from "../page-session.ts";

/** A whole number of the world: a drag on its label is undone as one. */
export function KitField(props: Omit<ComponentProps<typeof WholeField>, "onStrokeEnd">) {
  return <WholeField {...props} onStrokeEnd={session.project.endStroke} />;
}
