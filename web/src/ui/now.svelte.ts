/** The server's time, ticking. The browser's own clock may be wrong; only its seconds are trusted. */
class ServerClock {
  #offset = 0;
  #tick = $state(Date.now());

  constructor() {
    setInterval(() => (this.#tick = Date.now()), 1000);
  }

  /** Sets the clock by a time that the server just sent. */
  set(serverNow: string) {
    this.#offset = Date.parse(serverNow) - Date.now();
  }

  get millis() {
    return this.#tick + this.#offset;
  }

  /** Minutes since a time that the server noted. */
  minutesSince(iso: string) {
    return Math.max(0, (this.millis - Date.parse(iso)) / 60_000);
  }
}

export const serverClock = new ServerClock();
