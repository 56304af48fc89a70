/** For whoever goes by keyboard: past the bar at the top to the area itself. Seen once it has the focus. */
export function SkipLink() {
  return (
    <a
      className="visually-hidden-focusable skip"
      href="#area"
      onClick={(event) => {
        event.preventDefault();
        const area = document.querySelector("main");
        area?.setAttribute("tabindex", "-1");
        area?.focus();
      }}
    >
      Skip to the area
    </a>
  );
}
