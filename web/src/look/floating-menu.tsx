import type { ReactNode } from "react";
import { useEffect, useRef, useState } from "react";
import Button from "react-bootstrap/Button";
import Overlay from "react-bootstrap/Overlay";
import { Icon } from "./icon.tsx";

interface Props {
  /** What it is about, for screen readers. */
  readonly label: string;
  readonly onOpen?: () => void;
  readonly children: ReactNode;
}

/** A menu that floats over the page, for a place that would cut one off: a row of a list that scrolls. A press in it closes it. */
export function FloatingMenu({ label, onOpen, children }: Props) {
  const [open, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const menu = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (open) menu.current?.querySelector<HTMLElement>("button")?.focus();
  }, [open]);
  const close = (): void => {
    setOpen(false);
    button.current?.focus();
  };
  return (
    <>
      <Button
        ref={button}
        variant="bare"
        className={`btn-icon${open ? " active" : ""}`}
        aria-label={label}
        aria-haspopup="true"
        aria-expanded={open}
        onClick={() => {
          if (!open) onOpen?.();
          setOpen(!open);
        }}
      >
        <Icon name="more" />
      </Button>
      <Overlay
        target={button}
        show={open}
        placement="bottom-start"
        rootClose
        transition={false}
        onHide={() => setOpen(false)}
      >
        {({ ref, style }) => (
          <div
            ref={(element) => {
              menu.current = element;
              ref(element);
            }}
            style={style}
            className="dropdown-menu show floating"
            onKeyDown={(event) => goByKey(event, close)}
            onClick={(event) => {
              if ((event.target as HTMLElement).closest("button")) close();
            }}
          >
            {children}
          </div>
        )}
      </Overlay>
    </>
  );
}

/** In a menu the arrows give the next button the keyboard, round its ends, and Escape closes it. */
function goByKey(event: React.KeyboardEvent<HTMLElement>, close: () => void): void {
  const items = [...event.currentTarget.querySelectorAll<HTMLElement>("button")];
  const at = items.indexOf(document.activeElement as HTMLElement);
  if (event.key === "ArrowDown" || event.key === "ArrowUp")
    items[(at + (event.key === "ArrowDown" ? 1 : -1) + items.length) % items.length]?.focus();
  else if (event.key === "Escape") close();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
