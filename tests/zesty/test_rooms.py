"""Fleet, cards, stores, people: their verbs and pages."""

from datetime import date

import pytest
from django.core.management import call_command
from django.db import IntegrityError, transaction
from django.test import Client

from wheelend.quantity import LENGTH, TORQUE, USAGE
from zesty.bench.forms import PackField
from zesty.cards.models import CardVersion, SpecCard
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed, TypedField
from zesty.fleet.actions import log_usage
from zesty.people.models import Membership, User, Workshop
from zesty.stores.actions import add_shims
from zesty.stores.models import Shim

from .conftest import Shop, mm

CARD = {
    "effect": "opens", "low": "2 thou", "high": "0.15 mm", "aim": "0.1", "nut_torque": "45 lbf·ft",
    "lock": "pin", "lock_policy": "advance_only",
    "balance": "even", "trial_method": "from_pack", "clocks": "12, 4:30, 8", "max_shims": "6",
    "source_kind": "hub", "source": "Sheet 2",
    "follows": "1", "form-TOTAL_FORMS": "4", "form-INITIAL_FORMS": "0",
    "form-0-kind": "inner_bearing", "form-0-width": "1-1/8 in", "form-0-counts": "on",
    "form-1-kind": "shims", "form-1-counts": "on", "form-2-kind": "outer_bearing",
    "form-2-counts": "on", "form-3-kind": "",
}  # fmt: skip


def post_card(shop: Shop, **changes: str) -> tuple[int, str]:
    answer = shop.client("lead").post(f"/cards/{shop.card.pk}/edit", {**CARD, **changes})
    return answer.status_code, answer.content.decode()


def test_an_edit_is_a_new_version_with_units_as_typed(shop: Shop) -> None:
    assert post_card(shop)[0] == 302
    newest = shop.card.versions.first()
    assert (newest.number, newest.low, newest.aim) == (2, "2 thou", "0.1 mm")
    assert float(newest.low_mm) == 0.0508
    part = newest.stack.first()
    assert (part.width, float(part.width_mm), part.name) == ("1-1/8 in", 28.575, "inner bearing")
    assert CardVersion.objects.get(card=shop.card, number=1).low == "0.05 mm"
    page = shop.client().get(f"/cards/{shop.card.pk}/?version=1").content.decode()
    assert "An older version" in page


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        ({"low": "0.3 mm"}, "0.15 mm is below the least, 0.3 mm; swap them."),
        ({"low": "5 kg"}, "is not a length"), ({"nut_torque": "0 N·m"}, "is not above 0"),
        ({"aim": "up"}, "is not an aim"), ({"clocks": "12, 13"}, "is not a clock position"),
        ({"source": ""}, "Name the document"), ({"max_shims": "0"}, "greater than or equal to 1"),
        ({"form-1-kind": ""}, "The stack needs one line of kind “shims”"),
        ({"form-0-bore": "2 in", "form-0-outside": "1 in"}, "is not larger than the bore"),
        ({"follows": "7"}, "made version 1 while you edited version 7"),
    ],
)  # fmt: skip
def test_a_card_that_cannot_be_is_answered_and_kept(
    shop: Shop, changes: dict[str, str], says: str
) -> None:
    status, page = post_card(shop, **changes)
    assert status == 422
    assert says in page
    assert "1-1/8 in" in page
    assert shop.card.versions.count() == 1


def test_the_same_card_name_twice_is_refused(shop: Shop) -> None:
    client = shop.client("lead")
    new = {**CARD, "name": "hub", "arrangement": "shimmed_pair"}
    assert client.post("/cards/new", new).status_code == 422
    assert client.post("/cards/new", {**new, "name": "hub two"}).status_code == 302
    assert SpecCard.objects.filter(workshop=shop.workshop).count() == 2


def test_the_database_refuses_limits_out_of_order(shop: Shop) -> None:
    version = shop.card.versions.first()
    version.high_mm = 0
    with pytest.raises(IntegrityError), transaction.atomic():
        version.save()


def test_the_counter_never_runs_back(shop: Shop) -> None:
    def log(text: str, day: int) -> None:
        log_usage(shop.vehicle, shop.tech, usage=Typed.read(text, USAGE), on=date(2026, 3, day))

    log("1000 km", 5)
    with pytest.raises(Refused, match="less than the 1000 km"):
        log("900 km", 6)
    log("900 km", 4)
    log("20 h", 6)
    assert shop.vehicle.usage_log.count() == 3


def test_a_vehicle_is_added_with_its_wheel_ends(shop: Shop) -> None:
    client = shop.client("desk")
    van = {"name": "van", "kind": "van", "axles": 2}
    assert client.post("/vehicles/new", van).status_code == 302
    assert "van, axle 2 right: start a job" in client.get("/").content.decode()
    answer = client.post("/vehicles/new", van)
    assert (answer.status_code, "in the yard already" in answer.content.decode()) == (422, True)


def test_the_same_thickness_in_two_spellings_adds_up(shop: Shop) -> None:
    add_shims(shop.workshop, nominal=mm("100 um"), measured=None, count=2)
    assert Shim.objects.get(workshop=shop.workshop, nominal_mm="0.1").count == 5


def test_a_measured_shim_counts_as_measured(shop: Shop) -> None:
    shim = add_shims(shop.workshop, nominal=mm("0.10"), measured=mm("0.098"), count=1)
    shim.refresh_from_db()
    assert (str(shim.thickness_mm), shim.thickness) == ("0.09800", "0.098 mm")


