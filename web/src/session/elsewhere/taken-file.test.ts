import { describe, expect, it } from "vitest";
import { droppedFiles, takenFile, textOf } from "./taken-file.ts";

interface Handle {
  readonly kind: string;
  readonly getFile: () => Promise<File>;
}
type Item = { readonly kind: string; readonly getAsFileSystemHandle?: () => Promise<Handle | null> };
const dropOf = (files: readonly File[], items: readonly Item[]): DataTransfer =>
  ({ files, items }) as unknown as DataTransfer;
const file = (text: string): File => new File([text], "walk.csv");

describe("the text of a file", () => {
  it("is what it says in UTF-8, its mark kept for the reader; anything else is refused by its name", async () => {
    expect(await textOf(file("a,b\n"))).toBe("a,b\n");
    expect(await textOf(file("\uFEFFä"))).toBe("\uFEFFä");
    await expect(textOf(new File([new Uint8Array([0xc3, 0x28])], "odd.csv"))).rejects.toThrow(
      "odd.csv is refused: it is not UTF-8 text",
    );
  });
});

describe("a dropped file", () => {
  it("is read again as it is by then where the browser gives a handle of it", async () => {
    const [dropped, plain] = [file("first"), file("other")];
    let now = "second";
    const handle = { kind: "file", getFile: () => Promise.resolve(file(now)) };
    const items = [
      { kind: "string" },
      { kind: "file", getAsFileSystemHandle: () => Promise.resolve(handle) },
      { kind: "file" },
    ];
    expect(droppedFiles(dropOf([dropped, plain], items))).toEqual([dropped, plain]);
    const taken = takenFile(dropped);
    expect([taken.name, await taken.again()]).toEqual(["walk.csv", "second"]);
    now = "third";
    expect(await taken.again()).toBe("third");
    expect(await takenFile(plain).again()).toBe("other");
  });

  it("is read as it was dropped where the browser gives none, or one of a folder", async () => {
    for (const found of [
      () => Promise.reject(new Error("no")),
      () => Promise.resolve(null),
      () => Promise.resolve({ kind: "directory", getFile: () => Promise.resolve(file("of a folder")) }),
    ]) {
      const dropped = file("first");
      droppedFiles(dropOf([dropped], [{ kind: "file", getAsFileSystemHandle: found }]));
      await new Promise((resolve) => setTimeout(resolve, 0));
      expect(await takenFile(dropped).again()).toBe("first");
    }
    // More was dropped than there are files.
    expect(droppedFiles(dropOf([], [{ kind: "file", getAsFileSystemHandle: () => Promise.resolve(null) }]))).toEqual(
      [],
    );
  });
});
