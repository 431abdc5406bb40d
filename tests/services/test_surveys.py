"""Surveys on a real store: the invented canal boat read, corrected, compared, exported and brought back."""

from datetime import UTC, datetime
from decimal import Decimal
from uuid import UUID, uuid4

import psycopg
import pytest

from tests.services.files import import_job, import_readings
from vallostasis.api.survey_models import survey_view
from vallostasis.core.errors import NotationError
from vallostasis.core.gauges.zero_checks import Drift
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.uncertainty.decision import State
from vallostasis.demo import narrow_boat
from vallostasis.demo.survey_play import SLEEVE_RING, master_um
from vallostasis.documents.proof import proof_html
from vallostasis.documents.readings_csv import readings_csv
from vallostasis.services import cabinet, proof, readings, setups, surveys, tape, zeros
from vallostasis.services.reading_import import ImportWish, Take
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.surveys import known_part, survey_now
from vallostasis.store import gauges, jobs, setting_masters
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.new_facts import NewSetup
from vallostasis.store.rows import Conn


@pytest.fixture
def boat(demo: Conn) -> UUID:
    return next(job.job_id for job in jobs.list_jobs(demo) if job.number == narrow_boat.NUMBER)


def _survey(conn: Conn, job_id: UUID, quantity: Quantity, key: str) -> Survey:
    facts = load_job_facts(conn, job_id)
    return survey_of(facts, quantity, known_part(facts, quantity, key))


def _take(
    conn: Conn, job_id: UUID, by: UUID, quantity: Quantity, key: str, place: Place, text: str, **how: str
) -> None:
    ask = readings.ReadingToTake(
        uuid4(), quantity, None, place.hour, how.get("liner", ""), "", text, "thou", how.get("confirmed") == "yes",
        how.get("read_before", ""), False, None, part=key, level_um=place.level_um, axis_deg=place.axis_deg,
        along_um=place.along_um, across_um=place.across_um,
    )  # fmt: skip
    readings.take_reading(conn, job_id, ask, by)


def test_an_egg_that_two_axes_would_miss_is_found_and_proved_out(demo: Conn, boat: UUID) -> None:
    egg = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-2")
    assert egg.state is State.OUT
    assert egg.form is not None
    middle = egg.form.levels[2]
    assert middle.ellipse is not None
    # The hidden truth: 1.25 thou of amplitude at 52°; a gauge of ±4.5 µm finds it within that.
    assert middle.ellipse.ovality_m == pytest.approx(2 * 1.25 * 25.4e-6, abs=9e-6)
    assert middle.ellipse.phi2_deg == pytest.approx(52, abs=4)
    along, across = (row.value_m for row in egg.places if row.place.level_um == Decimal("119380") and
                     row.place.axis_deg in (0.0, 90.0))  # fmt: skip
    assert along is not None
    assert across is not None
    assert abs(along - across) < 0.4 * middle.ellipse.ovality_m, "two axes at right angles would have passed it"
    assert _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1").state is State.IN


def test_sizes_are_brought_to_20c_with_the_temperatures_that_were_taken(demo: Conn, boat: UUID) -> None:
    bore = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1")
    assert bore.at_20c
    row = bore.places[0]
    assert row.as_read_m is not None
    assert row.value_m is not None
    # Block 3.5 K warm: 127 mm · 10.5e-6 · 3.5; ring 1 K warm: 127 mm · 11.5e-6 · 1.
    assert row.value_m - row.as_read_m == pytest.approx(127e-3 * (11.5e-6 * 1 - 10.5e-6 * 3.5), rel=2e-3)
    exact = narrow_boat.truth_um(Quantity.BLOCK_BORE, "hole-1", row.place)
    assert exact is not None
    assert row.value_m == pytest.approx(exact / 1e6, abs=6e-6)


