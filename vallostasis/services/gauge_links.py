"""Gauges that talk: setting their links up, what they say now, and where a simulated tip stands."""

from dataclasses import dataclass, replace
from decimal import Decimal
from typing import cast
from uuid import UUID

from vallostasis.core.features.catalogue import is_surveyed
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.gauges.turning_point import is_rocked, turning_point
from vallostasis.core.notation.gauge_line import GaugeValue, compile_pattern
from vallostasis.core.notation.lengths import MICROMETRES_PER, Unit, metres, micrometres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Place, Quantity, ZeroedOn
from vallostasis.core.shapes.clock import hour_name
from vallostasis.devices.gauge_link import LinkNow, LinkSettings, is_gauge_address
from vallostasis.devices.link_board import LinkBoard
from vallostasis.devices.simulated_gauge import STUDY
from vallostasis.services.reading_target import (
    known_hole,
)
from vallostasis.services.refused import Refused, typed_at
from vallostasis.store import gauge_links, gauge_studies, gauges
from vallostasis.store.gauge_links import GaugeLinkRow
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class RockedValue:
    """The size that a few rocks have shown, as text to keep with the reading. [µm], [m]"""

    text: str
    value_um: Decimal
    value_m: float
    rocks: int
    spread_m: float


@dataclass(frozen=True, slots=True)
class TalkingGauge:
    """A gauge with its link as set up, and how it stands now."""

    link: GaugeLinkRow
    now: LinkNow
    rocked: RockedValue | None = None


def list_talking(conn: Conn, board: LinkBoard) -> list[TalkingGauge]:
    """Return every gauge that has a link, and how it stands; links not open yet are opened."""
    return [_talking(row, board) for row in gauge_links.list_gauge_links(conn)]


def talking(conn: Conn, board: LinkBoard, gauge_id: UUID, since_s: float | None = None) -> TalkingGauge | None:
    """Return one gauge's link and how it stands, or None when it has none.

    A bore gauge is rocked: with ``since_s`` its turning points of the last seconds are looked for. [s]
    """
    gauge = gauges.get_gauge(conn, gauge_id)
    row = gauge_links.find_gauge_link(conn, gauge_id)
    if row is None:
        return None
    found = _talking(row, board)
    if since_s is None or not is_rocked(gauge.kind):
        return found
    step_um = gauge.resolution_um
    return replace(found, rocked=_rocked(board.values_since(gauge_id, since_s), step_um, cast(Unit, row.unit)))


def _rocked(stream: list[tuple[float, GaugeValue]], step_um: Decimal, unit: Unit) -> RockedValue | None:
    """Take the turning points out of a stream, rounded to a tenth of the gauge's step."""
    found = turning_point([at for at, _ in stream], [metres(value.value_um) for _, value in stream])
    if found is None:
        return None
    fine = step_um / 10
    value_um = round(micrometres(found.value_m) / fine) * fine
    number = value_um / MICROMETRES_PER[unit]
    return RockedValue(f"{number.normalize():+f} {unit}", value_um, metres(value_um), len(found.turning_points_m),
                       found.spread_m)  # fmt: skip


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
    with typed_at("line_pattern"):
        compile_pattern(line_pattern)
    gauge_links.add_gauge_link(conn, gauge_id, address, line_pattern.strip(), unit, simulated)


@dataclass(frozen=True, slots=True)
class TipPlace:
    """Where a simulated tip is to stand: a position round a hole, or a place of a survey."""

    job_id: UUID
    quantity: Quantity
    hole: int | None
    part: str
    place: Place


def place_tip(conn: Conn, board: LinkBoard, gauge_id: UUID, tip: TipPlace) -> None:
    """Tell a simulated gauge where its tip stands; a real gauge needs no telling."""
    gauge = talking(conn, board, gauge_id)
    if gauge is None or not gauge.link.simulated:
        return
    facts = load_job_facts(conn, tip.job_id)
    if is_surveyed(tip.quantity):
        part = part_with_key(facts, tip.quantity, tip.part)
        if part is None:
            raise Refused("There is no such part in this job.", "part")
        board.place_tip(gauge_id, survey_line(facts, tip))
        return
    if tip.place.hour is None:
        raise Refused("At which clock position? Say it with its hour.", "hour")
    board.place_tip(gauge_id, tip_line(facts, known_hole(facts, tip.hole), tip.place.hour, tip.quantity))


def place_study_tip(conn: Conn, board: LinkBoard, gauge_study_id: UUID, part: int) -> UUID:
    """Tell a simulated gauge to which part of a study it is held; return the gauge."""
    plan = gauge_studies.get_study(conn, gauge_study_id)
    gauge = talking(conn, board, plan.gauge_id)
    if gauge is not None and gauge.link.simulated:
        board.place_tip(plan.gauge_id, f"survey {STUDY} {'-'.join(plan.what.split())} part-{part}")
    return plan.gauge_id


def survey_line(facts: JobFacts, tip: TipPlace) -> str:
    """Write where a tip stands on a surveyed part: job, feature, part, place and the size the gauge is zeroed on."""
    setup = facts.present_setup(tip.quantity)
    words = [f"survey {facts.job.number} {tip.quantity.value.replace(' ', '-')} {tip.part}"]
    place = {"level": tip.place.level_um, "axis": tip.place.axis_deg, "along": tip.place.along_um,
             "across": tip.place.across_um}  # fmt: skip
    words += [f"{name} {float(value):g}" for name, value in place.items() if value is not None]
    if setup is not None and setup.zeroed_on is not ZeroedOn.DATUM:
        words.append(f"zero {setup.zero_um.normalize():f}")
    return " ".join(words)


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
