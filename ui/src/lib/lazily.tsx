import { type ComponentType, useEffect, useState } from "react";

/**
 * A component whose code comes when it is first drawn, or earlier, by its load; the stand-in is drawn until
 * then, and not for longer: what React suspends for its code it holds back for a third of a second at least.
 */
export function lazily<Props extends object>(
  fetch: () => Promise<ComponentType<Props>>,
  standIn: React.ReactNode = null,
) {
  let here: ComponentType<Props> | undefined;
  const load = async () => {
    here ??= await fetch();
    return here;
  };
  function Lazily(props: Props) {
    const [Now, setNow] = useState(() => here);
    useEffect(() => {
      if (Now) return;
      load().then(
        (come) => setNow(() => come),
        (cause) =>
          setNow(() => {
            throw cause; // while it is drawn, so that what surrounds it can say so
          }),
      );
    }, [Now]);
    return Now ? <Now {...props} /> : standIn;
  }
  return Object.assign(Lazily, { load });
}
