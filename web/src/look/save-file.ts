/** Hands a file to the browser to save. */
export function saveFile(name: string, content: string | Blob): void {
  const link = document.createElement("a");
  const address = URL.createObjectURL(
    typeof content === "string" ? new Blob([content], { type: "text/plain" }) : content,
  );
  link.href = address;
  link.download = name;
  link.click();
  // Not at once: the browser must have begun to read it.
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}
