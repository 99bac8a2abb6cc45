import { Button, Flex, Stack, Text } from "@chakra-ui/react";
import { useRef } from "react";

interface FilesFieldProps {
  label: string;
  files: readonly File[];
  onFiles: (files: File[]) => void;
  accept: string;
  isMany?: boolean;
}

/** One or several files, chosen with a button; what is chosen stands beside it. */
export function FilesField({ label, files, onFiles, accept, isMany }: FilesFieldProps) {
  const chooser = useRef<HTMLInputElement>(null);
  return (
    <Stack gap="1">
      <Text color="muted" fontSize="sm">
        {label}
      </Text>
      <Flex gap="2" align="center" wrap="wrap">
        <input
          ref={chooser}
          type="file"
          accept={accept}
          multiple={isMany}
          aria-label={label}
          hidden
          onChange={(e) => {
            onFiles([...(e.target.files ?? [])]);
            e.target.value = "";
          }}
        />
        <Button variant="outline" onClick={() => chooser.current?.click()}>
          Choose
        </Button>
        <Text overflowWrap="anywhere">{files.map((f) => f.name).join(", ") || "none yet"}</Text>
      </Flex>
    </Stack>
  );
}
