"""Masters, what was done to gauges, which gauge would do, and a study taken over by its gauge."""

from datetime import date, timedelta
from decimal import Decimal
from uuid import UUID, uuid4

import numpy as np
import pytest

from vallostasis.core.errors import NotationError
from vallostasis.core.gauges.circumstances import cautions_of_gauge
from vallostasis.core.surveys.set_budget import budget_of_gauge
from vallostasis.core.uncertainty.decision import Capability
from vallostasis.demo import narrow_boat
from vallostasis.services import cabinet, gauge_studies, shop
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import gauge_services, gauges, jobs, master_readings, people, setting_masters
from vallostasis.store.rows import Conn


def _gauge_id(conn: Conn, name: str) -> UUID:
    return next(one.gauge_id for one in gauges.list_gauges(conn) if one.name == name)


def test_the_cabinet_says_which_gauge_would_do(demo: Conn) -> None:
    boat = next(job.job_id for job in jobs.list_jobs(demo) if job.number == narrow_boat.NUMBER)
    fits = {one.asked.name: one for one in cabinet.gauges_for_job(demo, boat)}
    bore = fits["block bore"]
    names = [fit.gauge.name for fit in bore.fits]
    assert names == ["Long bore gauge", "Old bore gauge", "Inside micrometer"], "the finest first"
    # ±5.5 µm, its zero counted as the reading it is, on a window of 50.8 µm: a little over a tenth on either side.
    assert bore.fits[0].capability is Capability.MARGINAL
    assert bore.fits[1].capability is Capability.WRONG_TOOL
    assert "one anvil is worn flat" in bore.fits[1].against
    assert bore.in_use == bore.fits[0].gauge.gauge_id
    assert all("rule" not in fit.gauge.kind for one in fits.values() for fit in one.fits)


@pytest.mark.parametrize(
    ("entry", "field"),
    [
        (cabinet.MasterEntry("Ring 5.000", "5 in", "1"), "name"),
        (cabinet.MasterEntry("Ring", "0", "1"), "size"),
        (cabinet.MasterEntry("Ring", "wide", "1"), "size"),
        (cabinet.MasterEntry("Ring", "50", "-1"), "expanded"),
        (cabinet.MasterEntry("Ring", "50", "1", due_on=date(2020, 1, 1), calibrated_on=date(2021, 1, 1)), "due_on"),
    ],
)
def test_a_master_that_is_none_is_refused_at_its_field(demo: Conn, entry: cabinet.MasterEntry, field: str) -> None:
    with pytest.raises((Refused, NotationError)) as refused:
        cabinet.save_master(demo, None, 0, entry)
    assert getattr(refused.value, "field", "") == field


def test_two_people_cannot_save_one_version_of_a_master(demo: Conn) -> None:
    made = cabinet.save_master(demo, None, 0, cabinet.MasterEntry("Rod 100", "100.0004 mm", "0.8"))
    assert (made.size_um, made.standard_um) == (Decimal("100000.4"), Decimal("0.4"))
    cabinet.save_master(demo, made.setting_master_id, 1, cabinet.MasterEntry("Rod 100", "100.0005 mm", "0.8"))
    with pytest.raises(Refused) as stale:
        cabinet.save_master(demo, made.setting_master_id, 1, cabinet.MasterEntry("Rod 100", "100.0006 mm", "0.8"))
    assert stale.value.code is RefusalCode.STALE


def test_the_service_log_keeps_what_was_done_and_knows_no_tomorrow(demo: Conn, wren: UUID) -> None:
    sled = _gauge_id(demo, "Depth sled 2")
    cabinet.note_service(demo, sled, "lent", "to the boatyard", date.today(), wren)
    cabinet.note_service(demo, sled, "brought back", "", date.today(), wren)
    newest = gauge_services.list_services(demo)[:2]
    assert [one.kind for one in newest] == ["brought back", "lent"]
    with pytest.raises(Refused, match="still to come"):
        cabinet.note_service(demo, sled, "oiled", "", date.today() + timedelta(days=1), wren)


def test_gauges_of_two_shops_compare_once_both_were_read_on_one_master(demo: Conn, wren: UUID) -> None:
    entry = shop.GaugeEntry("Their bore gauge", "bore gauge", "2", "2", owner="Northgate Engines")
    theirs = shop.save_gauge(demo, None, 0, entry)
    ours = next(one for one in gauges.list_gauges(demo) if one.name == "Long bore gauge")
    ring = next(one for one in setting_masters.list_masters(demo) if one.name == "Ring 5.000")
    assert cautions_of_gauge(ours, (theirs,), date.today(), master_readings.list_master_readings(demo))
    for gauge_id, text in ((ours.gauge_id, "5.0001"), (theirs.gauge_id, "5.0013")):
        ask = cabinet.MasterReadingToTake(uuid4(), ring.setting_master_id, gauge_id, "", text, "inch")
        cabinet.read_master(demo, ask, wren)
    assert not cautions_of_gauge(ours, (theirs,), date.today(), master_readings.list_master_readings(demo))
    read = {one.gauge.name: one for one in cabinet.list_master_readings(demo)}
    assert read["Long bore gauge"].agrees
    assert not read["Their bore gauge"].agrees
    # 5.0013 − 5.00008 in, exactly.
    assert read["Their bore gauge"].reading.off_um == Decimal("30.988")
    deviation = cabinet.MasterReadingToTake(uuid4(), ring.setting_master_id, ours.gauge_id, "", "0.0003", "inch")
    with pytest.raises((Refused, NotationError), match=r"whole size|[Dd]id you mean"):
        cabinet.read_master(demo, deviation, wren)


