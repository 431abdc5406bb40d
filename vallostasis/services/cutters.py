"""The counterbore cutters of the shop: cards, services, what their runs teach, and the switch that ends a pass."""

from dataclasses import dataclass
from datetime import date
from decimal import Decimal, InvalidOperation
from uuid import UUID

from vallostasis.core.counterbore.learned import HoleCut, LearnedCutter, learn
from vallostasis.core.cut_runs.own_runs import finished_runs
from vallostasis.core.features.usual_lengths import GAUGE_STEP, TIP_RADIUS
from vallostasis.core.notation.lengths import Unit, metres, micrometres
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.records.cut_runs import CutterVersion, Lesson
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.devices.gauge_link import is_gauge_address
from vallostasis.devices.link_board import LinkBoard
from vallostasis.devices.pass_switch import SwitchNow
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import Refused, version_after
from vallostasis.store import cutters, lessons
from vallostasis.store.cutters import CutterSheet
from vallostasis.store.revisions import advance_shop
from vallostasis.store.rows import Conn

STOP = ExpectedRange(Decimal("0.5"), Decimal(600))
BORE = ExpectedRange(Decimal(20_000), Decimal(1_200_000))
PROJECTION = TIP_RADIUS


@dataclass(frozen=True, slots=True)
class CutterTyped:
    """The card of a cutter as it was typed; bare numbers in mm."""

    name: str
    graduation: str
    stop_accuracy: str
    graduation_error_percent: float = 5.0
    bit: str = ""
    bit_projection: str = ""
    oil: str = ""
    collars: str = ""
    stop_set: str = ""
    torque_nm: float | None = None
    bore_least: str = ""
    bore_greatest: str = ""
    vacuum_every: int = 10
    note: str = ""
    bare_unit: Unit = "mm"
    confirmed: bool = False


def save_cutter(conn: Conn, typed: CutterTyped, based_on: int, by: UUID) -> None:
    """Save the card of a cutter as its next version; a new name is a new cutter."""
    present = cutters.find_cutter(conn, typed.name)
    if present is not None:
        cutters.lock_cutter(conn, present.cutter_id)
    version = version_after(0 if present is None else present.version, based_on, typed.name)
    sheet = _sheet(typed)
    if sheet.bore_least_um and sheet.bore_greatest_um and sheet.bore_least_um > sheet.bore_greatest_um:
        raise Refused("The least bore is above the greatest: check both.", "bore_greatest")
    cutter_id = cutters.add_cutter(conn, typed.name) if present is None else present.cutter_id
    cutters.add_cutter_version(conn, cutter_id, version, sheet, by)


def _sheet(typed: CutterTyped) -> CutterSheet:
    def read(name: str, usual: ExpectedRange) -> Decimal | None:
        text = getattr(typed, name)
        return read_usual(name, text, typed.bare_unit, usual, typed.confirmed).value_um if text.strip() else None

    graduation, stop = read("graduation", GAUGE_STEP), read("stop_accuracy", STOP)
    if not graduation or graduation <= 0:
        raise Refused("Type what one graduation is marked.", "graduation")
    if not stop or stop <= 0:
        raise Refused("Type how truly the stop stands, as ±.", "stop_accuracy")
    try:
        torque = None if typed.torque_nm is None else Decimal(str(typed.torque_nm))
    except InvalidOperation:
        raise Refused("Type the torque as a number.", "torque_nm") from None
    return CutterSheet(
        bit=typed.bit,
        bit_projection_um=read("bit_projection", PROJECTION),
        oil=typed.oil,
        collars=typed.collars,
        stop_set=typed.stop_set,
        graduation_um=graduation,
        stop_accuracy_um=stop,
        graduation_error_percent=Decimal(str(typed.graduation_error_percent)),
        torque_nm=torque,
        bore_least_um=read("bore_least", BORE),
        bore_greatest_um=read("bore_greatest", BORE),
        vacuum_every=typed.vacuum_every,
        note=typed.note,
    )


def serve_cutter(conn: Conn, cutter_id: UUID, kind: str, words: str, done_on: date, by: UUID) -> None:
    """Write down what was done to a cutter."""
    if all(one.cutter_id != cutter_id for one in cutters.list_cutters(conn)):
        raise Refused("There is no such cutter.", "cutter_id")
    cutters.add_service(conn, cutter_id, kind, words, done_on, by)


@dataclass(frozen=True, slots=True)
class CutterKnown:
    """A cutter with what its runs teach, material by material."""

    card: CutterVersion
    learned: tuple[tuple[str, LearnedCutter, tuple[Lesson, ...]], ...]


def keep_lessons(conn: Conn, facts: JobFacts) -> None:
    """Keep what the finished runs of a job teach, for the plans of every job; a run teaches once."""
    known = {one.run_id for one in lessons.list_lessons(conn)}
    fresh = [one for one in finished_runs(facts) if one[1].run.run_id not in known]
    for hole, run, taught in fresh:
        lesson = Lesson(
            run.run.run_id,
            facts.job.name,
            hole.number,
            run.run.cutter,
            facts.card.block_material,
            Decimal(str(round(taught.passes, 4))),
            micrometres(taught.change_m),
            micrometres(taught.off_m),
            taught.pass_s,
        )
        lessons.add_lesson(conn, lesson)
    if fresh:
        advance_shop(conn)


def list_known(conn: Conn) -> tuple[CutterKnown, ...]:
    """Return every cutter with what its runs teach."""
    taught = lessons.list_lessons(conn)
    known = []
    for card in cutters.list_cutters(conn):
        own = [one for one in taught if one.cutter.casefold() == card.name.casefold()]
        materials = dict.fromkeys(one.material for one in own)
        groups = [(material, tuple(one for one in own if one.material == material)) for material in materials]
        learned = tuple(
            (m, learn([HoleCut(float(o.passes), metres(o.change_um), metres(o.off_um), o.pass_s) for o in g]), g)
            for m, g in groups
        )
        known.append(CutterKnown(card, learned))
    return tuple(known)


def switch_now(conn: Conn, board: LinkBoard) -> tuple[bool, SwitchNow] | None:
    """Return whether the switch is simulated and how it stands; None where none is set up."""
    row = cutters.present_switch(conn)
    return None if row is None else (row.simulated, board.switch(row.url, row.simulated).switch_now())


def set_up_switch(conn: Conn, board: LinkBoard, url: str) -> None:
    """Listen to a switch at an address from now on."""
    if not is_gauge_address(url):
        raise Refused("Type where the switch sends: socket://127.0.0.1:8435, or /dev/ttyUSB0.", "url")
    cutters.set_up_switch(conn, url, simulated=False)
    board.switch(url, simulated=False)


def press_switch(conn: Conn, board: LinkBoard) -> None:
    """Press the simulated switch."""
    row = cutters.present_switch(conn)
    if row is None or not row.simulated:
        raise Refused("This switch is pressed by hand.", "url")
    board.switch(row.url, row.simulated).press()
