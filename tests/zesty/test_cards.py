"""Spec cards: the section is the form, a field at a time; a version never changes."""

from typing import Any

import pytest
from bs4 import BeautifulSoup

from wheelend.arrangements import KEYS
from zesty.cards.models import CardDraft, CardVersion, SpecCard

from .conftest import Shop, text


def begin(shop: Shop, **more: str) -> tuple[Any, str]:
    client = shop.client("lead")
    answer = client.post(f"/cards/{shop.card.pk}/edit", more)
    assert answer.status_code == 302
    return client, answer["Location"]


def test_a_card_is_changed_a_field_at_a_time_and_kept_with_its_reasons(shop: Shop) -> None:
    client, path = begin(shop)
    page = BeautifulSoup(client.get(f"{path}?at=stack.2").content, "html.parser")
    assert len(page.select(".field-lines form")) <= 14
    assert page.select("svg a.part-link")
    sent = {"path": "stack.2.width", "typed": "15,2"}
    assert client.post(f"{path}?at=stack.2", sent).status_code == 302
    assert (
        client.post(
            f"{path}?at=settings.0", {"path": "settings.0.torque", "typed": "48 lbf·ft"}
        ).status_code
        == 302
    )
    answer = client.post(f"{path}keep", {"reason:stack.2.width": "measured"})
    assert answer.status_code == 422
    assert "Give a reason for each change" in answer.content.decode()
    answer = client.post(f"{path}keep", {"reason:stack.2.width": "measured", "reason": "new sheet"})
    assert answer.status_code == 302
    version = shop.card.versions.first()
    assert version.number == 2
    assert version.document["stack"][2]["width"] == "15,2 mm"
    assert version.reasons == {"stack.2.width": "measured", "settings.0.torque": "new sheet"}
    assert not CardDraft.objects.exists()
    assert shop.unit.unit.card_version.number == 1
    shown = client.get(f"/cards/{shop.card.pk}/").content.decode()
    assert "What version 2 changed" in shown
    assert "new sheet" in shown


@pytest.mark.parametrize(
    ("path", "typed", "says"),
    [
        ("settings.0.torque", "48 mm", "Nut torque: &quot;48 mm&quot; is not a torque"),
        ("settings.0.limits.low", "0.9 mm", "is above high"),
        ("stack.99.width", "1 mm", "no such line"),
        ("settings.0.limits", "0.05 mm", "needs the least and the most"),
        ("settings.0.limits", "0.9 to 0.1", "End play: low 0.9 is above high 0.1; swap them."),
        ("settings.0.drag", "1 to 2 mm", "is not a torque"),
        ("nowhere.at", "1", "is no field"),
        ("arrangement", "tricycle", "is not known"),
        ("read_at", "12, left", "is not a clock position"),
        ("settings.0.method", "", "is missing"),
    ],
)
def test_what_cannot_be_is_refused_and_what_was_typed_stays(
    shop: Shop, path: str, typed: str, says: str
) -> None:
    client, address = begin(shop)
    answer = client.post(f"{address}?at=settings.0", {"path": path, "typed": typed})
    assert answer.status_code == 422
    assert says in answer.content.decode()
    assert CardDraft.objects.get().document == shop.card.versions.get().document


