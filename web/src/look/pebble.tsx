/** How a check ended, as a shape: whole for pass, two halves with a gap for fail, hollow for not reached. */
export type PebbleKind = "pass" | "fail" | "unreached";

const WORDS: Readonly<Record<PebbleKind, string>> = { pass: "pass", fail: "fail", unreached: "not reached" };

/** A pebble. Shape carries the meaning, colour only repeats it. */
export function Pebble({ kind, radius = 5, label }: { kind: PebbleKind; radius?: number; label?: string | null }) {
  const size = radius * 2 + 2;
  const hidden = label === null;
  return (
    <svg
      width={size}
      height={size}
      viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}
      className={`pebble pebble-${kind}`}
      role={hidden ? undefined : "img"}
      aria-hidden={hidden || undefined}
      aria-label={hidden ? undefined : (label ?? WORDS[kind])}
    >
      <PebbleShape kind={kind} radius={radius} />
    </svg>
  );
}

/** A pebble's shape about its middle, for a place in another drawing; that gives it its class. */
export function PebbleShape({ kind, radius }: { readonly kind: PebbleKind; readonly radius: number }) {
  const gap = Math.max(1, radius * 0.22);
  if (kind === "pass") return <circle r={radius} />;
  if (kind === "unreached") return <circle r={radius - 0.75} />;
  return (
    <>
      <path d={`M${-gap} ${-radius}v${2 * radius}a${radius} ${radius} 0 0 1 0 ${-2 * radius}z`} />
      <path d={`M${gap} ${-radius}v${2 * radius}a${radius} ${radius} 0 0 0 0 ${-2 * radius}z`} />
    </>
  );
}