def _study(conn: Conn, wren: UUID, parts: int = 4) -> UUID:
    everybody = [person.person_id for person in people.list_people(conn)][:2]
    ask = gauge_studies.StudyToPlan(_gauge_id(conn, "Depth sled 2"), "protrusion", "75 µm", "µm", parts, 2, everybody)
    return gauge_studies.plan_study(conn, ask, wren)


def test_a_study_is_read_blind_in_its_order_and_taken_over_by_the_gauge(demo: Conn, wren: UUID) -> None:
    study_id = _study(demo, wren)
    rng = np.random.default_rng(3)
    now = gauge_studies.study_now(demo, study_id)
    before = now.gauge
    with pytest.raises(Refused, match="not complete"):
        gauge_studies.adopt_study(demo, study_id, wren)
    while now.next_cell is not None:
        part, place, _ = now.next_cell
        text = f"{60 + 20 * part + 8 * place + rng.normal(0, 1.5):.1f} µm"
        gauge_studies.take_study_reading(demo, study_id, uuid4(), now.next_cell, text, "µm")
        now = gauge_studies.study_now(demo, study_id)
    assert now.study is not None
    assert len(now.readings) == 16
    found = gauge_studies.adopt_study(demo, study_id, wren)
    assert found.version == before.version + 1
    holds = now.study.holds
    assert float(found.repeatability_um) == pytest.approx(holds.repeatability_m * 1e6, abs=1e-3)
    assert float(found.reproducibility_um) == pytest.approx(holds.reproducibility_m * 1e6, abs=1e-3)
    assert found.repeatability_freedom == holds.repeatability_freedom
    # Few repeats are trusted less: Student's t widens what the study found.
    assert budget_of_gauge(found, 2.0).coverage > 2
    assert "between people" in {source.name for source in budget_of_gauge(found, 2.0).lines}
    # It says how the gauge repeats; whether it reads true only a master says.
    assert gauge_services.list_services(demo)[0].kind == "studied"
    assert found.calibrated_on == before.calibrated_on
    with pytest.raises(Refused, match="already"):
        gauge_studies.adopt_study(demo, study_id, wren)
    with pytest.raises(Refused, match="taken this study over"):
        gauge_studies.take_study_reading(demo, study_id, uuid4(), (0, 0, 0), "60 µm", "µm")


def test_a_reading_out_of_turn_is_refused_and_one_sent_twice_counts_once(demo: Conn, wren: UUID) -> None:
    study_id = _study(demo, wren)
    now = gauge_studies.study_now(demo, study_id)
    assert now.next_cell is not None
    other = now.order[5]
    with pytest.raises(Refused) as turn:
        gauge_studies.take_study_reading(demo, study_id, uuid4(), other, "60 µm", "µm")
    assert turn.value.code is RefusalCode.STALE
    reading_id = uuid4()
    for _ in range(2):
        gauge_studies.take_study_reading(demo, study_id, reading_id, now.next_cell, "60 µm", "µm")
    gauge_studies.take_study_reading(demo, study_id, uuid4(), now.next_cell, "62 µm", "µm")
    (kept,) = gauge_studies.study_now(demo, study_id).readings
    assert kept.value_um == 62, "read again, the newest holds"


def test_a_reading_in_another_unit_than_the_rest_of_a_study_is_asked_about(demo: Conn, wren: UUID) -> None:
    """A flange of 8.902 mm typed bare where bare numbers are hundredths would be 89 µm: nobody guesses which."""
    study_id = _study(demo, wren)
    first, second = gauge_studies.study_now(demo, study_id).order[:2]
    gauge_studies.take_study_reading(demo, study_id, uuid4(), first, "8.901 mm", "0.01 mm")
    with pytest.raises(NotationError, match="far from what is expected") as asked:
        gauge_studies.take_study_reading(demo, study_id, uuid4(), second, "8.902", "0.01 mm")
    assert any("mm" in one.text for one in asked.value.suggestions)
    gauge_studies.take_study_reading(demo, study_id, uuid4(), second, "8.902", "0.01 mm", confirmed=True)
    assert gauge_studies.study_now(demo, study_id).readings[-1].value_um == Decimal("89.02")


def test_gauges_of_sizes_take_bare_numbers_as_sizes(demo: Conn) -> None:
    sizes = {gauge.name for gauge in gauges.list_gauges(demo) if gauge.reads_sizes}
    assert sizes == {"Bench micrometer", "Long micrometer", "Steel rule"}


@pytest.mark.parametrize(
    ("people_count", "tolerance", "field"), [(1, "", "people"), (2, "0", "tolerance"), (2, "wide", "tolerance")]
)
def test_a_study_that_compares_nothing_is_refused(
    demo: Conn, wren: UUID, people_count: int, tolerance: str, field: str
) -> None:
    who = [person.person_id for person in people.list_people(demo)][:people_count]
    ask = gauge_studies.StudyToPlan(_gauge_id(demo, "Depth sled 2"), "x", tolerance, "µm", 3, 2, who)
    with pytest.raises((Refused, NotationError)) as refused:
        gauge_studies.plan_study(demo, ask, wren)
    assert getattr(refused.value, "field", "") == field


def test_materials_that_the_shop_wrote_down_hold(demo: Conn, wren: UUID) -> None:
    cabinet.write_material(demo, "grey iron", "11,2", None, "a foundry's sheet", wren)
    with pytest.raises(Refused, match="millionths per kelvin"):
        cabinet.write_material(demo, "grey iron", "much", None, "", wren)
    with pytest.raises(Refused, match="0 to 100"):
        cabinet.write_material(demo, "grey iron", "1100", None, "", wren)
