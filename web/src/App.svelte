<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';
  import { door, queryDefaults } from './api/client';
  import './router';

  const client = new QueryClient({
    defaultOptions: { queries: { ...queryDefaults, staleTime: 5_000, retry: 1 } },
  });
  // Signed out in the middle of work: the sign-in comes over it.
  door.signedOut = () => client.setQueryData(['session'], null);
</script>

<QueryClientProvider {client}>
  <Router />
</QueryClientProvider>
