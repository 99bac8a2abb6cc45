import { useQueryClient } from "@tanstack/react-query";
import { anew } from "./anew";

/** What the log teaches is in every answer: when it changes they are asked anew. */
export function useTaughtAnew() {
  const queries = useQueryClient();
  return () => {
    for (const key of ["records", "bench", "shots", "day"]) void anew(queries, [key]);
  };
}
