<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import { Router } from 'sv-router';
  import { forgetAnswers } from './api/answers.svelte';
  import { door, queryDefaults } from './api/client';
  import './router';

  const client = new QueryClient({
    // Without network it is asked all the same: what was answered last is kept.
    defaultOptions: { queries: { ...queryDefaults, staleTime: 5_000, retry: 1, networkMode: 'always' } },
  });
  // Signed out in the middle of work: the sign-in comes over it.
  door.signedOut = () => {
    client.setQueryData(['session'], null);
    void forgetAnswers();
  };
</script>

<QueryClientProvider {client}>
  <Router />
</QueryClientProvider>
