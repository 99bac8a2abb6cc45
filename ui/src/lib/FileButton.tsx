import { Button, type ButtonProps } from "@chakra-ui/react";
import { useRef } from "react";

interface FileButtonProps extends ButtonProps {
  /** What is chosen, for those who do not see the button. */
  label: string;
  accept: string;
  onFile: (file: File) => void;
}

/** A button that opens a file; the same one can be opened again. */
export function FileButton({ label, accept, onFile, children, ...button }: FileButtonProps) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={chooser}
        type="file"
        accept={accept}
        aria-label={label}
        hidden
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = "";
          if (file) onFile(file);
        }}
      />
      <Button {...button} onClick={() => chooser.current?.click()}>
        {children}
      </Button>
    </>
  );
}
