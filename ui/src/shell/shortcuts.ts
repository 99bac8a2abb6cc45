/** The shortcuts, as they are listed. */
export const SHORTCUTS: [keys: string[], does: string][] = [
  [["/"], "write a quick line, such as f2 1/1250 iso50 > 50fps"],
  [["Ctrl", "K"], "go to a place, a shot or a filter, or do something"],
  [["Ctrl", "Z"], "take the last stored change back"],
  [["1", "–", "9"], "on a shot: put that filter on, or take it off"],
  [["0"], "on a shot: back to the best filter"],
  [["←", "→"], "on the shutter window: the camera's next step; on the coverage: the next cell"],
  [["?"], "this list"],
];
