import { useEffect, useRef } from "react";
import { FieldPainter } from "../../field/field-painter.ts";

/** The shown frame of the shown log from near, the walker in the middle; it draws itself. */
export function CloseUp() {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const painter = new FieldPainter(canvas.current!, true);
    return () => painter.stop();
  }, []);
  return <canvas ref={canvas} className="close-up" aria-hidden="true" />;
}
