import type { Schemas } from '../api/client';

type Wait = Pick<Schemas['RunningView'], 'endpointId' | 'endpoint' | 'step' | 'pace' | 'lookFor'>;

/** Two short tones, made by the browser itself: nothing is fetched for them. */
function sound() {
  const context = new AudioContext();
  for (const [at, hertz] of [
    [0, 660],
    [0.22, 880],
  ] as const) {
    const tone = context.createOscillator();
    const loud = context.createGain();
    loud.gain.value = 0.15;
    tone.frequency.value = hertz;
    tone.connect(loud).connect(context.destination);
    tone.start(context.currentTime + at);
    tone.stop(context.currentTime + at + 0.16);
  }
  setTimeout(() => void context.close(), 1000);
}

/** Says once of each wait that it has become ready or takes too long, also when another page is in front. */
class Alarm {
  on = $state(localStorage.getItem('knot-alarm') === 'on');
  #said: Record<string, string> | null = null;

  async set(wanted: boolean) {
    this.on = wanted;
    localStorage.setItem('knot-alarm', wanted ? 'on' : 'off');
    if (wanted && 'Notification' in window && Notification.permission === 'default')
      await Notification.requestPermission();
  }

  hear(waits: Wait[]) {
    const now: Record<string, string> = {};
    const news: Wait[] = [];
    for (const wait of waits) {
      const key = `${wait.endpointId} ${wait.step}`;
      now[key] = wait.pace;
      const ripe = wait.pace === 'LATE' || wait.pace === 'TOO_LONG';
      if (ripe && this.#said && this.#said[key] !== wait.pace) news.push(wait);
    }
    this.#said = now;
    if (this.on && news.length) this.#say(news);
  }

  #say(news: Wait[]) {
    if ('AudioContext' in window) sound();
    if ('Notification' in window && Notification.permission === 'granted')
      for (const wait of news)
        new Notification(wait.endpoint, {
          body:
            wait.pace === 'TOO_LONG'
              ? `${wait.step} takes longer than it ever does.`
              : `${wait.step} should be ready. Look for: ${wait.lookFor}.`,
          tag: `${wait.endpointId} ${wait.step}`,
        });
  }
}

export const alarm = new Alarm();
