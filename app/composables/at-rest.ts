/** Whether the page is drawn and has time left: for what it has beside what it is for. */
export function useAtRest() {
  const isAtRest = ref(false);
  onNuxtReady(() => (isAtRest.value = true));
  return readonly(isAtRest);
}
