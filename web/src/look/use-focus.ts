import type { RefObject } from "react";
import { useEffect, useRef } from "react";

/** Gives a field the keyboard once it is there, also where the menu that it was opened from gives it back to its button. */
export function useFocus<T extends HTMLElement>(): RefObject<T | null> {
  const field = useRef<T>(null);
  useEffect(() => {
    const soon = requestAnimationFrame(() => field.current?.focus());
    return () => cancelAnimationFrame(soon);
  }, []);
  return field;
}