def test_without_temperatures_the_doubt_is_in_the_budget(demo: Conn, boat: UUID, wren: UUID) -> None:
    facts = load_job_facts(demo, boat)
    before = facts.present_setup(Quantity.PISTON_SKIRT)
    assert before is None
    gauge = next(one for one in gauges.list_gauges(demo) if one.name == "Long micrometer")
    setups.change_setup(demo, NewSetup(boat, Quantity.PISTON_SKIRT, gauge.gauge_id, "", "", "", None, True), wren)
    place = Place(level_um=Decimal("63500"), axis_deg=90.0)
    _take(demo, boat, wren, Quantity.PISTON_SKIRT, "piston-1", place, "4.7445 in", confirmed="yes")
    skirt = _survey(demo, boat, Quantity.PISTON_SKIRT, "piston-1")
    assert skirt.budget is not None
    by_name = {source.name: source.contribution_m for source in skirt.budget.sources}
    # Two kelvin either way, rectangular, on 120.5 mm of cast iron, as the card has the pistons.
    assert by_name["part and master not taken"] == pytest.approx(120.51e-3 * 10.5e-6 * 2 / 3**0.5, rel=1e-3)
    # A room of u = 5 K between iron of 10.5 and steel of 11.5 millionths, each known to one: GUM 5.1.2 and its note.
    apart = (1**2 + 2 * 1 / 3) ** 0.5 * 1e-6
    assert by_name["room not taken: part and master expand differently"] == pytest.approx(
        120.51e-3 * apart * 5, rel=1e-3
    )
    assert skirt.thermometer is not None
    assert skirt.thermometer.expanded_m < skirt.budget.expanded_m, "what a thermometer would save is said"
    cabinet.assume_room(demo, "68 F", "0", wren)
    steady = _survey(demo, boat, Quantity.PISTON_SKIRT, "piston-1")
    assert steady.budget is not None
    assert steady.budget.expanded_m < skirt.budget.expanded_m, "a room that never varies is a setting of the shop"
    with pytest.raises(Refused, match="kelvin") as refused:
        cabinet.assume_room(demo, "20", "warm", wren)
    assert refused.value.field == "standard"
    assert skirt.state is State.NOT_MEASURED


@pytest.mark.parametrize("quantity", Quantity)
def test_every_feature_can_be_set_up(demo: Conn, boat: UUID, wren: UUID, quantity: Quantity) -> None:
    """What the core knows and what the table takes are the same list."""
    facts = load_job_facts(demo, boat)
    gauge, land = gauges.list_gauges(demo)[0], facts.card.lands[0].name
    setups.change_setup(demo, NewSetup(boat, quantity, gauge.gauge_id, land, "", "", None, True), wren)
    assert load_job_facts(demo, boat).present_setup(quantity) is not None


def test_a_moved_zero_is_corrected_in_one_action_and_decided_again(demo: Conn, boat: UUID, wren: UUID) -> None:
    before = survey_now(demo, boat, Quantity.LINER_OUTSIDE, "liner-Q1")
    assert before.survey.state is State.CANNOT_TELL
    (doubt,) = before.doubts
    assert len(doubt.reading_ids) == 40, "everything since the micrometer was set"
    count = zeros.settle_doubt(demo, boat, doubt.check.zero_check_id, "correct", Drift.SOMEWHERE, wren)
    assert count == 40
    after = survey_now(demo, boat, Quantity.LINER_OUTSIDE, "liner-Q1")
    assert after.doubts == ()
    assert after.survey.budget is not None
    assert before.survey.budget is not None
    # Half of 1.2 thou, which may have come at any reading, is added to the ± as it is.
    added = after.survey.budget.expanded_m - before.survey.budget.expanded_m
    assert added == pytest.approx(0.6 * 25.4e-6, abs=0.5e-6)
    corrected = after.survey.places[0].as_read_m
    read = before.survey.places[0].as_read_m
    assert corrected is not None
    assert read is not None
    assert corrected - read == pytest.approx(-0.6 * 25.4e-6, abs=1e-9)
    with pytest.raises(Refused, match="not any more"):
        zeros.settle_doubt(demo, boat, doubt.check.zero_check_id, "strike", Drift.SOMEWHERE, wren)


def test_struck_instead_the_places_are_missing_again(demo: Conn, boat: UUID, wren: UUID) -> None:
    (doubt,) = survey_now(demo, boat, Quantity.LINER_OUTSIDE, "liner-Q2").doubts
    zeros.settle_doubt(demo, boat, doubt.check.zero_check_id, "strike", Drift.SOMEWHERE, wren)
    struck = _survey(demo, boat, Quantity.LINER_OUTSIDE, "liner-Q2")
    assert struck.state is State.NOT_MEASURED
    assert len(struck.missing) == 20


