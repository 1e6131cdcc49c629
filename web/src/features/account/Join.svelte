<script lang="ts">
  import { api, asProblem, ok, type Problem } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import NewPasswordField from './NewPasswordField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { navigate, route } from '../../router';

  let name = $state('');
  let password = $state('');
  let problem = $state<Problem | null>(null);

  async function join(e: SubmitEvent) {
    e.preventDefault();
    const token = (route.params as { token: string }).token;
    try {
      await ok(api.GET('/api/welcome'));
      await ok(api.POST('/api/invitations/acceptance', { body: { token, name, password } }));
      await navigate('/');
    } catch (error) {
      problem = asProblem(error);
    }
  }
</script>

<main class="mx-auto max-w-md p-6 pt-20">
  <h1>Make your account</h1>
  <p class="quiet mt-2 mb-6">This link is good once. Choose the name that colleagues will see in the log.</p>
  <form onsubmit={join} class="grid gap-4">
    <TextField
      label="Name"
      bind:value={name}
      error={problem?.field('name')}
      required
      autocomplete="username"
    />
    <NewPasswordField bind:value={password} error={problem?.field('password')} />
    {#if problem && !problem.field('name') && !problem.field('password')}<Trouble {problem} />{/if}
    <button class="btn btn-primary">Make the account</button>
  </form>
</main>
