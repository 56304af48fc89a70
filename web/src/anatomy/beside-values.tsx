import Table from "react-bootstrap/Table";

interface Props {
  readonly frame: number;
  /** What the two are called. */
  readonly names: readonly [string, string];
  /** What is compared, and its two values in words. */
  readonly rows: readonly (readonly [name: string, one: string, other: string])[];
}

/** A frame of two walks, value by value; what differs is stressed. */
export function BesideValues({ frame, names, rows }: Props) {
  return (
    <Table>
      <thead>
        <tr>
          <th scope="col">Frame {frame}</th>
          <th scope="col">{names[0]}</th>
          <th scope="col">{names[1]}</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, one, other]) => (
          <tr key={name} className={one === other ? "" : "differs"}>
            <th scope="row">{name}</th>
            <td>{one}</td>
            <td>{other}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}
