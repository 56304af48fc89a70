import type { DecodedPng } from "fast-png";
import { convertIndexedToRgb, decode, encode } from "fast-png";
import { Unzlib } from "fflate";
import { RefusedError } from "../base/refused-error.ts";
import type { Pixels } from "./room-pixels.ts";

const SIGNATURE = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a] as const;

/** The size that a PNG says it has, read from its head alone; null where it is no PNG. */
export function pngSize(bytes: Uint8Array): { readonly width: number; readonly height: number } | null {
  if (bytes.length < 33 || SIGNATURE.some((byte, i) => bytes[i] !== byte)) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return view.getUint32(12) === 0x49484452 ? { width: view.getUint32(16), height: view.getUint32(20) } : null;
}

/** Chunks that decide what is seen; others, some of them packed, are passed over. */
const SEEN = new Set(["IHDR", "PLTE", "tRNS", "IDAT", "IEND"]);

/** So many packed bytes are unpacked at a time: a thousand times as many may come out of them. */
const PIECE = 8192;

/**
 * Decodes a PNG, whatever its kind of colour. How large it becomes is known before it is unpacked.
 * @param most largest width and height; a larger one is refused before anything is unpacked
 * @throws {RefusedError} saying what is wrong with it
 */
export function readPng(bytes: Uint8Array, max: number, name = "the picture"): Pixels {
  const refuse = (message: string): never => {
    throw new RefusedError(name, [{ place: "", line: null, column: null, message }]);
  };
  const size = pngSize(bytes) ?? refuse("is no PNG");
  if (size.width < 1 || size.height < 1 || size.width > max || size.height > max)
    refuse(`has ${size.width}x${size.height} pixels; it may have 1x1 to ${max}x${max}`);
  try {
    const chunks = chunksOf(bytes).filter(({ type }) => SEEN.has(type));
    const packed = chunks.filter(({ type }) => type === "IDAT").map(({ data }) => data);
    if (unpackedSize(packed, mostUnpacked(bytes, size)) === null) refuse("unpacks to more than its size says");
    const decoded = decode(joined([bytes.subarray(0, SIGNATURE.length), ...chunks.map(({ whole }) => whole)]), {
      checkCrc: true,
    });
    return { width: decoded.width, height: decoded.height, rgba: rgbaOf(decoded, refuse) };
  } catch (error) {
    if (error instanceof RefusedError) throw error;
    return refuse(`is a broken PNG: ${(error as Error).message}`);
  }
}

interface Chunk {
  readonly type: string;
  readonly data: Uint8Array;
  /** With its length, type and check sum. */
  readonly whole: Uint8Array;
}

function chunksOf(bytes: Uint8Array): Chunk[] {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const chunks: Chunk[] = [];
  for (let at: number = SIGNATURE.length; at < bytes.length;) {
    if (at + 12 > bytes.length) throw new Error("its last chunk is cut short");
    const length = view.getUint32(at);
    const end = at + 12 + length;
    if (end > bytes.length) throw new Error("a chunk is cut short");
    const type = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    chunks.push({ type, data: bytes.subarray(at + 8, end - 4), whole: bytes.subarray(at, end) });
    if (type === "IEND") break;
    at = end;
  }
  return chunks;
}

/** Bytes that a picture of that size unpacks to at the most: 8 bytes a pixel, a byte a row, and the rows of all passes of an interlaced one. */
function mostUnpacked(
  bytes: Uint8Array,
  { width, height }: { readonly width: number; readonly height: number },
): number {
  const bits = bytes[24]! * ([1, 0, 3, 1, 2, 0, 4][bytes[25]!] ?? 4);
  return height * (Math.ceil((width * bits) / 8) + 1) + (bytes[28] === 0 ? 0 : 8 * (width + height) + 64);
}

/** How many bytes come out of packed ones; null as soon as there are more than so many. Only counts, and keeps nothing. */
function unpackedSize(packed: readonly Uint8Array[], max: number): number | null {
  let size = 0;
  const unzlib = new Unzlib((out) => {
    size += out.length;
  });
  for (const data of packed) {
    for (let at = 0; at < data.length; at += PIECE) {
      unzlib.push(data.subarray(at, at + PIECE), false);
      if (size > max) return null;
    }
  }
  return size;
}

function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(pieces.reduce((length, piece) => length + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
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