@pytest.mark.parametrize(
    ("path", "typed", "kept"),
    [
        ("settings.0.limits", "0.05 to 0.15", {"low": "0.05 mm", "high": "0.15 mm"}),
        ("settings.0.limits", "2 to 6 thou", {"low": "2 thou", "high": "6 thou"}),
        ("settings.0.drag", "0.5 N·m to 1.1 N·m", {"low": "0.5 N·m", "high": "1.1 N·m"}),
        ("settings.0.stand_out", "-0.1 to 0.2", {"low": "-0.1 mm", "high": "0.2 mm"}),
        ("lubricant.adds", "0.1 to 0.2", {"low": "0.1 N·m", "high": "0.2 N·m"}),
        ("recheck.days", "30", 30),
    ],
)
def test_a_least_and_a_most_are_typed_as_one(shop: Shop, path: str, typed: str, kept: Any) -> None:
    client, address = begin(shop)
    at = path.rpartition(".")[0]
    page = BeautifulSoup(client.get(f"{address}?at={at}").content, "html.parser")
    assert page.select_one(f'.field-lines input[name=path][value="{path}"]'), path
    assert client.post(f"{address}?at={at}", {"path": path, "typed": typed}).status_code == 302
    found: Any = CardDraft.objects.get().document
    for word in path.split("."):
        found = found[int(word)] if isinstance(found, list) else found[word]
    assert found == kept
    field = BeautifulSoup(client.get(f"{address}?at={at}").content, "html.parser").select_one(
        f'form:has(input[value="{path}"]) input[name=typed]'
    )
    assert field is not None
    sent = {"path": path, "typed": str(field["value"])}
    assert client.post(f"{address}?at={at}", sent).status_code == 302, "as shown, it is read again"


def test_a_setting_shows_the_fields_of_its_way_and_folds_the_others(shop: Shop) -> None:
    client, address = begin(shop)
    page = BeautifulSoup(client.get(f"{address}?at=settings.0").content, "html.parser")
    open_fields = {
        str(one["value"]) for one in page.select("section > .field-lines input[name=path]")
    }
    folded = {str(one["value"]) for one in page.select("details.further input[name=path]")}
    assert "settings.0.limits" in open_fields
    assert "settings.0.first_step" in folded
    assert len(open_fields) <= 18
    assert not open_fields & folded
    lock = BeautifulSoup(client.get(f"{address}?at=settings.0.lock").content, "html.parser")
    assert lock.select_one('input[value="settings.0.lock.pitch"]')


@pytest.mark.parametrize("key", KEYS)
def test_a_new_card_is_drawn_at_once_and_says_what_it_lacks(shop: Shop, key: str) -> None:
    client = shop.client("lead")
    answer = client.post("/cards/new", {"name": f"new {key}", "arrangement": key})
    assert answer.status_code == 302
    page = client.get(answer["Location"]).content.decode()
    assert "what hands can feel here" in page
    assert "<svg" in page
    assert client.post(answer["Location"] + "keep").status_code == 302
    card = SpecCard.objects.get(name=f"new {key}")
    assert card.versions.count() == 1
    assert client.get(f"/cards/{card.pk}/").status_code == 200


def test_a_copy_is_a_card_of_its_own(shop: Shop) -> None:
    client, path = begin(shop, copy="1")
    assert client.post(f"{path}keep").status_code == 302
    assert SpecCard.objects.filter(name="hub, copy").exists()


def test_two_who_change_one_card_the_later_is_told(shop: Shop) -> None:
    client, path = begin(shop)
    client.post(f"{path}?at=card", {"path": "note", "typed": "faces dry"})
    owner = shop.client("owner")
    other = owner.post(f"/cards/{shop.card.pk}/edit")["Location"]
    owner.post(f"{other}?at=card", {"path": "note", "typed": "faces oiled"})
    assert owner.post(f"{other}keep", {"reason": "sheet says so"}).status_code == 302
    answer = client.post(f"{path}keep", {"reason": "mine"})
    assert answer.status_code == 422
    assert "made version 2 while you edited version 1" in answer.content.decode()
    assert CardVersion.objects.filter(card=shop.card).count() == 2


def test_lines_are_put_in_and_taken_out(shop: Shop) -> None:
    client, path = begin(shop)
    answer = client.post(f"{path}line", {"group": "stack", "index": 3})
    assert answer["Location"].endswith("at=stack.3")
    assert (
        client.post(f"{path}line", {"group": "stack", "index": 3, "drop": "1"}).status_code == 302
    )
    assert (
        client.post(f"{path}line", {"group": "settings", "index": 0, "drop": "1"}).status_code
        == 422
    )
    assert (
        client.post(f"{path}line", {"group": "stack", "index": 77, "drop": "1"}).status_code == 422
    )
    assert CardDraft.objects.get().document == shop.card.versions.get().document


