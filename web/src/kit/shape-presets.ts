import type { Shape } from "@keen-pebble/core/world";

/** Common shapes of a cell, by their names. */
export function shapePresets(size: number): readonly { readonly name: string; readonly shape: Shape }[] {
  const half = Math.floor(size / 2);
  const poly = (...points: [number, number][]): Shape => ({ kind: "poly", points });
  const boxes = (...list: [number, number, number, number][]): Shape => ({ kind: "boxes", boxes: list });
  return [
    { name: "Lower half", shape: boxes([0, half, size, size - half]) },
    { name: "Upper half", shape: boxes([0, 0, size, half]) },
    { name: "Left half", shape: boxes([0, 0, half, size]) },
    { name: "Right half", shape: boxes([half, 0, size - half, size]) },
    { name: "Slope, north-west solid", shape: poly([0, 0], [size, 0], [0, size]) },
    { name: "Slope, north-east solid", shape: poly([0, 0], [size, 0], [size, size]) },
    { name: "Slope, south-east solid", shape: poly([size, 0], [size, size], [0, size]) },
    { name: "Slope, south-west solid", shape: poly([0, 0], [size, size], [0, size]) },
    { name: "Gentle slope, low", shape: poly([0, size], [size, half], [size, size]) },
    { name: "Gentle slope, high", shape: poly([0, half], [size, 0], [size, size], [0, size]) },
  ];
}
