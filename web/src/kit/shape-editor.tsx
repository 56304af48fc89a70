import { session } from "../page-session.ts";
import type { Shape, Tile, Pair } from "@keen-pebble/core/world";
import { isConvexClockwise } from "@keen-pebble/core/formats";
import { useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Form from "react-bootstrap/Form";
import { Icon } from "../look/icon.tsx";
import { shapePresets } from "./shape-presets.ts";
import { TextField, leaveOnEnter } from "../look/text-field.tsx";
import { Segments } from "../look/segments.tsx";
import { BareButton } from "../look/bare-button.tsx";

const SIDE = 132;
const MOST_CORNERS = 8;

/** What of a cell is solid: all of it, boxes, or a polygon whose corners are dragged on the px grid. */
export function ShapeEditor({ tileSize, tiles }: { readonly tileSize: number; readonly tiles: readonly Tile[] }) {
  const [{ shape }] = tiles as readonly [Tile];
  const mixed = tiles.some((tile) => JSON.stringify(tile.shape) !== JSON.stringify(shape));
  const presets = shapePresets(tileSize);
  const choose = (kind: string): void => {
    if (kind === "full") session.tiles.setShape({ kind: "full" });
    else if (kind === "boxes")
      session.tiles.setShape({
        kind: "boxes",
        boxes: [[0, Math.floor(tileSize / 2), tileSize, Math.ceil(tileSize / 2)]],
      });
    else if (kind === "poly")
      session.tiles.setShape({
        kind: "poly",
        points: [
          [0, 0],
          [tileSize, tileSize],
          [0, tileSize],
        ],
      });
    else session.tiles.setShape(presets.find((preset) => preset.name === kind)!.shape);
  };
  return (
    <section className="kit-part" aria-label="Shape">
      <div className="row-line">
        <h3 className="grow">Shape</h3>
        <span className="quiet mono">{mixed ? "mixed" : shapeWords(shape)}</span>
      </div>
      <Segments
        label="Kind of shape"
        value={mixed ? null : shape.kind}
        choices={[
          { value: "full", name: "Full" },
          { value: "boxes", name: "Boxes" },
          { value: "poly", name: "Corners" },
        ]}
        onValue={choose}
      />
      <Form.Select
        aria-label="Common shapes"
        value=""
        onChange={(event) => event.target.value !== "" && choose(event.target.value)}
      >
        <option value="">Common shapes</option>
        {presets.map(({ name }) => (
          <option key={name} value={name}>
            {name}
          </option>
        ))}
      </Form.Select>
      {!mixed && shape.kind === "poly" && <Corners shape={shape} size={tileSize} />}
      {!mixed && shape.kind === "boxes" && <Boxes shape={shape} size={tileSize} />}
    </section>
  );
}

function shapeWords(shape: Shape): string {
  if (shape.kind === "full") return "all of the cell";
  return shape.kind === "boxes"
    ? `${shape.boxes.length} ${shape.boxes.length === 1 ? "box" : "boxes"}`
    : `${shape.points.length} corners`;
}

type Poly = Extract<Shape, { kind: "poly" }>;
type BoxesShape = Extract<Shape, { kind: "boxes" }>;

function Corners({ shape, size }: { readonly shape: Poly; readonly size: number }) {
  const [chosen, setChosen] = useState(0);
  const at = Math.min(chosen, shape.points.length - 1);
  const put = (corner: number, x: number, y: number, stroke?: string): void => {
    const clamp = (v: number): number => Math.min(Math.max(Math.round(v), 0), size);
    const points = shape.points.map((point, i) => (i === corner ? ([clamp(x), clamp(y)] as const) : point));
    // A corner that would make the shape hollow stays where it is.
    if (isConvexClockwise(points)) session.tiles.setShape({ kind: "poly", points }, stroke);
  };
  const add = (): void => {
    const next = (at + 1) % shape.points.length;
    for (const points of outwards(shape.points, at, next, size)) {
      if (!isConvexClockwise(points)) continue;
      session.tiles.setShape({ kind: "poly", points });
      setChosen(at + 1);
      return;
    }
  };
  const remove = (): void => {
    session.tiles.setShape({ kind: "poly", points: shape.points.filter((_, i) => i !== at) });
  };
  return (
    <div className="corners">
      <CornersField shape={shape} size={size} chosen={at} onChoose={setChosen} onPut={put} />
      <ol>
        {shape.points.map(([x, y], i) => (
          <li key={i} className={i === at ? "chosen" : ""}>
            <button type="button" onClick={() => setChosen(i)}>
              <span className="quiet">{i + 1}</span>
              <span className="mono">
                {x},{y}
              </span>
            </button>
          </li>
        ))}
      </ol>
      <div className="row-line">
        <Button variant="plain" disabled={shape.points.length >= MOST_CORNERS} onClick={add}>
          <Icon name="plus" /> corner
        </Button>
        <Button variant="plain" disabled={shape.points.length <= 3} onClick={remove}>
          <Icon name="minus" /> corner
        </Button>
      </div>
    </div>
  );
}

interface FieldProps {
  readonly shape: Poly;
  readonly size: number;
  readonly chosen: number;
  readonly onChoose: (corner: number) => void;
  readonly onPut: (corner: number, x: number, y: number, stroke?: string) => void;
}

/** The polygon on the px grid, its corners to be dragged. */
function CornersField({ shape, size, chosen, onChoose, onPut }: FieldProps) {
  const drag = useRef<{ readonly corner: number; readonly stroke: string } | null>(null);
  const unit = SIDE / size;
  return (
    <svg
      width={SIDE}
      height={SIDE}
      viewBox={`${-4} ${-4} ${SIDE + 8} ${SIDE + 8}`}
      role="group"
      aria-label="Corners on the px grid"
      onPointerMove={(event) => {
        if (drag.current === null) return;
        const box = event.currentTarget.getBoundingClientRect();
        const scale = (SIDE + 8) / box.width;
        onPut(
          drag.current.corner,
          ((event.clientX - box.left) * scale - 4) / unit,
          ((event.clientY - box.top) * scale - 4) / unit,
          drag.current.stroke,
        );
      }}
      onPointerUp={() => {
        drag.current = null;
        session.project.endStroke();
      }}
    >
      <rect className="cell" width={SIDE} height={SIDE} />
      {size <= 32 &&
        Array.from({ length: size - 1 }, (_, i) => (
          <path
            key={i}
            className={(i + 1) % 4 === 0 ? "px four" : "px"}
            d={`M${(i + 1) * unit} 0V${SIDE}M0 ${(i + 1) * unit}H${SIDE}`}
          />
        ))}
      <polygon points={shape.points.map(([x, y]) => `${x * unit},${y * unit}`).join(" ")} />
      {shape.points.map((point, i) => (
        <Corner
          key={i}
          number={i + 1}
          point={point}
          unit={unit}
          isChosen={i === chosen}
          onPress={(pointer) => {
            pointer.currentTarget.ownerSVGElement!.setPointerCapture(pointer.pointerId);
            drag.current = { corner: i, stroke: crypto.randomUUID() };
            onChoose(i);
          }}
          onChoose={() => onChoose(i)}
          onPut={(x, y) => onPut(i, x, y)}
        />
      ))}
    </svg>
  );
}

const BY_ARROW: Readonly<Record<string, Pair>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** One corner: dragged, or moved by the arrow keys. */
function Corner({
  number,
  point: [x, y],
  unit,
  isChosen,
  onPress,
  onChoose,
  onPut,
}: {
  readonly number: number;
  readonly point: Pair;
  readonly unit: number;
  readonly isChosen: boolean;
  readonly onPress: (event: React.PointerEvent<SVGElement>) => void;
  readonly onChoose: () => void;
  readonly onPut: (x: number, y: number) => void;
}) {
  return (
    <rect
      className={`corner${isChosen ? " chosen" : ""}`}
      x={x * unit - 4}
      y={y * unit - 4}
      width={8}
      height={8}
      rx={1.5}
      tabIndex={0}
      role="button"
      aria-label={`Corner ${number} at ${x}, ${y}; arrow keys move it`}
      onPointerDown={onPress}
      onFocus={onChoose}
      onKeyDown={(event) => {
        const by = Object.hasOwn(BY_ARROW, event.key) ? BY_ARROW[event.key] : undefined;
        if (by === undefined) return;
        event.preventDefault();
        event.stopPropagation();
        onPut(x + by[0], y + by[1]);
      }}
    />
  );
}

/** The polygon with a corner between two neighbours pushed out of their line, the least push first, each way. */
function outwards(points: Poly["points"], a: number, b: number, size: number): Poly["points"][] {
  const [ax, ay] = points[a]!;
  const [bx, by] = points[b]!;
  const tries: Poly["points"][] = [];
  for (let push = 1; push <= size; push++) {
    for (const [dx, dy] of [
      [0, -push],
      [push, 0],
      [0, push],
      [-push, 0],
      [push, -push],
      [push, push],
      [-push, push],
      [-push, -push],
    ] as const) {
      const x = Math.round((ax + bx) / 2) + dx;
      const y = Math.round((ay + by) / 2) + dy;
      if (x >= 0 && y >= 0 && x <= size && y <= size)
        tries.push([...points.slice(0, a + 1), [x, y], ...points.slice(a + 1)]);
    }
  }
  return tries;
}

const BOX_KEYS = ["x", "y", "w", "h"] as const;

function Boxes({ shape, size }: { readonly shape: BoxesShape; readonly size: number }) {
  const set = (boxes: BoxesShape["boxes"]): void => {
    if (boxes.length > 0) session.tiles.setShape({ kind: "boxes", boxes });
  };
  return (
    <div className="boxes">
      {shape.boxes.map((box, i) => (
        <div key={i} className="row-line">
          {BOX_KEYS.map((key, n) => (
            <TextField
              label={key}
              aria-label={`Box ${i + 1} ${key}`}
              key={`${key} ${box[n]}`}
              defaultValue={box[n]}
              inputMode="numeric"
              onBlur={(event) => {
                const value = Number(event.target.value);
                const next = box.map((old, k) => (k === n ? value : old)) as unknown as BoxesShape["boxes"][number];
                const fits =
                  Number.isInteger(value) &&
                  next[0] >= 0 &&
                  next[1] >= 0 &&
                  next[2] > 0 &&
                  next[3] > 0 &&
                  next[0] + next[2] <= size &&
                  next[1] + next[3] <= size;
                if (fits && value !== box[n]) set(shape.boxes.map((old, k) => (k === i ? next : old)));
                else event.target.value = String(box[n]);
              }}
              onKeyDown={leaveOnEnter}
            />
          ))}
          <BareButton
            icon="bin"
            name={`Delete box ${i + 1}`}
            title="Delete it"
            disabled={shape.boxes.length === 1}
            onClick={() => set(shape.boxes.filter((_, k) => k !== i))}
          />
        </div>
      ))}
      <Button
        variant="plain"
        onClick={() =>
          set([...shape.boxes, [0, 0, Math.max(1, Math.floor(size / 2)), Math.max(1, Math.floor(size / 2))]])
        }
      >
        <Icon name="plus" /> box
      </Button>
    </div>
  );
}
