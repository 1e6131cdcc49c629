<script lang="ts">
  import { useQueryClient } from '@tanstack/svelte-query';
  import { api, bytes, ok } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import FileField from '../../ui/FileField.svelte';
  import Trouble from '../../ui/Trouble.svelte';
  import { at, go } from '../../router';

  /** Takes a whole site in from the file that another machine wrote; only while there is none. */
  const client = useQueryClient();
  const change = useChange();

  async function take(file: File | null) {
    if (!file) return;
    await change.run(async () => {
      const taken = await ok(api.POST('/api/site-file', bytes(file, 'application/zip')));
      await client.invalidateQueries({ queryKey: ['sites'] });
      await go(at(taken.id, 'plan'));
    });
  }
</script>

<section class="mt-8 border-t border-base-300 pt-4" aria-label="From another machine">
  <h2>Or bring one from another machine</h2>
  <p class="quiet mt-1 mb-2">
    The file that it gave out under Hand over, Packs. All of it is taken, or nothing.
  </p>
  <FileField id="site-file" label="Site file" accept=".zip" chosen={(file) => void take(file)} />
  <Trouble problem={change.problem} />
</section>
