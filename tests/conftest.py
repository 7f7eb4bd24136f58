"""For every test: Hypothesis without deadlines, and an arrangement that is nobody's."""

from pathlib import Path

import pytest
from hypothesis import settings

from wheelend import arrangements
from wheelend.arrangements import loading

# A test must pass on a machine ten times slower.
settings.register_profile("patient", deadline=None)
settings.load_profile("patient")

MADE_UP = Path(__file__).with_name("made_up.toml").read_text(encoding="utf-8")


@pytest.fixture
def made_up(monkeypatch: pytest.MonkeyPatch) -> None:
    """One more file among the arrangements: `made_up`. No Python knows it."""
    monkeypatch.setattr(arrangements, "KEYS", (*arrangements.KEYS, "made_up"))
    monkeypatch.setattr(
        arrangements, "text_of", lambda key: MADE_UP if key == "made_up" else loading.text_of(key)
    )
