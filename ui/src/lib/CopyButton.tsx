import { Button } from "@chakra-ui/react";
import { Copy } from "lucide-react";
import { toaster } from "../shell/toaster";

/** Copies a text for pasting elsewhere. */
export function CopyButton({ text, children }: { text: string; children: React.ReactNode }) {
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(text);
      toaster.create({ title: "Copied" });
    } catch {
      toaster.create({ title: "Not copied", description: "This browser does not allow it here." });
    }
  };
  return (
    <Button variant="outline" onClick={copy}>
      <Copy aria-hidden />
      {children}
    </Button>
  );
}
