interface Part<T> {
  items: T[];
  next?: string;
}

/** All of a list that comes in parts, however many there are. */
export async function everyPart<T>(fetchPart: (query: { after?: string }) => Promise<Part<T>>): Promise<T[]> {
  const items: T[] = [];
  let after: string | undefined;
  do {
    const part = await fetchPart({ after });
    items.push(...part.items);
    after = part.next;
  } while (after);
  return items;
}
