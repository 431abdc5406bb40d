"""Gauges that talk: setting their links up, what they say now, and where a simulated tip stands."""

from dataclasses import dataclass
from typing import cast
from uuid import UUID

from vallostasis.core.errors import NotationError
from vallostasis.core.job_facts import JobFacts
from vallostasis.core.lengths import Unit
from vallostasis.core.measuring.clock import hour_name
from vallostasis.core.measuring.gauge_line import compile_pattern
from vallostasis.core.records import Hole, Quantity
from vallostasis.devices.gauge_link import LinkNow, LinkSettings, is_gauge_address
from vallostasis.devices.link_board import LinkBoard
from vallostasis.services.readings import known_hole
from vallostasis.services.refused import Refused
from vallostasis.store import gauge_links, gauges
from vallostasis.store.gauge_links import GaugeLinkRow
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class TalkingGauge:
    """A gauge with its link as set up, and how it stands now."""

    link: GaugeLinkRow
    now: LinkNow


def list_talking(conn: Conn, board: LinkBoard) -> list[TalkingGauge]:
    """Return every gauge that has a link, and how it stands; links not open yet are opened."""
    return [_talking(row, board) for row in gauge_links.list_gauge_links(conn)]


def talking(conn: Conn, board: LinkBoard, gauge_id: UUID) -> TalkingGauge | None:
    """Return one gauge's link and how it stands, or None when it has none."""
    gauges.get_gauge(conn, gauge_id)
    row = gauge_links.find_gauge_link(conn, gauge_id)
    return None if row is None else _talking(row, board)


def _talking(row: GaugeLinkRow, board: LinkBoard) -> TalkingGauge:
    board.set_up(row.gauge_id, LinkSettings(row.url, row.line_pattern, cast(Unit, row.unit), row.simulated))
    now = board.now(row.gauge_id)
    assert now is not None
    return TalkingGauge(row, now)


def set_up_link(conn: Conn, gauge_id: UUID, url: str, line_pattern: str, unit: Unit, simulated: bool) -> None:
    """Read a gauge from another address or by another pattern from now on."""
    gauges.get_gauge(conn, gauge_id)
    address = url.strip()
    if not is_gauge_address(address):
        raise Refused(
            "A gauge is at a cable such as /dev/ttyUSB0, or at a line such as socket://127.0.0.1:8430.", "url"
        )
    try:
        compile_pattern(line_pattern)
    except NotationError as error:
        error.field = "line_pattern"
        raise
    gauge_links.add_gauge_link(conn, gauge_id, address, line_pattern.strip(), unit, simulated)


def place_tip(
    conn: Conn, board: LinkBoard, gauge_id: UUID, job_id: UUID, hole: int, hour: float, quantity: Quantity
) -> None:
    """Tell a simulated gauge on which hole and position its tip stands; a real gauge needs no telling."""
    gauge = talking(conn, board, gauge_id)
    if gauge is None or not gauge.link.simulated:
        return
    facts = load_job_facts(conn, job_id)
    board.place_tip(gauge_id, tip_line(facts, known_hole(facts, hole), hour, quantity))


def tip_line(facts: JobFacts, hole: Hole, hour: float, quantity: Quantity) -> str:
    """Write where the tip stands, with what was done to the hole since it was found."""
    fitting, cut = facts.present_fitting(hole.hole_id), facts.last_cut(hole.hole_id)
    what = "protrusion" if quantity is Quantity.PROTRUSION else "depth"
    words = [f"at {hole.number} {hour_name(hour)} {what}"]
    if fitting is not None:
        words.append(facts.liner(fitting.liner_id).mark.replace(" ", "-"))
    if cut is not None:
        words.append(f"cut {cut.depth_um.normalize():f}")
    if fitting is not None:
        shims = sum(shim.thickness_um for shim in facts.shims_of(fitting.fitting_id))
        words.append(f"shim {shims.normalize():f}" if shims else "")
    return " ".join(word for word in words if word)
