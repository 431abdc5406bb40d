"""Playing the invented shop into the store: its people, gauges and masters, and what goes on beside its jobs."""

from uuid import UUID, uuid4

from vallostasis.demo.hidden_truth import GAUGES, PEOPLE
from vallostasis.demo.shop_life import CURRENCY, PRICES, RING_READ, SERVICES, STUDIES, StudyPlay
from vallostasis.demo.survey_play import MASTERS, SURVEY_GAUGES
from vallostasis.services import cabinet, gauge_studies, options, shop
from vallostasis.store import gauges, setting_masters
from vallostasis.store.rows import Conn


def load_shop(conn: Conn) -> dict[str, UUID]:
    """Load people, gauges and masters into an empty store; return the people by name."""
    people = {name: shop.add_person(conn, name).person_id for name in PEOPLE}
    for gauge in (*GAUGES, *SURVEY_GAUGES):
        entry = shop.GaugeEntry(
            gauge.name,
            gauge.kind,
            f"{gauge.resolution_um:g}",
            f"{gauge.repeatability_um:g}",
            gauge.tip,
            gauge.note,
            gauge.range_mm[0],
            gauge.range_mm[1],
            gauge.tip_radius_mm,
            gauge.calibrated_on,
            gauge.due_on,
            gauge.owner,
            gauge.master,
            gauge.faults,
        )
        shop.save_gauge(conn, None, 0, entry)
    for ring in MASTERS:
        cabinet.save_master(
            conn,
            None,
            0,
            cabinet.MasterEntry(ring.name, ring.size, ring.expanded, "steel", ring.calibrated_on, ring.due_on),
        )
    _load_shop_life(conn, people)
    return people


def _load_shop_life(conn: Conn, people: dict[str, UUID]) -> None:
    by_name = {gauge.name: gauge.gauge_id for gauge in gauges.list_gauges(conn)}
    rings = {one.name: one.setting_master_id for one in setting_masters.list_masters(conn)}
    for note in SERVICES:
        cabinet.note_service(conn, by_name[note.gauge], note.kind, note.words, note.done_on, people["Ines"])
    for ring in RING_READ:
        ask = cabinet.MasterReadingToTake(
            uuid4(), rings[ring.master], by_name[ring.gauge], ring.shop, ring.text, ring.bare_unit
        )
        cabinet.read_master(conn, ask, people["Wren"])
    for kind, hours, money, days in PRICES:
        options.set_price(conn, kind, hours, money, days, CURRENCY, people["Ines"])
    for study in STUDIES:
        _play_study(conn, by_name[study.gauge.name], people, study)


def _play_study(conn: Conn, gauge_id: UUID, people: dict[str, UUID], play: StudyPlay) -> None:
    ask = gauge_studies.StudyToPlan(
        gauge_id, play.what, play.tolerance, "µm", len(play.parts_um), play.trials, [people[one] for one in play.people]
    )
    study_id = gauge_studies.plan_study(conn, ask, people["Ines"])
    values = play.readings_um()
    for cell in gauge_studies.study_now(conn, study_id).order[: play.read]:
        gauge_studies.take_study_reading(conn, study_id, uuid4(), cell, f"{values[cell] / 1000:.3f}", "mm")
