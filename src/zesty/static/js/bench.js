/* Small Alpine components of the bench, and what the page says when a save did not get through. */

document.addEventListener("alpine:init", () => {
  Alpine.data("keypad", () => ({
    press(event) {
      const key = event.currentTarget.dataset.key;
      const input = this.$root.closest("form").querySelector("[data-entry]");
      if (!input) return;
      if (key === "⌫") input.value = input.value.slice(0, -1);
      else if (key === "±") input.value = input.value.startsWith("-") ? input.value.slice(1) : `-${input.value}`;
      else input.value += key;
      if (matchMedia("(pointer: fine)").matches) input.focus();
    },
  }));

  Alpine.data("printer", () => ({
    print() {
      window.print();
    },
  }));

  Alpine.data("packfield", () => ({
    input() {
      return this.$root.querySelector("[name=pack]");
    },
    add(event) {
      const input = this.input();
      const shim = event.currentTarget.dataset.shim;
      input.value = input.value.trim() ? `${input.value}, ${shim}` : shim;
    },
    clear() {
      this.input().value = "";
    },
  }));

  Alpine.data("keys", () => ({
    open() {
      this.$refs.keys.showModal();
    },
    press(event) {
      const typing = event.target.matches("textarea, input:not([data-entry]), select");
      if (event.key === "?" && !typing) {
        event.preventDefault();
        this.open();
        return;
      }
      if (event.ctrlKey || event.metaKey) return;
      const hot = event.altKey ? `[data-hot="${event.key.toLowerCase()}"]` : this.answer(event);
      const target = hot && document.querySelector(hot);
      if (!target) return;
      event.preventDefault();
      target.click();
    },
    answer(event) {
      const writing = event.target.matches("textarea, input:not([type=radio], [type=checkbox]), select");
      return !writing && /^[1-9]$/.test(event.key) ? `#main [data-key="${event.key}"]:not(.keypad *)` : "";
    },
  }));
});

const unsaved = (shown) => {
  document.querySelector(".unsaved").hidden = !shown;
};
/* What the page asks of itself saves nothing. */
const asksItself = (event) => event.detail.elt === document.body;
const tellUnsaved = (event) => asksItself(event) || unsaved(true);
document.addEventListener("htmx:sendError", tellUnsaved);
document.addEventListener("htmx:responseError", tellUnsaved);
document.addEventListener("htmx:beforeSwap", (event) => asksItself(event) || unsaved(false));

/* A page that was left open is read again when it is looked at again, unless something is half entered. */
const halfEntered = (stage) =>
  [...stage.querySelectorAll("input:not([type=hidden]), textarea")].some((one) =>
    one.type === "checkbox" || one.type === "radio" ? one.checked !== one.defaultChecked : one.value !== one.defaultValue,
  );
document.addEventListener("visibilitychange", () => {
  const stage = document.getElementById("stage");
  if (document.visibilityState !== "visible" || !stage || location.search || halfEntered(stage)) return;
  htmx.ajax("GET", location.pathname, { target: "#stage", swap: "outerHTML" });
});

/* What is due next must be seen: after a tap far down, the page goes back to its line. */
document.addEventListener("htmx:afterSettle", (event) => {
  if (event.detail.target?.id === "timers") return;
  const line = document.querySelector("#stage .next-line");
  if (line && line.getBoundingClientRect().top < 0) line.scrollIntoView({ block: "start" });
});
