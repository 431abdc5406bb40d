"""Orders of a job: given, moved to another day, in and measured, sent back; the route waits for what is not here."""

from dataclasses import dataclass
from datetime import UTC, date, datetime
from decimal import Decimal
from uuid import UUID, uuid4

from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.typed_lengths import ExpectedRange
from vallostasis.core.orders.now import OrderNow, orders_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.orders import OrderKind, OrderMoveKind
from vallostasis.core.records.route_marks import Bill, Operation, WaitCause
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_calendar_facts import NewWaitMoved
from vallostasis.store.new_facts import NewWait, NewWaitEnd
from vallostasis.store.new_money_facts import NewPartCost
from vallostasis.store.new_order_facts import NewOrder, NewOrderMove
from vallostasis.store.rows import Conn

_K = OrderMoveKind
# A part of an engine measures from a shim to a liner; what is made to size may be off by little. [µm] House rule.
SIZES = ExpectedRange(Decimal(50), Decimal(600_000))
TOLERANCES = ExpectedRange(Decimal(0), Decimal(2_000))
# What an order can still become, by what it is for. A loan is given back, everything else comes in.
NEXT = {
    OrderKind.LOAN: (_K.SAID, _K.RETURNED, _K.OFF),
    OrderKind.PART: (_K.SAID, _K.IN, _K.MEASURED, _K.BACK, _K.OFF),
    OrderKind.MADE: (_K.SAID, _K.IN, _K.MEASURED, _K.BACK, _K.OFF),
    OrderKind.OUTSIDE: (_K.SAID, _K.IN, _K.MEASURED, _K.BACK, _K.OFF),
}


@dataclass(frozen=True, slots=True)
class OrderTyped:
    """An order as typed; the client makes the id."""

    order_id: UUID
    kind: OrderKind
    what: str
    count: int
    whom: str
    words: str
    key: str
    price: Decimal | None
    due: date | None
    wanted: str
    within: str
    bare_unit: Unit
    confirmed: bool


def orders_now(conn: Conn, job_id: UUID) -> tuple[OrderNow, ...]:
    """Return every order of a job as it stands."""
    return orders_of(load_job_facts(conn, job_id), datetime.now(UTC).date())


def place_order(conn: Conn, job_id: UUID, typed: OrderTyped, by: UUID) -> None:
    """Write an order down; what it is for waits for it from now on. Sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.order_id == typed.order_id for one in facts.orders):
        return
    if typed.due is not None and typed.due < facts.job.opened_at.date():
        raise Refused("It is due before the engine came in: check the day.", "due")
    wanted = within = None
    if typed.wanted.strip():
        wanted = read_usual("wanted", typed.wanted, typed.bare_unit, SIZES, typed.confirmed).value_um
        if not typed.within.strip():
            raise Refused("A size that is ordered has a tolerance: type how far it may be off.", "within")
        within = read_usual("within", typed.within, typed.bare_unit, TOLERANCES, typed.confirmed).value_um
    wait_id = None
    if typed.kind is not OrderKind.LOAN:
        wait_id = uuid4()
        words = f"{typed.what} from {typed.whom}" if typed.whom else typed.what
        record_fact(conn, NewWait(job_id, Operation.ORDER, None, WaitCause.PART, words[:60], datetime.now(UTC),
                                  typed.due, wait_id), by)  # fmt: skip
    record_fact(conn, NewOrder(typed.order_id, job_id, typed.kind, typed.what, typed.count, typed.whom, typed.words,
                               typed.key, typed.price, typed.due, wanted, typed.wanted.strip(), within,
                               wait_id), by)  # fmt: skip


@dataclass(frozen=True, slots=True)
class MoveTyped:
    """What became of an order, as typed."""

    kind: OrderMoveKind
    due: date | None
    measured: str
    words: str
    paid: Decimal | None
    bare_unit: Unit
    confirmed: bool


def move_order(conn: Conn, job_id: UUID, order_id: UUID, typed: MoveTyped, by: UUID) -> None:
    """Write down what became of an order; what waited for it follows, and what was paid stands in the money."""
    facts = lock_job_facts(conn, job_id)
    now = next((one for one in orders_of(facts, datetime.now(UTC).date()) if one.order.order_id == order_id), None)
    if now is None:
        raise Refused("That order is not there any more: look again.", "order_id", RefusalCode.STALE)
    if typed.kind not in NEXT[now.order.kind]:
        said = ", ".join(one.value for one in NEXT[now.order.kind])
        raise Refused(f"A {now.order.kind.value} can be: {said}.", "kind")
    measured = None
    if typed.kind is _K.MEASURED:
        if now.order.wanted_um is None:
            raise Refused("No size was ordered: there is nothing to hold a measured one against.", "measured")
        measured = read_usual("measured", typed.measured, typed.bare_unit, SIZES, typed.confirmed).value_um
    if typed.kind is _K.BACK and not typed.words.strip():
        raise Refused("Say what is wrong with it: it goes back with those words.", "words")
    record_fact(conn, NewOrderMove(job_id, order_id, typed.kind, typed.due, measured, typed.measured.strip(),
                                   typed.words.strip()), by)  # fmt: skip
    _wait_follows(conn, facts, now, typed, by)
    if typed.kind is _K.IN and typed.paid is not None:
        order = now.order
        key = order.key or f"own: {order.what.casefold()}"
        record_fact(conn, NewPartCost(uuid4(), job_id, key, order.what, typed.paid, Bill.AGREED), by)


def _wait_follows(conn: Conn, facts: JobFacts, now: OrderNow, typed: MoveTyped, by: UUID) -> None:
    wait_id = now.order.wait_id
    if wait_id is None or wait_id in facts.standing_wait_ends:
        return
    if typed.kind is _K.SAID:
        record_fact(conn, NewWaitMoved(facts.job.job_id, wait_id, typed.due, typed.words.strip()), by)
    if typed.kind in (_K.IN, _K.OFF):
        record_fact(conn, NewWaitEnd(facts.job.job_id, wait_id, datetime.now(UTC), typed.words.strip()), by)
