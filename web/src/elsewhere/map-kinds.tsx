import { useMemo } from "react";
import Form from "react-bootstrap/Form";
import Table from "react-bootstrap/Table";
import { TileArt } from "../field/tile-art.ts";
import { DrawnImage } from "../look/drawn-image.tsx";
import type { MapRead } from "../session/elsewhere/read-map.ts";

/** More kinds than this are not listed: they are chosen in the room. */
const MOST_LISTED = 200;

interface Props {
  readonly read: MapRead;
  readonly images: ReadonlyMap<string, ImageBitmap>;
  readonly onKind: (value: number) => void;
}

/** The kinds of cell: number, picture, how many, and whether they block. */
export function MapKinds({ read, images, onKind }: Props) {
  const { kinds, world, tiles, answers } = read;
  const art = useMemo(() => new TileArt(world, images), [world, images]);
  const pictures = useMemo(() => new Map(), [art]);
  const numberOf = new Map(world.tiles.map(({ id }, i) => [id, i]));
  return (
    <Table aria-label="Kinds of cells">
      <thead>
        <tr>
          <th scope="col">Kind</th>
          <th scope="col">
            <span className="visually-hidden">Image</span>
          </th>
          <th scope="col">Cells</th>
          <th scope="col">Blocks</th>
        </tr>
      </thead>
      <tbody>
        {kinds.slice(0, MOST_LISTED).map(({ value, cells, text }) => (
          <tr key={value}>
            <th scope="row" className="mono">
              {text.trim() === "" ? "blank" : text}
            </th>
            <td>
              <DrawnImage
                className="swatch"
                size={20}
                name={String(value)}
                kept={pictures}
                draw={(c) => c.drawImage(art.picture(numberOf.get(tiles.get(value)!)!, 1), 0, 0, 20, 20)}
              />
            </td>
            <td className="mono">{cells}</td>
            <td>
              {value === answers.empty ? (
                <span className="quiet">empty</span>
              ) : (
                <Form.Check.Input
                  className="m-0"
                  aria-label={`Kind ${text} blocks`}
                  checked={answers.solid.has(value)}
                  onChange={() => onKind(value)}
                />
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
