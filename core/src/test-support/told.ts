/** Prints how many runs of a property really did what it is about: a property over runs that do nothing proves nothing. */
export function told(property: string, counts: Readonly<Record<string, number>>): void {
  console.info(
    `${property}: ${Object.entries(counts)
      .map(([what, count]) => `${count} ${what}`)
      .join(", ")}`,
  );
}
