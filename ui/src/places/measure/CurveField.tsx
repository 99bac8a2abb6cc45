import { SelectField } from "../../lib/SelectField";
import { useCurves } from "./curves";

/** Which profile the frames were taken with, where others than the usual are known. */
export function CurveField({ value, onChange }: { value: string; onChange: (name: string) => void }) {
  const curves = useCurves();
  if (curves.length === 0) return null;
  return (
    <SelectField
      label="Profile of the frames"
      maxW="240px"
      value={value}
      options={[{ value: "", name: "standard" }, ...curves.map(({ name }) => ({ value: name, name }))]}
      onChange={onChange}
    />
  );
}
