/** A name from outside within a comment or a heading: on one line. */
export function oneLine(name: string): string {
  return name.replace(/[\u0000-\u001f\u007f-\u009f\u2028\u2029]/g, " ");
}
