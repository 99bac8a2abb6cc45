/** The grades of flare, as they are kept: 0 to 3. */
export const FLARE_GRADES = ["none", "slight", "plain", "heavy"] as const;
