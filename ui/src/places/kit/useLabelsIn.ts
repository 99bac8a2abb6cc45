import { useQuery } from "@tanstack/react-query";
import { askQuery } from "../../api/queries";

/** The labels of filters in a text that is nothing else, as a line has them; none where it is not. */
export function useLabelsIn(text: string): string[] {
  const { data, isPlaceholderData } = useQuery(askQuery(text.trim() === "" ? null : { line: text }));
  if (text.trim() === "" || !data || isPlaceholderData || data.unread.length > 0) return [];
  const said = data.parts.filter((part) => !part.assumed);
  return said.every((part) => part.kind === "kit") ? said.map((part) => part.text) : [];
}
