"""The shelf of shims: lots put on it, reserved for a job, ordered, used; and the order list of a job."""

from dataclasses import dataclass
from decimal import Decimal, InvalidOperation
from uuid import UUID, uuid4

from vallostasis.core.causes.experiments import why_not_buy
from vallostasis.core.counterbore.shim_order import ShimNeed, shim_needs
from vallostasis.core.features.usual_lengths import SHIM
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.protrusion.measured import judge_job
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.shelf import ShimLot, ShimMoveKind
from vallostasis.documents.shim_order import ShimOrder, shim_order_csv, shim_order_html
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import shelf
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn
from vallostasis.store.shelf import NewLot, NewMove

OUTSIDE = ExpectedRange(Decimal(20_000), Decimal(1_200_000))


@dataclass(frozen=True, slots=True)
class LotTyped:
    """A lot as it was typed; bare numbers in mm."""

    shim_lot_id: UUID
    size: str
    count: int
    measured: str = ""
    lot: str = ""
    price: str = ""
    outside: str = ""
    side_up: str = "bevel down"
    bare_unit: Unit = "mm"
    confirmed: bool = False


def put_on_shelf(conn: Conn, typed: LotTyped, by: UUID) -> None:
    """Put a lot of shims on the shelf."""
    size = read_usual("size", typed.size, typed.bare_unit, SHIM, typed.confirmed)
    if size.value_um <= 0:
        raise Refused("A shim is thicker than nothing: type its size.", "size")
    measured = outside = price = None
    if typed.measured.strip():
        measured = read_usual("measured", typed.measured, typed.bare_unit, SHIM, typed.confirmed).value_um
        if abs(measured - size.value_um) > size.value_um / 4:
            raise Refused("That is far from its size: is it the right shim, the right unit?", "measured")
    if typed.outside.strip():
        outside = read_usual("outside", typed.outside, typed.bare_unit, OUTSIDE, typed.confirmed).value_um
    if typed.price.strip():
        try:
            price = Decimal(typed.price.strip().replace(",", "."))
        except InvalidOperation:
            raise Refused("Type what one costs as a number.", "price") from None
        if not 0 <= price < 100_000:
            raise Refused("Type what one costs as a number.", "price")
    shown = f"{size.number} {size.unit}"
    shelf.add_lot(conn, NewLot(typed.shim_lot_id, size.value_um, shown, measured, typed.lot, price, outside,
                               typed.side_up, typed.count), by)  # fmt: skip


def move_shims(conn: Conn, move: NewMove, by: UUID) -> None:
    """Reserve shims for a job, release them, order, take in or scrap them."""
    lot = next((one for one in shelf.list_lots(conn, move.job_id) if one.shim_lot_id == move.shim_lot_id), None)
    if lot is None:
        raise Refused("There is no such lot on the shelf.", "shim_lot_id")
    of_job = (ShimMoveKind.RESERVED, ShimMoveKind.RELEASED)
    if move.kind in of_job and move.job_id is None:
        raise Refused("Say for which job.", "job_id")
    if move.kind is ShimMoveKind.USED:
        raise Refused("A shim is used by a fitting: record the fitting.", "kind")
    if move.job_id is not None:
        load_job_facts(conn, move.job_id)
    most = {
        ShimMoveKind.RESERVED: lot.on_shelf - lot.reserved_elsewhere - lot.reserved_here,
        ShimMoveKind.RELEASED: lot.reserved_here,
        ShimMoveKind.SCRAPPED: lot.on_shelf,
    }.get(move.kind, 10_000)
    if move.count > most:
        raise Refused(f"No more than {max(0, most)} can be {move.kind.value}.", "count", RefusalCode.WRONG)
    shelf.add_move(conn, move, by)


def lot_to_use(facts: JobFacts, size_um: Decimal) -> ShimLot | None:
    """Return the lot that a fitting takes a shim of a size from: one kept for this job first."""
    found = [one for one in facts.shelf if one.size_um == size_um and one.free > 0]
    return max(found, key=lambda one: one.reserved_here, default=None)


def use_shims(conn: Conn, facts: JobFacts, fitting_id: UUID, sizes_um: list[Decimal], by: UUID) -> None:
    """Take the shims of a fitting from the shelf, where it has them."""
    for size_um in sizes_um:
        lot = lot_to_use(facts, size_um)
        if lot is not None:
            shelf.add_move(conn, NewMove(uuid4(), lot.shim_lot_id, ShimMoveKind.USED, 1, facts.job.job_id, fitting_id),
                           by)  # fmt: skip


def needs_of(facts: JobFacts) -> tuple[ShimNeed, ...]:
    """Return what a job needs of every shim size, with what is to be ordered and a spare."""
    return shim_needs(facts, judge_job(facts))


def why_no_order(conn: Conn, job_id: UUID) -> str:
    """Say why no shims are ordered for a job yet; empty where they may be."""
    return _why_not(load_job_facts(conn, job_id))


def _why_not(facts: JobFacts) -> str:
    return why_not_buy(facts, tuple(hole for one in needs_of(facts) if one.to_order for hole in one.holes))


def order_of(conn: Conn, job_id: UUID) -> ShimOrder:
    """Return the order list of a job: sizes to order, how many, with spares, and their price."""
    facts = load_job_facts(conn, job_id)
    lines = tuple(one for one in needs_of(facts) if one.to_order)
    if why := _why_not(facts):
        raise Refused(why, "", RefusalCode.HOLD)
    return ShimOrder(facts.job.number, facts.job.name, facts.card.engine, facts.card.currency, lines)


def order_as_csv(conn: Conn, job_id: UUID) -> str:
    """Order list as CSV."""
    return shim_order_csv(order_of(conn, job_id))


def order_as_html(conn: Conn, job_id: UUID) -> str:
    """Order list as a page, from which the PDF is printed."""
    return shim_order_html(order_of(conn, job_id))
