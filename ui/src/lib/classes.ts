/** The class names that apply, as one. */
export const classes = (...names: (string | false | undefined)[]): string => names.filter(Boolean).join(" ");