def test_a_gauge_zeroed_on_the_bore_itself_decides_no_size(demo: Conn, boat: UUID, wren: UUID) -> None:
    gauge = next(one for one in gauges.list_gauges(demo) if one.name == "Long bore gauge")
    on_itself = NewSetup(boat, Quantity.BLOCK_BORE, gauge.gauge_id, "", "", "", None, True, ZeroedOn.PART)
    setups.change_setup(demo, on_itself, wren)
    for place in _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1").pattern.places:
        text = "0.2" if place.axis_deg == 45.0 else "0.0"
        _take(demo, boat, wren, Quantity.BLOCK_BORE, "hole-1", place, text)
    relative = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1")
    assert relative.relative
    assert relative.state is State.CANNOT_TELL
    assert "cannot be judged against a size" in relative.reason
    assert all(rule.rule != "block bore" for rule in relative.rules)


def test_interference_to_come_is_told_level_by_level_with_both_doubts(demo: Conn, boat: UUID, wren: UUID) -> None:
    (doubt,) = survey_now(demo, boat, Quantity.LINER_OUTSIDE, "liner-Q1").doubts
    assert all(one.doubtful for one in survey_now(demo, boat, Quantity.BLOCK_BORE, "hole-1").interference)
    zeros.settle_doubt(demo, boat, doubt.check.zero_check_id, "correct", Drift.SOMEWHERE, wren)
    now = survey_now(demo, boat, Quantity.BLOCK_BORE, "hole-1")
    assert not any(one.doubtful for one in now.interference)
    fit = next(one for one in now.interference if one.liner_mark == "Q1")
    assert [at.level for at in fit.levels] == [name for name, _ in narrow_boat.LEVELS]
    middle, within = fit.levels[2].stated.value_m, fit.levels[2].stated.expanded_m
    # Truth: 1.2 + 0.9 thou of barrel less 0.15 of bore; half of the knock was taken off wrongly from Q1.
    assert middle == pytest.approx((1.2 + 0.9 - 0.15 - 0.6) * 25.4e-6, abs=8e-6)
    assert now.survey.budget is not None
    assert within > now.survey.budget.expanded_m
    assert abs(middle - (1.2 + 0.9 - 0.15) * 25.4e-6) < within, "the truth lies within what is said"


def test_a_bore_half_read_shows_what_there_is(demo: Conn, boat: UUID, wren: UUID) -> None:
    facts = load_job_facts(demo, boat)
    setup = facts.present_setup(Quantity.BLOCK_BORE)
    assert setup is not None
    setups.change_setup(demo, NewSetup(boat, Quantity.BLOCK_BORE, setup.gauge_id, "", "", "", None, True, load="free"),
                        wren)  # fmt: skip
    place = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1").pattern.places[6]
    _take(demo, boat, wren, Quantity.BLOCK_BORE, "hole-1", place, "5.0002 in")
    view = survey_view(survey_now(demo, boat, Quantity.BLOCK_BORE, "hole-1"))
    assert view.form is not None
    assert [level.mean_m is not None for level in view.form.levels] == [False, False, False, True, False]
    assert view.part.read == 1
    assert view.part.state is State.NOT_MEASURED


def test_a_place_read_before_is_asked_about_and_a_repeat_makes_a_mean(demo: Conn, boat: UUID, wren: UUID) -> None:
    place = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1").pattern.places[0]
    with pytest.raises(Refused) as asked:
        _take(demo, boat, wren, Quantity.BLOCK_BORE, "hole-1", place, "0.3")
    assert asked.value.code is RefusalCode.READ_BEFORE
    _take(demo, boat, wren, Quantity.BLOCK_BORE, "hole-1", place, "0.3", read_before="repeat")
    row = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1").places[0]
    assert len(row.readings) == 2
    single = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1").places[1]
    assert row.expanded_m is not None
    assert single.expanded_m is not None
    assert row.expanded_m < single.expanded_m


def test_of_rocks_read_by_eye_the_smallest_is_taken_and_all_are_kept(demo: Conn, boat: UUID, wren: UUID) -> None:
    place = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1").pattern.places[0]
    _take(demo, boat, wren, Quantity.BLOCK_BORE, "hole-1", place, "1/2; 0.25; 1/2", read_before="repeat")
    reading = _survey(demo, boat, Quantity.BLOCK_BORE, "hole-1").places[0].readings[-1]
    assert (reading.value_um, reading.typed) == (Decimal("6.35"), "1/2; 0.25; 1/2")
    with pytest.raises(NotationError):
        _take(demo, boat, wren, Quantity.BLOCK_BORE, "hole-1", place, "1/2; a hair", read_before="repeat")
    outside = _survey(demo, boat, Quantity.LINER_OUTSIDE, "liner-Q1").pattern.places[0]
    with pytest.raises(NotationError):
        _take(demo, boat, wren, Quantity.LINER_OUTSIDE, "liner-Q1", outside, "1; 2", read_before="repeat")


