<script lang="ts">
  import type { Problem } from '../../api/client';
  import TextField from '../../ui/TextField.svelte';
  import type { TypedSegment } from './segment';

  /** What few segments have: VLAN, lease time, IPv6, notes. The form that holds them is given and written into. */
  let { f = $bindable(), problem }: { f: TypedSegment; problem: Problem | null } = $props();
</script>

<TextField
  label="VLAN id"
  bind:value={f.vlan}
  error={problem?.field('vlan')}
  hint="1 to 4094, if it has one"
  mono
/>
<TextField
  label="Lease time in hours"
  bind:value={f.leaseHours}
  error={problem?.field('leaseMinutes')}
  mono
/>
<TextField
  label="IPv6 prefix"
  bind:value={f.prefix6}
  error={problem?.field('prefix6')}
  hint="Such as 2001:db8:16::/64"
  mono
/>
<TextField label="IPv6 gateway" bind:value={f.gateway6} error={problem?.field('gateway6')} mono />
<label class="flex items-center gap-2 text-sm"
  ><input type="checkbox" bind:checked={f.fixed6} />IPv6 addresses are fixed, not automatic</label
>
<TextField
  label="Notes"
  bind:value={f.notes}
  error={problem?.field('notes')}
  hint="No passwords: only where they are kept"
/>
