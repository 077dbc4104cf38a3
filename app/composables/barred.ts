/** Tells why something that one tried to do cannot be done; most often one’s roles do not allow it. */
export function useBarred(): (whyNot: string, summary?: string) => void {
  const toast = useToast();
  return (whyNot, summary = 'Your roles do not allow this') =>
    toast.add({ severity: 'secondary', summary, detail: whyNot, life: 6_000 });
}