def test_what_cannot_be_read_leaves_the_part_undecided_with_the_reason(demo: Conn, boat: UUID, wren: UUID) -> None:
    deck = _survey(demo, boat, Quantity.DECK_FLATNESS, "deck")
    missing = [row.place for row in deck.missing]
    with pytest.raises(Refused, match="Why can it not be read"):
        zeros.mark_place_unreadable(demo, boat, Quantity.DECK_FLATNESS, "deck", missing[0], True, " ", wren)
    with pytest.raises(Refused, match="Nothing asks for this place"):
        zeros.mark_place_unreadable(demo, boat, Quantity.DECK_FLATNESS, "deck", Place(hour=6.0), True, "x", wren)
    zeros.mark_place_unreadable(demo, boat, Quantity.DECK_FLATNESS, "deck", missing[0], True, "a stud", wren)
    for place in missing[1:]:
        _take(demo, boat, wren, Quantity.DECK_FLATNESS, "deck", place, "0.5", confirmed="yes")
    now = _survey(demo, boat, Quantity.DECK_FLATNESS, "deck")
    assert now.state in (State.CANNOT_TELL, State.OUT)
    assert now.missing == ()
    zeros.mark_place_unreadable(demo, boat, Quantity.DECK_FLATNESS, "deck", missing[0], False, "", wren)
    assert len(_survey(demo, boat, Quantity.DECK_FLATNESS, "deck").missing) == 1


@pytest.mark.parametrize(
    ("key", "place", "field"),
    [
        ("hole-9", Place(level_um=Decimal(1), axis_deg=0.0), "part"),
        ("hole-1", Place(hour=6.0), "axis_deg"),
        ("hole-1", Place(level_um=Decimal(1)), "axis_deg"),
        ("hole-1", Place(level_um=Decimal(1), axis_deg=0.0, along_um=Decimal(1)), "along_um"),
    ],
)
def test_a_reading_that_belongs_nowhere_is_refused_at_its_field(
    demo: Conn, boat: UUID, wren: UUID, key: str, place: Place, field: str
) -> None:
    with pytest.raises(Refused) as refused:
        _take(demo, boat, wren, Quantity.BLOCK_BORE, key, place, "0.3")
    assert refused.value.field == field


def test_a_trial_fit_names_its_liner(demo: Conn, boat: UUID, wren: UUID) -> None:
    assert _survey(demo, boat, Quantity.TRIAL_FIT, "hole-1").places[0].value_m == pytest.approx(0.45 * 25.4e-3)
    with pytest.raises(Refused, match="no liner marked"):
        _take(demo, boat, wren, Quantity.TRIAL_FIT, "hole-2", Place(), "1.5 in", liner="Q9")
    _take(demo, boat, wren, Quantity.TRIAL_FIT, "hole-2", Place(), "1.5 in", liner="Q2", confirmed="yes")
    assert _survey(demo, boat, Quantity.TRIAL_FIT, "hole-2").places[0].readings


def test_a_gauge_is_set_on_a_master_of_the_cabinet_and_keeps_its_version(demo: Conn, boat: UUID) -> None:
    facts = load_job_facts(demo, boat)
    setup = facts.present_setup(Quantity.BLOCK_BORE)
    assert setup is not None
    assert setup.setting_master_version_id is not None
    assert float(setup.zero_um) == pytest.approx(master_um(SLEEVE_RING))
    ring = facts.master(setup.setting_master_version_id)
    cabinet.save_master(demo, ring.setting_master_id, 1, cabinet.MasterEntry(ring.name, "5.0001 in", "3 µm"))
    newest = next(one for one in setting_masters.list_masters(demo) if one.name == SLEEVE_RING)
    assert newest.version == 2
    assert load_job_facts(demo, boat).master(setup.setting_master_version_id).version == 1


@pytest.mark.parametrize(
    ("text", "celsius"), [("21.5", "21.5"), ("21,5 °C", "21.5"), ("70 F", "21.11"), ("-18 C", "-18")]
)
def test_temperatures_are_read_as_they_are_said(text: str, celsius: str) -> None:
    assert surveys.read_temperature(text) == Decimal(celsius)


@pytest.mark.parametrize("text", ["", "warm", "nan", "500", "1e9", "20 K", "--3"])
def test_what_is_no_temperature_is_refused(text: str) -> None:
    with pytest.raises(Refused):
        surveys.read_temperature(text)


