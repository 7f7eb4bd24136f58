"""Check, strip, clean and match through their pages: what is asked, what is said, what is refused."""

import io
from typing import Any

import pytest
from bs4 import BeautifulSoup
from PIL import Image

from zesty.bench.models import Job, Photo
from zesty.elements import pictures
from zesty.elements.refused import Refused

from .conftest import Shop, text


def line_of(shop: Shop, stage: str, client: Any = None, **query: str) -> str:
    page = (client or shop.client()).get(f"/jobs/{shop.job.pk}/1/{stage}/", query)
    soup = BeautifulSoup(page.content, "html.parser")
    return " ".join(soup.select_one(".next-line h1").get_text(" ").split())  # type: ignore[union-attr]


def post(shop: Shop, step: str, stage: str, **data: Any) -> Any:
    return shop.post(shop.client(), step, stage, **data)


def test_the_next_check_is_advised_and_the_causes_move(shop: Shop) -> None:
    shop.until("findings")
    before = text(shop.client().get(f"/jobs/{shop.job.pk}/1/check/"))
    assert "What would tell most per minute" in before
    assert post(shop, "findings", "check", place="nut_found", answer="slack").status_code == 302
    page = text(shop.client().get(f"/jobs/{shop.job.pk}/1/check/"))
    assert "nut or bolts slack" in page
    assert "Not to be driven or run" in page
    assert "Enough: to the verdict" in page


def test_another_check_is_opened_and_answered_again_and_the_later_counts(shop: Shop) -> None:
    shop.until("findings")
    assert "12 and 6" in line_of(shop, "check", step="findings", place="hands_12_6")
    for answer in ("clear", "none"):
        assert post(shop, "findings", "check", place="hands_12_6", answer=answer).status_code == 302
    rows = [row for row in shop.file.entries if row.place == "hands_12_6"]
    assert [row.typed for row in rows] == ["clear", "none"]
    page = text(shop.client().get(f"/jobs/{shop.job.pk}/1/check/"))
    assert "Rocked at 12 and 6 none" in page


@pytest.mark.parametrize(
    "data",
    [{"place": "hands_12_6", "answer": "purple"}, {"place": "the_cat", "answer": "none"}, {}],
)
def test_an_answer_that_is_none_is_one_sentence_and_nothing_is_written(
    shop: Shop, data: dict[str, str]
) -> None:
    shop.until("findings")
    before = len(shop.file.entries)
    answer = post(shop, "findings", "check", **data)
    assert answer.status_code == 422
    assert len(shop.file.entries) == before
    assert "Traceback" not in text(answer)


def test_contradicting_answers_are_told_and_nothing_is_lost(shop: Shop) -> None:
    shop.until("findings")
    for place, answer in (("hands_12_6", "none"), ("hands_9_3", "none"), ("brake_on", "stays")):
        post(shop, "findings", "check", place=place, answer=answer)
    page = text(shop.client().get(f"/jobs/{shop.job.pk}/1/check/"))
    assert "contradict each other" in page


def test_the_other_end_of_the_axle_joins_with_one_press(shop: Shop) -> None:
    shop.until("verdict")
    client = shop.client()
    page = client.get(f"/jobs/{shop.job.pk}/1/check/")
    button = BeautifulSoup(page.content, "html.parser").select_one(
        "form[action$='other-end'] [name=wheel_end]"
    )
    assert button
    answer = client.post(f"/jobs/{shop.job.pk}/1/check/other-end", {"wheel_end": button["value"]})
    assert answer.status_code == 302
    assert Job.objects.get(pk=shop.job.pk).units.count() == 2
    again = client.post(f"/jobs/{shop.job.pk}/1/check/other-end", {"wheel_end": button["value"]})
    assert "is open on" in text(again)


def test_nothing_wrong_goes_to_prove_and_says_what_hands_feel(shop: Shop) -> None:
    shop.until("findings")
    post(shop, "findings", "check", place="turn_by_hand", answer="smooth")
    post(shop, "findings", "check", enough="yes")
    post(shop, "verdict", "check", answer="nothing_wrong")
    page = shop.client().get(f"/jobs/{shop.job.pk}/")
    assert page["Location"].endswith("/prove/")
    rule = text(shop.client().get(page["Location"]))
    assert "Strip" not in rule.split("Prove")[0]


def test_a_missing_part_is_named_while_the_stack_comes_off(shop: Shop) -> None:
    shop.until("stack_off")
    card = shop.unit.card
    spacer = next(f"p{i}" for i, part in enumerate(card.stack) if part.part == "spacer")
    assert post(shop, "stack_off", "strip", place=spacer, answer="missing").status_code == 302
    page = text(shop.client().get(f"/jobs/{shop.job.pk}/1/strip/"))
    assert "The spacer is not there" in page
    post(shop, "stack_off", "strip", extra="second washer")
    assert "The card has no second washer." in text(
        shop.client().get(f"/jobs/{shop.job.pk}/1/strip/")
    )


@pytest.mark.parametrize(
    ("detail", "status", "says"),
    [("", 422, "Type the thickness first"), ("thick", 422, "is not a length"), ("0.2 kg", 422, "is not a length"),
     ("3000 mm", 422, "is not between"), ("0.40", 302, ""), ("16 thou", 302, "")],
)  # fmt: skip
def test_a_thickness_is_typed_in_any_unit_or_refused_in_one_sentence(
    shop: Shop, detail: str, status: int, says: str
) -> None:
    shop.until("stack_off")
    place = next(f"p{i}" for i, part in enumerate(shop.unit.card.stack) if part.part == "shim")
    answer = post(shop, "stack_off", "strip", place=place, answer="other", detail=detail)
    assert answer.status_code == status
    assert says in text(answer)
    if status == 422 and detail:
        assert detail in answer.content.decode()


