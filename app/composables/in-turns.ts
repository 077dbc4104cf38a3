/** Does something for each of several, so many at once, in their order; what is left is not begun once it is not wanted any more. */
export async function inTurns<Item>(
  items: readonly Item[],
  atOnce: number,
  isWanted: () => boolean,
  act: (item: Item) => Promise<void>,
): Promise<void> {
  const waiting = [...items];
  const next = async (): Promise<void> => {
    for (let item = waiting.shift(); item !== undefined && isWanted(); item = waiting.shift()) await act(item);
  };
  await Promise.all(Array.from({ length: atOnce }, next));
}
