import Button from "react-bootstrap/Button";
import { useRouteError } from "react-router";

/** An area that could not be loaded, or that broke. */
export function NotLoaded() {
  const error = useRouteError();
  return (
    <div className="page">
      <main className="area empty">
        <h1>This area could not be shown</h1>
        <p className="quiet">{error instanceof Error ? error.message : String(error)}</p>
        <p className="quiet">Nothing is lost: what the server has not acknowledged is kept in this browser.</p>
        <Button variant="main" onClick={() => location.reload()}>
          Load the page again
        </Button>
      </main>
    </div>
  );
}
