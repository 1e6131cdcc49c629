/** Between two answers of the server its clock is held against our own. */
const APART = 2_000;

/** The server's time, ticking. The browser's own clock may be wrong; only its seconds are trusted. */
class ServerClock {
  /** A moment by the browser's clock and by the server's, and how fast that goes: a demo can be on quick time. */
  #seen = { here: Date.now(), there: Date.now() };
  #pace = 1;
  #told = false;
  #tick = $state(Date.now());

  constructor() {
    setInterval(() => (this.#tick = Date.now()), 1000);
  }

  /** Sets the clock by a time that the server just sent. */
  set(serverNow: string) {
    const here = Date.now(),
      there = Date.parse(serverNow);
    const apart = here - this.#seen.here;
    if (this.#told && apart < APART) return;
    const pace = this.#told ? Math.round((there - this.#seen.there) / apart) : 1;
    this.#pace = pace >= 2 && pace <= 120 ? pace : 1;
    this.#told = true;
    this.#seen = { here, there };
    this.#tick = here;
  }

  get millis() {
    return this.#seen.there + (this.#tick - this.#seen.here) * this.#pace;
  }

  /** Minutes since a time that the server noted. */
  minutesSince(iso: string) {
    return Math.max(0, (this.millis - Date.parse(iso)) / 60_000);
  }
}

export const serverClock = new ServerClock();
