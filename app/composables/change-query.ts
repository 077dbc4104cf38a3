import type { LocationQueryRaw } from 'vue-router';

/**
 * Changes parts of what stands in the address of a page after the question mark; what is blank does not stand there. A change that
 * comes while another one is on its way is made beside it.
 */
export function useChangeQuery(): (parts: LocationQueryRaw, how?: 'push' | 'replace') => Promise<void> {
  const route = useRoute();
  const router = useRouter();
  let coming: LocationQueryRaw | undefined;
  return async (parts, how = 'push') => {
    const changed = Object.entries({ ...(coming ?? route.query), ...parts });
    const query = Object.fromEntries(changed.filter(([, value]) => value !== undefined && value !== ''));
    coming = query;
    try {
      await router[how]({ query });
    } finally {
      if (coming === query) coming = undefined;
    }
  };
}
