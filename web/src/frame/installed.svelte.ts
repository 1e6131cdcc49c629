import { Workbox } from 'workbox-window';

/** Whether a newer version of the page lies ready here. */
export const newer = $state({ ready: false });
let worker: Workbox | null = null;

/** Goes over to the newer version. */
export const takeNewer = () => worker?.messageSkipWaiting();

/** Keeps the page on this device, so that it opens without network. A newer one is taken when it opens, or when somebody says so. */
export function install() {
  if (!('serviceWorker' in navigator)) return;
  worker = new Workbox('/sw.js');
  worker.addEventListener('waiting', (event) => {
    // It lay there before this page was opened: nobody has typed anything yet.
    if (event.wasWaitingBeforeRegister) takeNewer();
    else newer.ready = true;
  });
  worker.addEventListener('controlling', (event) => {
    if (event.isUpdate) location.reload();
  });
  // Where it cannot be kept, as in a private window, the page works as long as there is a network.
  void worker.register().catch(() => {});
}
