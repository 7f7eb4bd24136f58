"""What an action says when it will not do something: a sentence for the person who asked."""


class Refused(Exception):
    """An action's refusal; `field` names the form field it belongs to, where there is one."""

    def __init__(self, sentence: str, field: str | None = None) -> None:
        super().__init__(sentence)
        self.sentence, self.field = sentence, field


class Unjudged(Exception):
    """What is stored could not be judged or shown; the sentence says what stands in the way."""