def test_a_temperature_belongs_to_the_block_or_to_a_loose_part(demo: Conn, boat: UUID, wren: UUID) -> None:
    for part, kept in (("", ""), ("LINER-q1", "liner-Q1"), ("piston-2", "piston-2")):
        surveys.take_temperature(demo, boat, uuid4(), "part", part, "21", wren)
        assert load_job_facts(demo, boat).temperatures[-1].part == kept
    for part in ("hole-1", "liner-Q9"):
        with pytest.raises(Refused, match="no temperature of its own") as refused:
            surveys.take_temperature(demo, boat, uuid4(), "part", part, "21", wren)
        assert refused.value.field == "part"


def test_surveys_go_out_and_come_back_in_another_shop(demo: Conn, boat: UUID, wren: UUID, empty_dsn: str) -> None:
    (doubt,) = survey_now(demo, boat, Quantity.LINER_OUTSIDE, "liner-Q1").doubts
    zeros.settle_doubt(demo, boat, doubt.check.zero_check_id, "correct", Drift.AT_ONCE, wren)
    surveys.stamp_part(demo, boat, Quantity.BLOCK_BORE, "hole-2", "B", wren)
    taken = load_job_facts(demo, boat).temperatures[0]
    tape.strike(demo, boat, taken.event, True, "held in the hand", wren)
    zeros.mark_place_unreadable(demo, boat, Quantity.DECK_FLATNESS, "deck",
                                _survey(demo, boat, Quantity.DECK_FLATNESS, "deck").missing[0].place, True, "a stud",
                                wren)  # fmt: skip
    cabinet.write_material(demo, "grey iron", "11.2", None, "a foundry's sheet", wren)
    content = proof.job_as_json(demo, boat)
    with psycopg.connect(empty_dsn) as elsewhere:
        import_job(elsewhere, content, False, "")
        for quantity, key in ((Quantity.BLOCK_BORE, "hole-2"), (Quantity.LINER_OUTSIDE, "liner-Q1"),
                              (Quantity.DECK_FLATNESS, "deck"), (Quantity.TRIAL_FIT, "hole-1")):  # fmt: skip
            here, there = _survey(demo, boat, quantity, key), _survey(elsewhere, boat, quantity, key)
            assert [row.value_m for row in here.places] == [row.value_m for row in there.places]
            assert [row.unreadable for row in here.places] == [row.unreadable for row in there.places]
            assert (here.state, here.reason) == (there.state, there.reason)
            assert here.budget is not None
            assert there.budget is not None
            assert here.budget.expanded_m == pytest.approx(there.budget.expanded_m, rel=1e-12)
        assert survey_now(elsewhere, boat, Quantity.BLOCK_BORE, "hole-2").stamp == "B"


def test_a_table_of_survey_readings_comes_back_place_by_place(demo: Conn, boat: UUID, wren: UUID) -> None:
    facts = load_job_facts(demo, boat)
    before = {row.place: row.as_read_m for row in _survey(demo, boat, Quantity.BLOCK_BORE, "hole-2").places}
    head, *every = readings_csv(facts).splitlines()
    # What was read under the plate belongs to another way of holding than the one that is read in now.
    rows = [row for row in every if "torque plate on" not in row]
    at = head.split(",").index("reading_id")
    cells = [[("" if n == at else cell) for n, cell in enumerate(row.split(","))] for row in rows]
    without_ids = "\n".join([head, *(",".join(row) for row in cells)])
    wish = ImportWish(uuid4(), Take.ALL_OR_NOTHING, Quantity.BLOCK_BORE, "thou", "inch", True)
    report = import_readings(demo, boat, without_ids.encode(), wish, wren)
    assert report.taken == len(rows) == len(facts.readings) - 40, [r.message for r in report.rows if r.message][:3]
    again = {row.place: row.as_read_m for row in _survey(demo, boat, Quantity.BLOCK_BORE, "hole-2").places}
    assert again == before
    assert len(load_job_facts(demo, boat).readings) == len(every) + len(rows)


def test_the_proof_shows_every_survey_and_what_stands_on_a_moved_zero(demo: Conn, boat: UUID) -> None:
    html = proof_html(load_job_facts(demo, boat), judge_job(load_job_facts(demo, boat)), "thou", datetime.now(UTC))
    assert html.count("Block bore, hole") == 2
    assert "Deck flatness, deck" in html
    assert "set on Ring 5.000, 5.00008 in at 21 °C" in html
    assert "(5.00" in html, "a size on a moved zero stands in brackets"
    assert "three, five and seven lobes read round" in html
