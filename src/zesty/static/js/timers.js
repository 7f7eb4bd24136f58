/* Countdowns. A page counts by itself from what the server said, and asks again seldom: once a minute, and
   when it was asleep. */

const ASK_EVERY = 60_000;
const ASLEEP = 5_000;

const clockOf = (seconds) => {
  const two = (number) => String(number).padStart(2, "0");
  const hours = Math.floor(seconds / 3600);
  const minutes = Math.floor(seconds / 60) % 60;
  return hours ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
};

/* Calls `tick` with the seconds that passed, four times a second, and `woke` where the machine's clock jumped. */
const counting = (tick, woke) => {
  const begun = performance.now();
  const wall = Date.now();
  return setInterval(() => {
    const passed = performance.now() - begun;
    if (Math.abs(Date.now() - wall - passed) > ASLEEP) woke();
    else tick(passed / 1000);
  }, 250);
};

const beep = () => {
  navigator.vibrate?.([300, 150, 300]);
  const Context = window.AudioContext;
  if (!Context) return;
  const sound = new Context();
  for (const at of [0, 0.35, 0.7]) {
    const tone = sound.createOscillator();
    tone.frequency.value = 880;
    tone.connect(sound.destination);
    tone.start(sound.currentTime + at);
    tone.stop(sound.currentTime + at + 0.2);
  }
};

document.addEventListener("alpine:init", () => {
  Alpine.data("countdown", () => ({
    shown: "",
    over: "",
    init() {
      const left = Number(this.$root.dataset.left);
      const tick = (passed) => {
        const now = Math.max(0, Math.ceil(left - passed));
        this.shown = clockOf(now);
        if (now > 0 || this.over) return;
        this.over = "Time is over.";
        this.$root.classList.add("over");
      };
      this.timer = counting(tick, () => this.again());
      tick(0);
    },
    /* After sleep the server says what is left; what was being typed stays. */
    again() {
      clearInterval(this.timer);
      const field = () => document.querySelector("#stage form.ask-form [data-entry]");
      const typed = field()?.value;
      htmx.ajax("GET", location.pathname, { target: "#stage", swap: "outerHTML" }).then(() => {
        if (typed && field()) field().value = typed;
      });
    },
    destroy() {
      clearInterval(this.timer);
    },
  }));

  Alpine.data("timers", () => ({
    said: "",
    init() {
      this.clocks = [...this.$root.querySelectorAll("[data-left]")];
      this.asked = new Set();
      this.timer = counting((passed) => this.tick(passed), () => this.refresh());
      this.poll = setInterval(() => this.refresh(), ASK_EVERY);
      this.seen = () => document.visibilityState === "visible" && this.refresh();
      document.addEventListener("visibilitychange", this.seen);
      if (this.$root.dataset.ringing) this.ring();
    },
    destroy() {
      clearInterval(this.timer);
      clearInterval(this.poll);
      document.removeEventListener("visibilitychange", this.seen);
    },
    tick(passed) {
      for (const one of this.clocks) {
        const left = Math.max(0, Math.ceil(Number(one.dataset.left) - passed));
        one.textContent = clockOf(left);
        if (left > 0) continue;
        one.closest("li").classList.add("over");
        if (one.dataset.ring && !this.asked.has(one)) this.claim(one);
      }
    },
    /* The server says on which page it rings; a form that is open is not taken away. */
    claim(one) {
      if (this.busy()) return;
      this.asked.add(one);
      this.send("POST", one.dataset.ring);
    },
    refresh() {
      if (!this.busy()) this.send("GET", this.$root.dataset.from);
    },
    send(verb, to) {
      const at = new URL(this.$root.dataset.from, location.href).searchParams.get("at");
      htmx.ajax(verb, to, { target: "#timers", swap: "outerHTML", values: verb === "POST" ? { at } : {} });
    },
    busy() {
      return Boolean(this.$root.querySelector("details[open]"));
    },
    ring() {
      this.said = "Time is over.";
      beep();
    },
  }));
});
