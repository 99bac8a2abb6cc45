import { Button, Heading, Stack } from "@chakra-ui/react";
import { useState } from "react";
import { type Control, type FieldValues, get, useFormState } from "react-hook-form";
import { type FieldSpec, Fields } from "./Fields";

export interface FieldGroup {
  heading: string;
  specs: readonly FieldSpec[];
}

interface KnownFieldsProps<T extends FieldValues> {
  control: Control<T>;
  groups: readonly FieldGroup[];
  /** What the form began with: fields that had a value, or are always asked, stand open. */
  start: FieldValues;
  always?: readonly string[];
  sources?: React.ComponentProps<typeof Fields<T>>["sources"];
}

/** The fields of a form of which something is known, with the others folded away until they are wanted. */
export function KnownFields<T extends FieldValues>({ start, always = [], ...form }: KnownFieldsProps<T>) {
  const [isOpen, setOpen] = useState(false);
  const { errors } = useFormState({ control: form.control });
  const isShown = ({ path }: FieldSpec) => always.includes(path) || isKnown(get(start, path));
  const rest = (specs: readonly FieldSpec[]) => specs.filter((s) => !isShown(s));
  const folded = form.groups.flatMap((g) => rest(g.specs));
  const isUnfolded = isOpen || folded.some(({ path }) => get(errors, path) !== undefined);
  return (
    <>
      <Groups {...form} of={(specs) => specs.filter(isShown)} />
      {folded.length > 0 && (
        <Button
          alignSelf="flex-start"
          size="sm"
          minH="44px"
          variant="ghost"
          aria-expanded={isUnfolded}
          onClick={() => setOpen(!isUnfolded)}
        >
          {isUnfolded ? "Fold what is not known" : `Not known yet: ${folded.length} more`}
        </Button>
      )}
      {isUnfolded && <Groups {...form} of={rest} />}
    </>
  );
}

interface GroupsProps<T extends FieldValues> extends Omit<KnownFieldsProps<T>, "start" | "always"> {
  of: (specs: readonly FieldSpec[]) => readonly FieldSpec[];
}

function Groups<T extends FieldValues>({ control, groups, sources, of }: GroupsProps<T>) {
  return groups.map(({ heading, specs }) => {
    const some = of(specs);
    return (
      some.length > 0 && (
        <Stack key={heading} gap="2" role="group" aria-label={heading}>
          <Heading as="h3" size="sm" color="muted">
            {heading}
          </Heading>
          <Fields control={control} specs={some} {...(sources && { sources })} />
        </Stack>
      )
    );
  });
}

function isKnown(value: unknown): boolean {
  if (Array.isArray(value)) return value.length > 0;
  return value !== undefined && value !== "" && value !== false && !Number.isNaN(value);
}