@pytest.mark.parametrize(
    ("data", "says"),
    [
        ({"nominal": "0", "count": 1}, "is not above 0"),
        ({"nominal": "0.1", "count": 0}, "greater than or equal to 1"),
        ({"nominal": "0.1 N", "count": 1}, "is not a length"),
    ],
)
def test_a_shim_that_cannot_be_is_answered(shop: Shop, data: dict[str, object], says: str) -> None:
    answer = shop.client().post("/tray/", data)
    assert (answer.status_code, says in answer.content.decode()) == (422, True)


def test_counting_and_gauges(shop: Shop) -> None:
    client = shop.client()
    shim = Shim.objects.filter(workshop=shop.workshop).first()
    assert client.post("/tray/count", {"shim_id": shim.pk, "count": 7}).status_code == 302
    shim.refresh_from_db()
    assert shim.count == 7
    assert client.post("/tray/count", {"shim_id": shim.pk, "count": -1}).status_code == 422
    gauge = {"name": "lever", "resolution": "0.1 thou", "calibration": ""}
    assert client.post("/tray/gauges", gauge).status_code == 302
    assert client.post("/tray/gauges", gauge).status_code == 422


def test_typed_keeps_the_words_and_the_exact_number() -> None:
    typed = Typed.read(" 1-1/8  in ", LENGTH)
    assert (typed.text, str(typed.value)) == ("1-1/8 in", "28.57500")
    assert Typed.read("12", LENGTH, "thou").text == "12 thou"
    assert str(Typed.read("45 lbf·ft", TORQUE).value) == "61.011808"


def test_a_typed_field_says_what_would_do() -> None:
    field = TypedField(LENGTH, unit="mm", least=0, required=False)
    assert field.clean("") is None
    with pytest.raises(Exception, match="is below 0"):
        field.clean("-1 mm")


@pytest.mark.parametrize(
    ("text", "pack"),
    [
        ("", []), ("0.5", ["0.5 mm"]), ("0.50 + 4 thou", ["0.50 mm", "4 thou"]),
        ("2 x 0.10, 0.05", ["0.10 mm", "0.10 mm", "0.05 mm"]), ("0.1;;0.2\n", ["0.1 mm", "0.2 mm"]),
        ("1/64 in", ["1/64 in"]),
    ],
)  # fmt: skip
def test_packs_as_people_type_them(text: str, pack: list[str]) -> None:
    assert [shim.text for shim in PackField().clean(text)] == pack


@pytest.mark.parametrize("text", ["0.1, x", "0", "-0.1", "0.1 N·m", "500 mm"])
def test_what_is_no_pack(text: str) -> None:
    with pytest.raises(Exception, match=r"is no shim|is not a length"):
        PackField().clean(text)


def test_an_empty_installation_opens_its_first_workshop_once(db: None) -> None:
    client = Client()
    assert client.get("/")["Location"].startswith("/sign-in")
    assert client.get("/sign-in")["Location"] == "/first"
    weak = {"workshop": "Shed", "username": "me", "password": "short"}
    assert "too short" in client.post("/first", weak).content.decode()
    answer = client.post("/first", {**weak, "password": "long enough for two"})
    assert answer["Location"] == "/"
    assert "Add the first vehicle" in client.get("/").content.decode()
    assert Client().get("/first")["Location"] == "/sign-in"


def test_an_account_without_a_workshop_is_not_sent_in_circles(db: None) -> None:
    client = Client()
    client.force_login(User.objects.create_user("nobody"))
    assert client.get("/")["Location"].startswith("/sign-in")
    assert client.get("/sign-in").status_code == 200


def test_one_click_roles_are_the_demos_only(shop: Shop) -> None:
    tech = User.objects.create_user("tech")
    Membership.objects.create(user=tech, workshop=shop.workshop, role="tech")
    assert Client().post("/demo/tech").status_code == 404
    assert "one click" not in Client().get("/sign-in").content.decode()


def test_the_demo_loads_once_and_never_into_peoples_own_work(shop: Shop) -> None:
    with pytest.raises(SystemExit):
        call_command("load_demo")
    assert not Workshop.objects.filter(is_demo=True).exists()


def test_the_demo_has_its_jobs_at_different_points(db: None) -> None:
    call_command("load_demo")
    call_command("load_demo")
    client = Client()
    assert client.post("/demo/tech", {"next": "//elsewhere.example/"})["Location"] == "/"
    workshop = Workshop.objects.get(is_demo=True, name__startswith="Citrus")
    stages = {
        job.number: client.get(f"/jobs/{job.pk}/")["Location"] for job in workshop.job_set.all()
    }
    assert [stages[n].rsplit("/", 1)[1] for n in (1, 2, 3, 4, 5)] == [
        "close", "set", "set", "take-in", "set"]  # fmt: skip
    assert workshop.job_set.get(number=1).sign_offs.get().statement == "proven"


def test_take_in_needs_the_complaint_and_keeps_the_counter(shop: Shop) -> None:
    client = shop.client()
    path = f"/jobs/{shop.job.pk}/take-in"
    page = client.get(path).content.decode()
    assert "hold the spring off mechanically" in page
    assert client.post(path, {"complaint": "", "made_safe": "on"}).status_code == 422
    told = {"complaint": "noise", "usage": "100", "made_safe": "on"}
    assert client.post(path, told)["Location"].endswith("/set")
    answer = client.post(path, {**told, "usage": "90 km"})
    assert "less than the 100 km" in answer.content.decode()


def test_the_demos_second_workshop_sees_nothing_of_the_first(db: None) -> None:
    call_command("load_demo")
    neighbour = Client()
    neighbour.post("/demo/neighbour")
    assert "Mulcher trailer" in neighbour.get("/").content.decode()
    for job in Workshop.objects.get(name__startswith="Citrus").job_set.all():
        for page in ("set", "lock", "close", "sheet.pdf"):
            assert neighbour.get(f"/jobs/{job.pk}/{page}").status_code == 404
