import { type ComponentType, lazy, Suspense, useState } from "react";

/**
 * A component whose code comes when it is first drawn, or earlier, by its load. What is there by then
 * is drawn at once: what waits for its code shows the stand-in for a third of a second at least.
 */
export function lazily<Props extends object>(fetch: () => Promise<ComponentType<Props>>, standIn?: React.ReactNode) {
  let here: ComponentType<Props> | undefined;
  const load = async () => {
    here = await fetch();
    return { default: here };
  };
  const Later: ComponentType<Props> = lazy(load);
  function Lazily(props: Props) {
    const [Now] = useState(() => here ?? Later);
    return (
      <Suspense fallback={standIn}>
        <Now {...props} />
      </Suspense>
    );
  }
  return Object.assign(Lazily, { load });
}
