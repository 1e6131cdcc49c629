<script lang="ts">
  import type { IScannerControls } from '@zxing/browser';
  import { onMount } from 'svelte';

  /** The running camera: tells each new code that it sees, until somebody is content with one or shuts it. */
  let { seen, shut }: { seen: (code: string) => void; shut: () => void } = $props();
  let trouble = $state('');
  let running: IScannerControls | undefined;
  let gone = false;
  let last = '';
  let video = $state<HTMLVideoElement>();

  async function look() {
    try {
      const { BrowserMultiFormatReader } = await import('@zxing/browser');
      const controls = await new BrowserMultiFormatReader(undefined, {
        delayBetweenScanAttempts: 120,
      }).decodeFromConstraints({ video: { facingMode: 'environment' } }, video, (result) => {
        const text = result?.getText();
        if (gone || !text || text === last) return;
        last = text;
        seen(text);
      });
      if (gone) controls.stop();
      else running = controls;
    } catch (e) {
      trouble =
        e instanceof DOMException && e.name === 'NotAllowedError'
          ? 'The browser does not let the camera in. Allow it beside the address, or take a picture instead.'
          : e instanceof DOMException && e.name === 'NotFoundError'
            ? 'There is no camera here. Type the code, or take a picture with a phone.'
            : 'The camera does not start. Another program may hold it: close that one, or take a picture instead.';
    }
  }
  onMount(() => {
    void look();
    return () => {
      gone = true;
      running?.stop();
    };
  });
</script>

<div class="mt-3 max-w-md">
  {#if trouble}
    <p class="text-error" role="alert">{trouble}</p>
  {:else}
    <video
      bind:this={video}
      class="aspect-video w-full rounded-box bg-neutral object-cover"
      playsinline
      aria-label="What the camera sees"
    ></video>
    <p class="quiet mt-1 text-sm">Hold the tag’s code into the picture. It goes there by itself.</p>
  {/if}
  <button type="button" class="btn mt-1 btn-ghost btn-sm" onclick={shut}>Shut the camera</button>
</div>
