/** Tells why one’s roles do not allow something that one tried to do. */
export function useBarred(): (whyNot: string) => void {
  const toast = useToast();
  return (whyNot) => toast.add({ severity: 'secondary', summary: 'Not with your roles', detail: whyNot, life: 6_000 });
}