def test_nothing_changed_is_nothing_kept(shop: Shop) -> None:
    client, path = begin(shop)
    answer = client.post(f"{path}keep", {"reason": "x"})
    assert answer.status_code == 422
    assert client.post(f"{path}keep", {"drop": "1"}).status_code == 302
    assert not CardDraft.objects.exists()


def test_a_card_is_renamed_with_a_reason_and_never_to_a_name_that_is_taken(shop: Shop) -> None:
    client, path = begin(shop, copy="1")
    assert client.post(f"{path}keep").status_code == 302
    client, path = begin(shop)
    client.post(f"{path}?at=rest", {"path": "name", "typed": "hub, copy"})
    answer = client.post(f"{path}keep", {"reason": "clearer"})
    assert answer.status_code == 422
    assert "There is a card “hub, copy” already" in answer.content.decode()
    client.post(f"{path}?at=rest", {"path": "name", "typed": "rear hub"})
    assert client.post(f"{path}keep", {"reason": "clearer"}).status_code == 302
    shop.card.refresh_from_db()
    assert shop.card.name == "rear hub"
    assert shop.card.versions.get(number=1).document["name"] == "hub"


def test_choices_facts_limits_of_wear_and_the_kit_are_fields_too(shop: Shop) -> None:
    client, path = begin(shop)
    for field, typed in (("choices.lock_policy", "torque_window"), ("facts.encoder", "magnetic"),
                         ("wear.face_runout", "0.05"), ("kit", "seal, pin")):  # fmt: skip
        at = field.partition(".")[0]
        answer = client.post(f"{path}?at={at}", {"path": field, "typed": typed})
        assert answer.status_code == 302, (field, text(answer)[:300])
    for at, words in (("choices", "When no place lines up"), ("facts", "Encoder"), ("wear", "Hub-face runout"),
                      ("card", "The kit contains")):  # fmt: skip
        assert words in text(client.get(f"{path}?at={at}"))
    assert "Where a cartridge is changed" not in text(client.get(f"{path}?at=choices"))
    said = CardDraft.objects.get().document
    assert said["wear"] == {"face_runout": "0.05 mm"}
    assert said["kit"] == ["seal", "pin"]
    refused = client.post(f"{path}?at=facts", {"path": "facts.encoder", "typed": "loud"})
    assert refused.status_code == 422


def test_fits_seals_heat_and_grease_are_fields_too(shop: Shop) -> None:
    """A fit is added, its ring picked by name, and a bare number takes its field's unit."""
    client, page = begin(shop)
    to = f"{page}line"
    client.post(to, {"group": "stack", "index": 2})
    client.post(page, {"path": "stack.2.part", "typed": "cup"})
    client.post(page, {"path": "stack.2.name", "typed": "inner cup"})
    client.post(to, {"group": "fits", "index": 0})
    client.post(to, {"group": "seals", "index": 0})
    for path, typed in (
        ("fits.0.part", "inner cup"), ("fits.0.material", "aluminium"), ("fits.0.seat_low", "61.97"), ("fits.0.race", "58"),
        ("seals.0.depth_high", "0.5"), ("heat_limits.housing", "120"), ("lubricant.fill", "0.7"),
        ("lubricant.settle", "10"),
    ):  # fmt: skip
        assert (
            client.post(f"{page}?at=fits.0", {"path": path, "typed": typed}).status_code == 302
        ), path
    said = CardDraft.objects.get().document
    assert said["fits"][0]["seat_low"] == "61.97 mm"
    assert said["heat_limits"] == {"housing": "120 degC"}
    assert said["lubricant"] == {"fill": 0.7, "settle": "10 min"}
    shown = text(client.get(f"{page}?at=fits.0"))
    assert "Fit of the inner cup" in shown
    assert "Seat, least" in shown
    refused = client.post(f"{page}?at=lubricant", {"path": "lubricant.fill", "typed": "1,4"})
    assert refused.status_code == 422
    assert "1,4" in refused.content.decode()
