"""A hand at the bench: it types, taps and counts its acts."""

import re
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from playwright.sync_api import Page, expect

Look = Callable[["Hand"], None]

# Asked of the page in one breath: between finding a button and measuring it,
# what the server sent may take its place.
BUTTON_BOTTOM = """() => {
  const shown = [...document.querySelectorAll(".ask [data-send], .ask [data-next], .ask .answer")]
    .find((button) => button.checkVisibility());
  return shown && shown.getBoundingClientRect().bottom;
}"""


@dataclass
class Hand:
    """Works at a page by keyboard or by touch; `acts` counts keys and taps, a value as one."""

    page: Page
    touch: bool = False
    acts: int = 0

    def line(self) -> str:
        """The next line."""
        return " ".join(self.page.locator(".next-line h1").inner_text().split())

    def sees(self, words: str) -> None:
        """Wait for words in the next line."""
        expect(self.page.locator(".next-line h1")).to_contain_text(re.compile(re.escape(words)))

    def value(self, text: str) -> None:
        """Enter a value in the open step and send it: one act."""
        field = self.page.locator(".ask-form [data-entry]")
        if self.touch:
            field.fill(text)
            self.page.locator(".ask-form [data-send], .ask-form [data-next]").first.tap()
        else:
            expect(field).to_be_focused()
            self.page.keyboard.type(text)
            self.page.keyboard.press("Enter")
        self.acts += 1

    def next(self) -> None:
        """The one big button: a tap, or Enter."""
        button = self.page.locator(".ask [data-next]").first
        if self.touch:
            button.tap()
        else:
            # Where there is a field it has the focus, and Enter sends it just the same.
            field = self.page.locator(".ask-form [data-entry]")
            expect(field if field.count() else button).to_be_focused()
            self.page.keyboard.press("Enter")
        self.acts += 1

    def press(self, name: str) -> None:
        """A button by its words."""
        button = self.page.get_by_role("button", name=name).first
        if self.touch:
            button.tap()
        else:
            button.focus()
            self.page.keyboard.press("Enter")
        self.acts += 1

    def before_setting(self, look: Look = lambda _: None) -> None:
        """From the stands to the first pack, the shortest way: sound, only its setting is out."""
        self.tick_on(("Chock", "Lift it"), look)
        expect(self.page.locator(".ask .answers")).to_be_visible()
        look(self)
        self.answer(1)
        self.press("Enough: to the verdict")
        self.sees("What is it, and what has to be done")
        look(self)
        self.answer(2)

    def tick_on(self, lines: Sequence[str], look: Look = lambda _: None) -> None:
        """Tick one step after the other, looking at each."""
        for words in lines:
            self.sees(words)
            look(self)
            self.next()

    def answer(self, number: int) -> None:
        """One of the answers: a tap, or its digit."""
        button = self.page.locator(f'.ask [data-key="{number}"]').first
        if self.touch:
            button.tap()
        else:
            expect(button).to_be_visible()
            self.page.keyboard.press(str(number))
        self.acts += 1

    def fits_the_fold(self) -> None:
        """The open step and its button stand above the fold, and nothing scrolls sideways."""
        bottom = self.page.wait_for_function(BUTTON_BOTTOM).json_value()
        view = self.page.viewport_size
        assert view is not None
        assert bottom <= view["height"], f"{self.line()}: {bottom}"
        wide = self.page.evaluate(
            "document.documentElement.scrollWidth - document.documentElement.clientWidth"
        )
        assert wide <= 0, self.line()
