/** What is open over the card; a drill by its name. */
export type Open = { sheet: "checks" | "remeter" | "passage" | "log" } | { sheet: "drill"; name: string } | null;
