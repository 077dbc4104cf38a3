/** Whether a moment lies further back than so many milliseconds; looked at every few seconds. */
export function useOlderThan(moment: () => string | null | undefined, milliseconds: number): ComputedRef<boolean> {
  const now = useNow({ interval: 5_000 });
  return computed(() => {
    const at = moment();
    return !!at && now.value.getTime() - new Date(at).getTime() > milliseconds;
  });
}
