import { useSyncExternalStore } from "react";

/** How wide the page is, in CSS px; the component draws again when that changes. */
export const usePageWidth = (): number => useSyncExternalStore(followWidth, pageWidth);

/** How wide the page is now, in CSS px. */
export const pageWidth = (): number => window.innerWidth;

function followWidth(changed: () => void): () => void {
  window.addEventListener("resize", changed);
  return () => window.removeEventListener("resize", changed);
}
