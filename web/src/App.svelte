<script lang="ts">
  import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';
  import { Problem, queryDefaults } from './api/client';
  import './router';

  // Signed out in the middle of work: ask for the session again, which shows the sign-in page.
  const signedOut = (e: unknown) => {
    if (e instanceof Problem && e.status === 401) client.setQueryData(['session'], null);
  };
  const client: QueryClient = new QueryClient({
    queryCache: new QueryCache({ onError: signedOut }),
    mutationCache: new MutationCache({ onError: signedOut }),
    defaultOptions: { queries: { ...queryDefaults, staleTime: 5_000, retry: 1 } },
  });
</script>

<QueryClientProvider {client}>
  <Router />
</QueryClientProvider>
