/* Small Alpine components of the bench, and what the page says when a save did not get through. */

document.addEventListener("alpine:init", () => {
  const field = () => document.querySelector("[data-entry]");

  Alpine.data("keypad", () => ({
    press(event) {
      const key = event.currentTarget.dataset.key;
      const input = field();
      if (!input) return;
      if (key === "⌫") input.value = input.value.slice(0, -1);
      else if (key === "±") input.value = input.value.startsWith("-") ? input.value.slice(1) : `-${input.value}`;
      else input.value += key;
      input.focus();
    },
  }));

  Alpine.data("packfield", () => ({
    into: "pack",
    aim(event) {
      if (event.target.name?.startsWith("pack")) this.into = event.target.name;
    },
    add(event) {
      const input = this.$root.querySelector(`[name=${this.into}]`);
      const shim = event.currentTarget.dataset.shim;
      input.value = input.value.trim() ? `${input.value}, ${shim}` : shim;
      input.focus();
    },
  }));

  Alpine.data("keys", () => ({
    open() {
      this.$refs.keys.showModal();
    },
    press(event) {
      const typing = event.target.matches("textarea, input:not([data-entry])");
      if (event.key === "?" && !typing) {
        event.preventDefault();
        this.open();
      }
      if (!event.altKey || event.ctrlKey || event.metaKey) return;
      const target = document.querySelector(`[data-hot="${event.key.toLowerCase()}"]`);
      if (!target) return;
      event.preventDefault();
      target.click();
    },
  }));
});

const unsaved = (shown) => {
  document.querySelector(".unsaved").hidden = !shown;
};
document.addEventListener("htmx:sendError", () => unsaved(true));
document.addEventListener("htmx:responseError", () => unsaved(true));
document.addEventListener("htmx:beforeSwap", () => unsaved(false));

/* A page that was left open is read again when it is looked at again, unless something is being typed. */
document.addEventListener("visibilitychange", () => {
  const stage = document.getElementById("stage");
  const busy = document.querySelector("#stage form [data-entry]")?.value || location.search;
  if (document.visibilityState === "visible" && stage && !busy) {
    htmx.ajax("GET", location.pathname, { target: "#stage", swap: "outerHTML" });
  }
});
