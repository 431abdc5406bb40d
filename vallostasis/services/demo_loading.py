"""Playing an invented job into the store, the way people would have recorded it."""

from uuid import UUID, uuid4

from vallostasis.core.records import Quantity
from vallostasis.demo import ferry_lanthorn as ferry
from vallostasis.services import fitting, gauge_links, jobs, readings, shop, spec_cards
from vallostasis.store import gauge_links as gauge_link_rows
from vallostasis.store import gauges
from vallostasis.store import jobs as job_rows
from vallostasis.store.rows import Conn


def store_is_empty(conn: Conn) -> bool:
    """Whether there is no job yet."""
    return not job_rows.list_jobs(conn)


def load_demo(conn: Conn) -> UUID:
    """Load the demo job into an empty store; return its id."""
    people = {name: shop.add_person(conn, name).person_id for name in ferry.PEOPLE}
    for gauge in ferry.GAUGES:
        shop.save_gauge(conn, None, 0, gauge.name, gauge.kind, f"{gauge.resolution_um:g}",
                        f"{gauge.repeatability_um:g}", gauge.tip, gauge.note)  # fmt: skip
    card_id = spec_cards.add_card(conn, ferry.spec_card(), people["Ines"])
    new = job_rows.NewJob(ferry.JOB_NUMBER, ferry.JOB_NAME, ferry.CUSTOMER, ferry.COMPLAINT, ferry.SERIAL)
    job_id = jobs.take_in_job(conn, new, card_id, people["Ines"])
    for liner in ferry.LINERS:
        jobs.add_liner(conn, job_id, liner.mark, liner.make, liner.batch)
    _take_readings(conn, job_id, people, fit_before=Quantity.PROTRUSION)
    for stage in job_rows.list_stages(conn, job_id):
        if stage.name in ferry.DONE_STAGES:
            jobs.mark_stage(conn, stage.stage_id, True, people["Ines"])
    return job_id


def link_demo_gauge(conn: Conn, port: int) -> None:
    """Let the demo's depth gauge talk over a port of this machine, where it does not already."""
    url = f"socket://127.0.0.1:{port}"
    for gauge in gauges.list_gauges(conn):
        link = gauge_link_rows.find_gauge_link(conn, gauge.gauge_id)
        if gauge.name == ferry.TALKING_GAUGE and (link is None or (link.simulated and link.url != url)):
            gauge_links.set_up_link(conn, gauge.gauge_id, url, ferry.GAUGE_LINE_PATTERN, "mm", simulated=True)


def _take_readings(conn: Conn, job_id: UUID, people: dict[str, UUID], fit_before: Quantity) -> None:
    fitted = False
    for typed in ferry.readings_typed():
        if typed.quantity is fit_before and not fitted:
            for hole in job_rows.list_holes(conn, job_id):
                fitting.record_fitting(conn, hole.hole_id, uuid4(), ferry.FITTED[hole.number], (), people["Wren"])
            fitted = True
        ask = readings.ReadingToTake(
            reading_id=uuid4(),
            quantity=typed.quantity,
            hole=typed.hole,
            hour=typed.hour,
            liner_mark=typed.liner_mark,
            land="",
            text=typed.text,
            bare_unit="0.01 mm" if typed.quantity is Quantity.PROTRUSION else "mm",
            confirmed=True,
            read_before="correct" if typed.corrects else "",
            new_pass=False,
            part_temp_c=None,
        )
        readings.take_reading(conn, job_id, ask, people[typed.by])
