"""A method that is nobody's: adding one is a folder and a word."""

import sys
from dataclasses import replace
from importlib import import_module
from pathlib import Path

import pytest

from wheelend import methods
from wheelend.arrangements import vocabulary
from wheelend.card import card_from, fields
from wheelend.methods import claims_of, judge

from .test_items import demo_cards
from .worked import Worked

FOLDER = '''
"""Set by its sound."""

from wheelend.methods.judgement import Bench, Claim, PlainJudgement


class ByEar(PlainJudgement):
    is_set = True
    claims = (Claim("setting", "It sings", True, "a clear A"),)


def judge(bench: Bench) -> ByEar:
    return ByEar(bench)
'''


def test_a_made_up_method_is_one_folder_and_one_word(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    folder = tmp_path / "by_ear"
    folder.mkdir()
    (folder / "__init__.py").write_text(FOLDER, encoding="utf-8")
    monkeypatch.setattr(methods, "__path__", [*methods.__path__, str(tmp_path)])
    card = card_from(demo_cards()["cartridge"])
    work = Worked(card=replace(card, settings=(replace(card.settings[0], method="by_ear"),)))
    try:
        found = judge(work.bench)
        assert type(found).__name__ == "ByEar"
        assert any(claim.name == "It sings" for claim in claims_of(work.bench, found))
        assert work.statement != "proven"
    finally:
        sys.modules.pop("wheelend.methods.by_ear", None)


def test_a_card_takes_the_methods_of_the_list_and_no_others() -> None:
    (method,) = [field for field in fields.SETTING if field.key == "method"]
    assert method.reader.schema() == {"enum": list(vocabulary.METHODS)}
    for name in vocabulary.METHODS:
        assert import_module(f"wheelend.methods.{name}").judge
