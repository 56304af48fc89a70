import type { DecodedPng } from "fast-png";
import { convertIndexedToRgb, decode, encode } from "fast-png";
import { RefusedError } from "../errors/refused-error.ts";
import type { Pixels } from "./room-pixels.ts";

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] as const;

/** The size that a PNG says it has, read from its head alone; null where it is no PNG. */
export function pngSize(bytes: Uint8Array): { readonly width: number; readonly height: number } | null {
  if (bytes.length < 33 || SIGNATURE.some((byte, i) => bytes[i] !== byte)) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return view.getUint32(12) === 0x49484452 ? { width: view.getUint32(16), height: view.getUint32(20) } : null;
}

/**
 * Decodes a PNG, whatever its kind of colour.
 * @param most largest width and height; a larger one is refused before anything is unpacked
 * @throws {RefusedError} saying what is wrong with it
 */
export function readPng(bytes: Uint8Array, most: number, name = "the picture"): Pixels {
  const refuse = (message: string): never => {
    throw new RefusedError(name, [{ place: "", line: null, column: null, message }]);
  };
  const size = pngSize(bytes) ?? refuse("is no PNG");
  if (size.width < 1 || size.height < 1 || size.width > most || size.height > most) refuse(`has ${size.width}x${size.height} pixels; it may have 1x1 to ${most}x${most}`);
  try {
    const decoded = decode(bytes, { checkCrc: true });
    return { width: decoded.width, height: decoded.height, rgba: rgbaOf(decoded, refuse) };
  } catch (error) {
    if (error instanceof RefusedError) throw error;
    return refuse(`is a broken PNG: ${(error as Error).message}`);
  }
}

function rgbaOf(decoded: DecodedPng, refuse: (message: string) => never): Uint8Array {
  const { width, height, depth, palette } = decoded;
  let { data, channels } = decoded;
  if (palette) {
    data = convertIndexedToRgb(decoded);
    channels = palette[0]?.length ?? 3;
  } else if (depth < 8) refuse(`has ${depth} bits a colour; save it with 8`);
  if (data.length < width * height * channels) refuse("is a broken PNG: pixels are missing");
  const shift = depth === 16 ? 8 : 0;
  const rgba = new Uint8Array(width * height * 4);
  for (let i = 0, at = 0; i < rgba.length; i += 4, at += channels) {
    const grey = channels < 3;
    const red = data[at]! >> shift;
    rgba[i] = red;
    rgba[i + 1] = grey ? red : data[at + 1]! >> shift;
    rgba[i + 2] = grey ? red : data[at + 2]! >> shift;
    rgba[i + 3] = channels % 2 === 0 ? data[at + channels - 1]! >> shift : 255;
  }
  return rgba;
}

/** A picture as a PNG of 8 bits a colour with alpha. */
export function writePng({ width, height, rgba }: Pixels): Uint8Array {
  return encode({ width, height, data: rgba, channels: 4, depth: 8 });
}
