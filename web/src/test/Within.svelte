<script lang="ts">
  import { QueryClient, QueryClientProvider } from '@tanstack/svelte-query';
  import type { Component } from 'svelte';
  import { queryDefaults } from '../api/client';

  // Any component, with the queries that it asks answered from what a test gives.
  let { of, given }: { of: Component<Record<string, unknown>>; given: Record<string, unknown> } = $props();
  const client = new QueryClient({ defaultOptions: { queries: { ...queryDefaults, retry: false } } });
  const Shown = $derived(of);
</script>

<QueryClientProvider {client}><Shown {...given} /></QueryClientProvider>
