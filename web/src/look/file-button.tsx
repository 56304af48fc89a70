import type { ReactNode } from "react";
import { useRef } from "react";
import Button from "react-bootstrap/Button";

interface Props {
  /** What the files are, for screen readers. */
  readonly name: string;
  readonly accept: string;
  readonly onFiles: (files: readonly File[]) => void;
  readonly multiple?: boolean;
  readonly variant?: string;
  readonly className?: string;
  readonly title?: string;
  readonly disabled?: boolean;
  readonly children: ReactNode;
}

/** A button that lets files be chosen. */
export function FileButton({
  name,
  accept,
  onFiles,
  multiple = false,
  variant = "plain",
  className,
  title,
  disabled,
  children,
}: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <Button
        variant={variant}
        className={className}
        title={title}
        disabled={disabled}
        onClick={() => input.current!.click()}
      >
        {children}
      </Button>
      <input
        ref={input}
        type="file"
        className="visually-hidden"
        tabIndex={-1}
        aria-label={name}
        multiple={multiple}
        accept={accept}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          // The same file chosen again is a change too.
          event.target.value = "";
          if (files.length > 0) onFiles(files);
        }}
      />
    </>
  );
}
