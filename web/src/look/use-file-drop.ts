import { useRef, useState } from "react";
import { droppedFiles } from "../session/elsewhere/taken-file.ts";

/**
 * Files dropped on an element.
 * @param onFiles the files, and the element under the pointer
 * @returns whether files are held over it, and its handlers
 */
export function useFileDrop(onFiles: (files: readonly File[], target: HTMLElement | null) => void) {
  const [over, setOver] = useState(false);
  // Entering a child leaves its parent: only the last one out counts.
  const depth = useRef(0);
  const hasFiles = (event: React.DragEvent): boolean => event.dataTransfer.types.includes("Files");
  return {
    over,
    handlers: {
      onDragEnter: (event: React.DragEvent) => {
        if (!hasFiles(event)) return;
        depth.current++;
        setOver(true);
      },
      onDragOver: (event: React.DragEvent) => {
        if (hasFiles(event)) event.preventDefault();
      },
      onDragLeave: (event: React.DragEvent) => {
        if (hasFiles(event) && --depth.current <= 0) setOver(false);
      },
      onDrop: (event: React.DragEvent) => {
        if (!hasFiles(event)) return;
        event.preventDefault();
        depth.current = 0;
        setOver(false);
        onFiles(droppedFiles(event.dataTransfer), event.target instanceof HTMLElement ? event.target : null);
      },
    },
  };
}
