<script lang="ts">
  import { api, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import LinkOnce from './LinkOnce.svelte';
  import { ROLES, type Role } from './queries';

  let role = $state<Role>('TECHNICIAN');
  let link = $state('');
  const change = useChange(() => [['people']]);

  async function invite() {
    await change.run(async () => {
      const invitation = await ok(api.POST('/api/invitations', { body: { role } }));
      link = location.origin + invitation.path;
    });
  }
</script>

<label class="field-label" for="invite-role">What they will do</label>
<select id="invite-role" class="select w-full" bind:value={role}>
  {#each ROLES as r (r.role)}<option value={r.role}>{r.does}</option>{/each}
</select>
<Trouble problem={change.problem} />
<button class="btn mt-4 btn-primary" disabled={change.busy} onclick={invite}>Make a link</button>
{#if link}<LinkOnce {link} />{/if}