def test_what_killed_it_changes_the_job_and_a_wrong_part_stops_it(shop: Shop) -> None:
    shop.until("judged")
    stack = shop.unit.card.stack
    cone = next(f"p{i}" for i, part in enumerate(stack) if part.part == "cone")
    post(shop, "judged", "clean", place=cone, answer="blued")
    post(shop, "judged", "clean", enough="yes")
    assert "Heat" in line_of(shop, "clean")
    refused = post(shop, "killed_by", "clean", place="blued", answer="declined")
    assert "Type the reason first" in text(refused)
    post(shop, "killed_by", "clean", place="blued", answer="accepted")
    assert shop.unit.progress.chosen["aim"] == "loose_end"
    shop.until("matched")
    seal = next(f"p{i}" for i, part in enumerate(stack) if part.part == "seal")
    post(shop, "matched", "match", place=seal, answer="number", detail="52X72, 52X72, 50X72")
    assert "does not match" in line_of(shop, "match", step="matched", place=seal)
    post(shop, "matched", "match", place=seal, answer="number", detail="52X72, 52X72, 52X72")
    assert "does not match" not in line_of(shop, "match")
    assert "Get ready" in text(shop.client().get(f"/jobs/{shop.job.pk}/1/match/"))


def test_a_bore_is_measured_plane_by_plane_and_judged_as_it_grows(shop: Shop) -> None:
    shop.until("seats")
    for value in ("72.00", "72.02", "72.01"):
        assert post(shop, "seats", "clean", value=value).status_code == 302
    page = text(shop.client().get(f"/jobs/{shop.job.pk}/1/clean/"))
    assert "Oval by 0.02 mm (0.8 thou) in its worse plane" in page
    assert "inside, 12 to 6" in page.lower()
    assert "is not a length" in text(post(shop, "seats", "clean", value="2 kg"))
    post(shop, "seats", "clean", enough="yes")
    assert "Oval by 0.02 mm" in text(shop.client().get(f"/jobs/{shop.job.pk}/1/clean/"))


def jpeg(size: tuple[int, int] = (60, 40), kind: str = "JPEG", **more: Any) -> io.BytesIO:
    data = io.BytesIO()
    Image.new("RGB", size, (200, 80, 10)).save(data, kind, **more)
    data.seek(0)
    data.name = f"hub.{kind.lower()}"
    return data


def send(shop: Shop, data: Any, **more: Any) -> Any:
    path = f"/jobs/{shop.job.pk}/1/strip/photo"
    token = "5f3c1d1e-0d6a-4a53-9a3e-0f3f8f3d2a11"
    return shop.client().post(path, {"photo": data, "token": token, "words": "as found", **more})


def test_a_photo_is_made_smaller_and_loses_its_metadata(shop: Shop) -> None:
    shop.until("as_found")
    exif = Image.Exif()
    exif[0x010F] = "some camera"
    exif[0x0112] = 6
    assert send(shop, jpeg((3000, 1200), exif=exif)).status_code == 302
    kept = Photo.objects.get()
    with Image.open(io.BytesIO(bytes(kept.large))) as large:
        assert large.size == (640, 1600)
        assert not large.getexif()
    with Image.open(io.BytesIO(bytes(kept.small))) as small:
        assert max(small.size) == 320
    assert shop.unit.progress.row("as_found", "").state == "done"  # type: ignore[union-attr]
    page = shop.client().get(f"/jobs/{shop.job.pk}/1/strip/").content.decode()
    assert f"/photos/{kept.entry_id}/small" in page
    served = shop.client().get(f"/photos/{kept.entry_id}/large")
    assert served["Content-Type"] == "image/jpeg"
    assert bytes(served.content) == bytes(kept.large)


def test_the_same_photo_sent_twice_counts_once(shop: Shop) -> None:
    shop.until("as_found")
    send(shop, jpeg())
    send(shop, jpeg())
    assert Photo.objects.count() == 1


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (io.BytesIO(b"not a photo at all"), "is no photo that can be read"),
        (io.BytesIO(b""), "empty"),
        (io.BytesIO(b"\xff\xd8\xff\xe0" + b"0" * 400), "is no photo that can be read"),
        ("", "No photo came with it"),
    ],
)
def test_what_is_no_photo_is_refused_in_one_sentence(shop: Shop, data: Any, says: str) -> None:
    shop.until("as_found")
    answer = send(shop, data)
    assert says in text(answer)
    assert not Photo.objects.exists()


def test_a_photo_that_is_too_large_is_refused(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(pictures, "MOST_PIXELS", 1000)
    with pytest.raises(Refused, match="megapixels"):
        pictures.picture_of(jpeg((60, 40)).getvalue())
    monkeypatch.setattr(pictures, "MOST_BYTES", 10)
    with pytest.raises(Refused, match="MB"):
        pictures.picture_of(jpeg().getvalue())


@pytest.mark.parametrize("kind", ["PNG", "WEBP", "GIF"])
def test_other_kinds_of_image_are_taken_too(kind: str) -> None:
    assert pictures.picture_of(jpeg(kind=kind).getvalue()).large[:2] == b"\xff\xd8"


def test_another_workshops_photo_is_not_there(shop: Shop, other: Shop) -> None:
    shop.until("as_found")
    send(shop, jpeg())
    kept = Photo.objects.get()
    assert other.client().get(f"/photos/{kept.entry_id}/large").status_code == 404
    assert shop.client().get(f"/photos/{kept.entry_id}/huge").status_code == 404
