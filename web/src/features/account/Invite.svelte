<script lang="ts">
  import { api, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  type Role = Schemas['InvitationRequest']['role'];
  let role = $state<Role>('TECHNICIAN');
  let link = $state('');
  const change = useChange();
  const problem = $derived(change.problem);

  async function invite() {
    await change.run(async () => {
      const invitation = await ok(api.POST('/api/invitations', { body: { role } }));
      link = location.origin + invitation.path;
    });
  }
</script>

<label class="field-label" for="invite-role">What they will do</label>
<select id="invite-role" class="select w-full" bind:value={role}>
  <option value="TECHNICIAN">Technician: does the work</option>
  <option value="OFFICE">Office: looks on</option>
  <option value="LEAD">Lead: also sites and people</option>
</select>
<Trouble {problem} />
<button class="btn mt-4 btn-primary" onclick={invite}>Make a link</button>
{#if link}
  <p class="mt-4">Give them this link. It is good once, for two days, and is not shown again:</p>
  <p class="mt-2 rounded bg-base-200 p-3 font-mono text-sm break-all">{link}</p>
{/if}
