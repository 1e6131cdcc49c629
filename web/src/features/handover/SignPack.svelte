<script lang="ts">
  import SignaturePad from 'signature_pad';
  import { api, freshKey, ok, type Schemas } from '../../api/client';
  import { useChange } from '../../api/change.svelte';
  import TextField from '../../ui/TextField.svelte';
  import Trouble from '../../ui/Trouble.svelte';

  /** Signs a pack by finger or mouse, with the name in letters; who cannot draw signs by name alone. */
  let {
    siteId,
    type,
    ready,
    done,
  }: { siteId: number; type: Schemas['SignedPack']['type']; ready: number; done: () => void } = $props();
  const change = useChange(() => [['site', siteId]]);
  const key = freshKey();
  let signer = $state('');
  let drawn = $state(false);
  let pad: SignaturePad | undefined;
  let field: HTMLCanvasElement | undefined;

  const ink = (canvas: HTMLCanvasElement) => {
    field = canvas;
    const ratio = Math.max(window.devicePixelRatio, 1);
    canvas.width = canvas.offsetWidth * ratio;
    canvas.height = canvas.offsetHeight * ratio;
    canvas.getContext('2d')?.scale(ratio, ratio);
    pad = new SignaturePad(canvas, { penColor: '#1d2630' });
    pad.addEventListener('endStroke', () => (drawn = true));
    return () => pad?.off();
  };
  const share = (value: number, whole: number) => Math.min(1, Math.max(0, value / whole));

  async function sign() {
    const wide = field?.offsetWidth ?? 1;
    const high = field?.offsetHeight ?? 1;
    const strokes = (pad?.toData() ?? []).map((s) =>
      s.points.map((p) => ({ x: share(p.x, wide), y: share(p.y, high) })),
    );
    const kept = await change.run(
      () =>
        ok(
          api.POST('/api/sites/{siteId}/packs/{type}/signature', {
            params: { path: { siteId, type }, header: key },
            body: { signer, strokes },
          }),
        ),
      key,
    );
    if (kept) done();
  }
  function clear() {
    pad?.clear();
    drawn = false;
  }
</script>

<form
  class="mt-3 grid max-w-xl gap-3 border-l-4 border-accent pl-3"
  onsubmit={(e) => {
    e.preventDefault();
    void sign();
  }}
>
  {#if type === 'CLIENT'}<p>
      {ready === 1 ? 'One device is' : `${ready} devices are`} handed over with this signature. What the paper says
      is kept as it is now.
    </p>{/if}
  <TextField
    label="Who signs, in letters"
    bind:value={signer}
    error={change.problem?.field('signer')}
    required
  />
  <div>
    <p class="field-label" id="sign-here">Sign here, by finger or mouse</p>
    <canvas
      {@attach ink}
      class="h-36 w-full touch-none rounded border border-base-content bg-white"
      aria-labelledby="sign-here"
    ></canvas>
    <p class="quiet mt-1 text-sm">
      {drawn ? '' : 'Left empty, it is signed by name alone, and the paper says so. '}{#if drawn}<button
          type="button"
          class="link"
          onclick={clear}>Clear it</button
        >{/if}
    </p>
  </div>
  <Trouble problem={change.problem} />
  <div><button class="btn btn-primary" disabled={change.busy}>Sign the pack</button></div>
</form>
