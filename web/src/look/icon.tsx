const PATHS = {
  undo: "M6 4 3 7l3 3M3 7h6a4 4 0 0 1 0 8H8",
  redo: "M10 4l3 3-3 3M13 7H7a4 4 0 0 0 0 8h1",
  again: "M13 8a5 5 0 1 1-1.6-3.7M13 2.5v2.6h-2.6",
  dark: "M13 9.5A5.5 5.5 0 1 1 6.5 3a4.5 4.5 0 0 0 6.5 6.5z",
  light:
    "M8 5.5a2.5 2.5 0 1 0 0 5 2.5 2.5 0 0 0 0-5zM8 1.5v1.5M8 13v1.5M1.5 8H3M13 8h1.5M3.4 3.4l1 1M11.6 11.6l1 1M3.4 12.6l1-1M11.6 4.4l1-1",
  help: "M5.6 6a2.5 2.5 0 1 1 3.4 2.3c-.7.3-1 .8-1 1.7M8 13v.2",
  walk: "M4.8 1.8c1.4 0 2 1.4 1.8 3L6.2 7.6H3.8L3.2 4.8c-.2-1.6.2-3 1.6-3zM3.9 9.2h2.3c.2 1.3-.2 2-1.1 2s-1.4-.7-1.2-2zM11.2 4.8c-1.4 0-2 1.4-1.8 3l.4 2.8h2.4l.6-2.8c.2-1.6-.2-3-1.6-3zM12.1 12.2H9.8c-.2 1.3.2 2 1.1 2s1.4-.7 1.2-2z",
  brush: "M3 3h7v7H3zM12 6v6H6",
  line: "M3 13 13 3M2 12h2v2H2zM12 2h2v2h-2z",
  box: "M2.5 3.5h11v9h-11zM2.5 8h11M8 3.5v9",
  boxFrame: "M2.5 3.5h11v9h-11zM5.5 6.5h5v3h-5z",
  bucket: "M3 8.5 8 3.5l5 5-5 5zM3 8.5h10M13.5 11c.9 1.3.9 2.3 0 2.5-.9-.2-.9-1.2 0-2.5z",
  erase: "M6 13.5 2.5 10 9 3.5 13.5 8 8 13.5zM5.5 7l4.5 4.5M6 13.5h8",
  wall: "M2 11.5 11.5 2l2.5 2.5L4.5 14zM5.2 8.4l2.4 2.4M8.3 5.2l2.4 2.4",
  select: "M2.5 5.5v-3h3M8 2.5h2M13.5 5.5v-3h-2M13.5 8v2M13.5 11.5v2h-3M8 13.5H6M2.5 10.5v3h2M2.5 7v1",
  place:
    "M8 14.2c-3-3.4-4.6-5.6-4.6-7.8a4.6 4.6 0 0 1 9.2 0c0 2.2-1.6 4.4-4.6 7.8zM8 8.2a1.9 1.9 0 1 0 0-3.8 1.9 1.9 0 0 0 0 3.8z",
  solid: "M2.5 13.5v-11l11 11z",
  clearance: "M2.5 2.5h3v11h-3zM10.5 2.5h3v11h-3zM8 6v4M7 7l1-1 1 1M7 9l1 1 1-1",
  grid: "M2.5 6h11M2.5 10h11M6 2.5v11M10 2.5v11",
  body: "M5 5h6v6H5zM2.5 4.5v-2h2M11.5 2.5h2v2M13.5 11.5v2h-2M4.5 13.5h-2v-2",
  velocity: "M2.5 13.5 12 4M7 3.5h5.5V9",
  trail: "M2.5 12.5h4v-5h4v-4h3",
  camera: "M2.5 4.5h7v7h-7zM9.5 7.2l4-2.2v6l-4-2.2",
  ghost: "M2.5 11h1.5M6 11h1.5V9M7.5 7V5H9M11 5h2.5",
  sound: "M3 6.5v3h2.5L9 12.5v-9L5.5 6.5zM11 6c.9 1.2.9 2.8 0 4M12.8 4.2c2 2.3 2 5.3 0 7.6",
  fit: "M3 6V3h3M10 3h3v3M13 10v3h-3M6 13H3v-3",
  first: "M4 3.5v9M12 3.5 6.5 8l5.5 4.5z",
  back: "M10.5 3.5 5 8l5.5 4.5",
  forward: "M5.5 3.5 11 8l-5.5 4.5",
  play: "M4.5 3 12.5 8l-8 5z",
  pause: "M5.5 3.5v9M10.5 3.5v9",
  check: "M3 8.5 6.5 12 13 4.5",
  waiting: "M8 3.2v5l3 2M8 14.2A6.2 6.2 0 1 1 8 1.8a6.2 6.2 0 0 1 0 12.4z",
  attention: "M8 2.5 14 13.5H2zM8 6.5v3.5M8 11.9v.1",
  search: "M7 11.5A4.5 4.5 0 1 0 7 2.5a4.5 4.5 0 0 0 0 9zM10.4 10.4 14 14",
  copy: "M6 5.5h7.5v8H6zM10.5 5.5v-3H3v8h3",
  takeHome: "M8 2.5v7.5M4.8 7 8 10.2 11.2 7M3 13.5h10",
  bringIn: "M8 10.5V3M4.8 6 8 2.8 11.2 6M3 13.5h10",
  bin: "M3 4.5h10M6.5 4.5v-2h3v2M4.5 4.5l.6 9h5.8l.6-9M6.8 7v4M9.2 7v4",
  pen: "M3 13l.8-3 7-7 2.2 2.2-7 7zM9.4 4.4l2.2 2.2",
  file: "M4 2.5h5.5L12.5 5.5v8H4zM9.5 2.5v3h3",
  plus: "M8 3v10M3 8h10",
  minus: "M3 8h10",
  more: "M3.5 8v0M8 8v0M12.5 8v0",
  open: "M6.5 3.5H3.5v9h9v-3M9 3h4v4M13 3 7.5 8.5",
  close: "M4 4l8 8M12 4l-8 8",
} as const;

export type IconName = keyof typeof PATHS;

/** A line icon on 16 by 16, in the colour of its text. */
export function Icon({ name }: { name: IconName }) {
  return (
    <svg className="icon" viewBox="0 0 16 16" aria-hidden="true">
      <path d={PATHS[name]} />
    </svg>
  );
}
