"""Fleet, stores, people, the yard: their verbs and pages."""

from datetime import date
from decimal import Decimal

import pytest
from django.core.management import call_command
from django.test import Client

from wheelend.arrangements import KEYS
from wheelend.quantity import LENGTH, TORQUE, USAGE
from zesty.bench.forms import PackField
from zesty.elements.refused import Refused
from zesty.elements.typed import Typed, TypedField
from zesty.fleet.actions import log_usage
from zesty.people.models import Membership, User, Workshop
from zesty.stores.actions import Fitted, add_shims, recognised, swap
from zesty.stores.models import Shim

from .conftest import Shop, mm, text


def test_the_counter_never_runs_back(shop: Shop) -> None:
    def log(text: str, day: int) -> None:
        log_usage(
            shop.vehicle, shop.people["tech"], usage=Typed.read(text, USAGE), on=date(2026, 3, day)
        )

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
        ({"nominal": "0", "count": 1}, "is not between 0.001 and 20 mm"),
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
    call_command("load_demo")
    assert not Workshop.objects.filter(is_demo=True).exists()


def test_the_demo_stands_on_all_thirteen_arrangements(db: None) -> None:
    call_command("load_demo")
    workshop = Workshop.objects.get(is_demo=True, name__startswith="Citrus")
    client = Client()
    client.post("/demo/tech")
    families = set()
    for job in workshop.job_set.filter(state="open"):
        families |= {unit.card_version.card.arrangement for unit in job.units.all()}
        page = client.get(client.get(f"/jobs/{job.pk}/")["Location"])
        assert page.status_code == 200
        assert "<svg" in page.content.decode()
    assert families == set(KEYS)


@pytest.mark.usefixtures("small_demo")
def test_the_demo_has_its_jobs_at_different_points(db: None) -> None:
    call_command("load_demo")
    call_command("load_demo")
    client = Client()
    assert client.post("/demo/tech", {"next": "//elsewhere.example/"})["Location"] == "/"
    workshop = Workshop.objects.get(is_demo=True, name__startswith="Citrus")
    stages = {
        job.number: client.get(f"/jobs/{job.pk}/")["Location"] for job in workshop.job_set.all()
    }
    assert [stages[n].split("/")[-2] for n in (1, 2, 3, 4, 5, 6)] == [
        "close", "set", "set", "take_in", "set", "lock"]  # fmt: skip
    assert workshop.job_set.get(number=1).sign_offs.get().statement == "proven"


@pytest.mark.usefixtures("small_demo")
def test_the_demos_second_workshop_sees_nothing_of_the_first(db: None) -> None:
    call_command("load_demo")
    neighbour = Client()
    neighbour.post("/demo/neighbour")
    assert "Mulcher trailer" in neighbour.get("/").content.decode()
    for job in Workshop.objects.get(name__startswith="Citrus").job_set.all():
        for page in ("1/set/", "1/lock/", "1/close/", "sheet.pdf"):
            assert neighbour.get(f"/jobs/{job.pk}/{page}").status_code == 404


def tray(shop: Shop) -> dict[str, int]:
    return {shim.nominal: shim.count for shim in Shim.objects.filter(workshop=shop.workshop)}


def test_what_goes_in_a_pack_leaves_the_tray_and_comes_back_to_its_own_row(shop: Shop) -> None:
    before = tray(shop)
    shop.until("fit_pack")
    shop.pack("0.50, 10 thou")
    row = shop.file.entries[-1]
    assert [str(one.thickness_mm) for one in row.shims.all()] == ["0.50000", "0.25146"]
    assert tray(shop) == {**before, "0.50 mm": 0, "10 thou": 0}
    shop.torque()
    shop.dial()
    shop.read("0", "0.10", "0", "0.10")
    shop.say("pick", step="open", typed="change")
    shop.pack("0.10")
    assert tray(shop) == {**before, "0.10 mm": before["0.10 mm"] - 1}
    assert Shim.objects.filter(workshop=shop.workshop).count() == len(before)


def test_a_pack_that_came_off_this_wheel_end_takes_nothing_from_the_tray(shop: Shop) -> None:
    before = tray(shop)
    shop.until("fit_pack")
    entry = shop.pack("0.50", from_here=True)
    assert tray(shop) == before
    from zesty.bench.actions import log  # noqa: PLC0415

    log.take_back(shop.file, shop.people["tech"], entry, reason="not these")
    assert tray(shop) == before
    shop.pack("0.50")
    assert tray(shop)["0.50 mm"] == 0
    log.take_back(shop.file, shop.people["tech"], shop.file.entries[-1], reason="not these")
    assert tray(shop) == before


def test_a_shim_typed_by_its_mark_counts_as_it_measured(shop: Shop) -> None:
    loose = list(Shim.objects.filter(workshop=shop.workshop))
    assert recognised(loose, mm("10 thou")).thickness_mm == Decimal("0.25146")
    assert recognised(loose, mm("9.9 thou")).typed == "10 thou"
    assert recognised(loose, mm("0.33 mm")) == Fitted("0.33 mm", Decimal("0.33000"))


def test_a_swap_locks_the_tray_once(shop: Shop, django_assert_max_num_queries: object) -> None:
    put_in = [Fitted("0.05 mm", Decimal("0.05")), Fitted("0.10 mm", Decimal("0.10"))]
    with django_assert_max_num_queries(5):  # type: ignore[operator]
        swap(shop.workshop, put_in=put_in, taken_out=[Fitted("0.50 mm", Decimal("0.50"))])


def test_the_yard_finds_vehicles_and_jobs(shop: Shop) -> None:
    client = shop.client()
    assert "trailer" in client.get("/?find=trail").content.decode()
    found = client.get("/?find=nothing+of+that").content.decode()
    assert "no vehicle, plate, part or job" in found
    assert (
        f"Job {shop.job.number}: go on" in client.get(f"/?find={shop.job.number}").content.decode()
    )
    for odd in ("work=²", "rest=-1", "find=%00", "work=9999999", "find=" + "x" * 3000):
        assert client.get(f"/?{odd}").status_code == 200


@pytest.mark.parametrize(
    ("query", "there"),
    [("find=inner+cone", True), ("find=AB+12", True), ("find=no+such+part", False), ("show=open", True),
     ("show=due", False), ("show=%3Cb%3E", True)],
)  # fmt: skip
def test_the_yard_is_searched_by_plate_and_part_and_filtered(
    shop: Shop, query: str, there: bool
) -> None:
    shop.vehicle.plate = "AB 12"
    shop.vehicle.save()
    page = shop.client().get(f"/?{query}").content.decode()
    assert ("Job 1: go on" in page or ">trailer<" in page) is there


def test_the_get_ready_list_of_a_whole_job_is_one_page(shop: Shop) -> None:
    shop.until("laid_out")
    shop.post(shop.client(), "laid_out", "match", answer="lacking", detail="from the stores")
    page = text(shop.client().get(f"/jobs/{shop.job.pk}/get-ready"))
    assert "torque wrench inside its check" in page
    assert "from the stores not here" in page
    assert shop.client("desk").get(f"/jobs/{shop.job.pk}/get-ready").status_code == 200
