<script lang="ts">
  import { api, asProblem, ok, type Problem } from '../../api/client';
  import NewPasswordField from './NewPasswordField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { navigate, route } from '../../router';

  let password = $state('');
  let problem = $state<Problem | null>(null);

  async function set(e: SubmitEvent) {
    e.preventDefault();
    const token = (route.params as { token: string }).token;
    try {
      await ok(api.GET('/api/welcome'));
      await ok(api.POST('/api/password-links/acceptance', { body: { token, password } }));
      await navigate('/');
    } catch (error) {
      problem = asProblem(error);
    }
  }
</script>

<main class="mx-auto max-w-md p-6 pt-20">
  <h1>Choose a new password</h1>
  <p class="quiet mt-2 mb-6">
    This link is good once. Sign in with the new one afterwards; passkeys from before are good no longer.
  </p>
  <form onsubmit={set} class="grid gap-4">
    <NewPasswordField bind:value={password} error={problem?.field('password')} />
    {#if problem && !problem.field('password')}<Trouble {problem} />{/if}
    <button class="btn btn-primary">Keep it</button>
  </form>
</main>
