/* Typing while saving loses nothing.

   What is entered before the answer has come waits its turn, and what is half typed stays in the
   field that comes next. Only one request is under way; the rest is sent in its order, and only
   into the step that it was meant for. */

(() => {
  let busy = false;
  let sent = null;
  let partial = "";
  const waiting = [];

  const stage = () => document.getElementById("stage");
  const form = () => stage()?.querySelector("form.ask-form");
  const field = () => stage()?.querySelector("form.ask-form [data-entry]");
  const stepOf = (one) => one?.querySelector("[name=step]")?.value;
  const repeats = (one) => one?.dataset.repeats === "yes";

  const tell = () => {
    const place = stage()?.querySelector(".ask");
    if (!place) return;
    place.querySelector(".still-to-come")?.remove();
    const values = waiting.map((one) => one.value).filter(Boolean);
    if (!values.length) return;
    const line = document.createElement("p");
    line.className = "hint still-to-come";
    line.textContent = `Typed ahead, not written yet: ${values.join(", ")}`;
    place.append(line);
  };

  document.addEventListener("submit", (event) => {
    const one = event.target.closest?.("form.ask-form");
    if (!one || !busy) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    const input = one.querySelector("[data-entry]");
    if (input?.value) {
      waiting.push({ step: stepOf(one), value: input.value });
      input.value = "";
    } else if (repeats(one)) {
      waiting.push({ step: stepOf(one), tap: event.submitter?.dataset.tap });
    }
    tell();
  }, true);

  document.addEventListener("htmx:configRequest", (event) => {
    const one = event.target.closest?.("form.ask-form");
    if (!one) return;
    busy = true;
    const input = one.querySelector("[data-entry]");
    sent = input ? input.value : null;
    if (input) input.value = partial;
    partial = "";
  });

  document.addEventListener("htmx:beforeSwap", (event) => {
    if (event.detail.target?.id === "stage" && busy) partial = field()?.value ?? "";
  });

  const focus = () => {
    const next = field() ?? stage()?.querySelector(".ask textarea") ?? stage()?.querySelector("[data-next]");
    if (!next || !matchMedia("(pointer: fine)").matches) return;
    next.focus({ preventScroll: true });
    if (next.matches("input")) next.setSelectionRange(next.value.length, next.value.length);
  };

  const goOn = () => {
    const next = waiting[0];
    const here = form();
    if (!next || !here || stepOf(here) !== next.step) return false;
    waiting.shift();
    if (next.value) {
      field().value = next.value;
      here.requestSubmit();
    } else {
      const button = next.tap && here.querySelector(`[data-tap="${next.tap}"]`);
      here.requestSubmit(button || undefined);
    }
    return true;
  };

  /* Only a settled form is one that htmx sends; until then everything waits. */
  document.addEventListener("htmx:afterSettle", (event) => {
    if (event.detail.target?.id !== "stage" && event.target?.id !== "stage") return;
    busy = false;
    sent = null;
    if (stage()?.getBoundingClientRect().top < 0) window.scrollTo({ top: 0 });
    const refused = event.detail.xhr?.status === 422;
    if (refused || !goOn()) {
      const input = field();
      if (partial && input && !refused && !input.value) {
        input.value = partial;
        partial = "";
      }
      focus();
    }
    tell();
  });

  const failed = (event) => {
    if (event.detail.elt === document.body) return;
    busy = false;
    const input = field();
    if (input && sent !== null && !input.value) input.value = sent;
    else if (sent) waiting.unshift({ step: stepOf(form()), value: sent });
    sent = null;
    tell();
  };
  document.addEventListener("htmx:sendError", failed);
  document.addEventListener("htmx:timeout", failed);
  document.addEventListener("htmx:responseError", failed);

  /* On a glove's screen the page has its own pad: the device's keyboard stays down. */
  const ownPad = () => {
    if (!matchMedia("(pointer: coarse)").matches) return;
    document.querySelectorAll("#stage .keypad").forEach((pad) => {
      pad.closest("form").querySelector("[data-entry]")?.setAttribute("inputmode", "none");
    });
  };
  document.addEventListener("htmx:afterSettle", ownPad);
  document.addEventListener("DOMContentLoaded", () => { ownPad(); focus(); });
})();
