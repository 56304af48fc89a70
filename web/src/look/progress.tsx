import ProgressBar from "react-bootstrap/ProgressBar";

/** How far something is; `label` is for screen readers. */
export function Progress({ now, max, label }: { readonly now: number; readonly max: number; readonly label: string }) {
  return (
    <div className="progress">
      <ProgressBar isChild now={now} max={max} aria-label={label} />
    </div>
  );
}
