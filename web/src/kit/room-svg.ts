import type { Room, World } from "@keen-pebble/core/world";
import { pixelColours } from "@keen-pebble/core/formats";

/** A room as an SVG: a rectangle for each run of cells of one tile, and the outlines of what is solid in part. */
export function roomSvg(world: World, room: Room): string {
  const t = world.tileSize;
  const colours = pixelColours(world.tiles);
  const parts: string[] = [];
  for (let y = 0; y < room.height; y++) {
    for (let x = 0; x < room.width;) {
      const tile = room.cells[y * room.width + x]!;
      let end = x + 1;
      while (end < room.width && room.cells[y * room.width + end] === tile) end++;
      parts.push(`<rect x="${x * t}" y="${y * t}" width="${(end - x) * t}" height="${t}" fill="${colours[tile]!}"/>`);
      x = end;
    }
  }
  room.cells.forEach((tile, i) => {
    const { shape } = world.tiles[tile]!;
    const [x, y] = [(i % room.width) * t, Math.floor(i / room.width) * t];
    if (shape.kind === "poly")
      parts.push(
        `<polygon points="${shape.points.map(([px, py]) => `${x + px},${y + py}`).join(" ")}" fill="none" stroke="#22262b"/>`,
      );
    if (shape.kind === "boxes")
      for (const [bx, by, w, h] of shape.boxes)
        parts.push(`<rect x="${x + bx}" y="${y + by}" width="${w}" height="${h}" fill="none" stroke="#22262b"/>`);
  });
  const title = room.name.replace(/[&<>]/g, (sign) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;" })[sign]!);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${room.width * t} ${room.height * t}" shape-rendering="crispEdges">\n<title>${title}</title>\n${parts.join("\n")}\n</svg>\n`;
}
