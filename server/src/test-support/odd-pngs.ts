import { crc32, deflateSync } from "node:zlib";

const chunk = (type: string, data: Uint8Array): Buffer => {
  const body = Buffer.concat([Buffer.from(type, "latin1"), data]);
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(data.length);
  sum.writeUInt32BE(crc32(body));
  return Buffer.concat([length, body, sum]);
};

function png(width: number, height: number, unpacked: Uint8Array, more: readonly Buffer[] = []): Buffer {
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  // 8 bits a colour, with alpha.
  head.set([8, 6, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk("IHDR", head),
    ...more,
    chunk("IDAT", deflateSync(unpacked)),
    chunk("IEND", Buffer.alloc(0)),
  ]);
}

/** A picture that says that it is so large, and has next to nothing in it. */
export const pngOfSize = (width: number, height: number): Buffer => png(width, height, Buffer.alloc(64));

/** A picture of one pixel whose data unpacks to 100 MB. */
export const bombPng = (): Buffer => png(1, 1, Buffer.alloc(100_000_000));

/** A picture of one pixel that is in order, with a colour profile that unpacks to 100 MB. */
export const profileBombPng = (): Buffer =>
  png(1, 1, Buffer.alloc(5), [
    chunk("iCCP", Buffer.concat([Buffer.from("p\0\0", "latin1"), deflateSync(Buffer.alloc(100_000_000))])),
  ]);

/** A blank picture of that size that is in order. */
export const blankPng = (width: number, height: number): Buffer =>
  png(width, height, Buffer.alloc(height * (1 + 4 * width)));
