"""Where an order stands: on order, late, in and to be measured, in and right, wrong, back, on loan."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum

from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.orders import Order, OrderKind, OrderMove, OrderMoveKind


class OrderState(StrEnum):
    """Where an order stands."""

    ON_ORDER = "on order"
    LATE = "late"
    TO_MEASURE = "in, to be measured"
    RIGHT = "in, as ordered"
    WRONG = "in, not as ordered"
    BACK = "sent back"
    OFF = "called off"
    LENT = "on loan"
    RETURNED = "given back"


@dataclass(frozen=True, slots=True)
class OrderNow:
    """An order as it stands: its state, the day it is due now, how far what was measured is from what was asked. [m]"""

    order: Order
    moves: tuple[OrderMove, ...]
    state: OrderState
    due: date | None
    off_m: float | None

    @property
    def is_awaited(self) -> bool:
        """Whether something is still to come of it, or to be given back. House rule."""
        return self.state not in (OrderState.RIGHT, OrderState.OFF, OrderState.RETURNED)


def orders_of(facts: JobFacts, today: date) -> tuple[OrderNow, ...]:
    """Return every order of a job as it stands.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    today : date
        After its day an order is late.

    Returns
    -------
    tuple of OrderNow
        Oldest first. What comes in is never taken as marked: with a size asked for it is measured, and right where it
        lies within its tolerance. Common practice, no published source.
    """
    moves = facts.standing(facts.order_moves)
    return tuple(_now(one, tuple(move for move in moves if move.order_id == one.order_id), today)
                 for one in facts.standing(facts.orders))  # fmt: skip


def _now(order: Order, moves: tuple[OrderMove, ...], today: date) -> OrderNow:
    said = [one for one in moves if one.kind is OrderMoveKind.SAID]
    due = said[-1].due if said else order.due
    measured = [one.measured_um for one in moves if one.measured_um is not None]
    off = None if not measured or order.wanted_um is None else metres(measured[-1] - order.wanted_um)
    return OrderNow(order, moves, _state(order, moves, due, off, today), due, off)


def _state(
    order: Order, moves: tuple[OrderMove, ...], due: date | None, off_m: float | None, today: date
) -> OrderState:
    last = next((one.kind for one in reversed(moves) if one.kind is not OrderMoveKind.SAID), None)
    ends = {OrderMoveKind.BACK: OrderState.BACK, OrderMoveKind.OFF: OrderState.OFF,
            OrderMoveKind.RETURNED: OrderState.RETURNED}  # fmt: skip
    if last in ends:
        return ends[last]
    if order.kind is OrderKind.LOAN:
        return OrderState.LATE if due is not None and due < today else OrderState.LENT
    if last is None:
        return OrderState.LATE if due is not None and due < today else OrderState.ON_ORDER
    if order.wanted_um is None:
        return OrderState.RIGHT
    if off_m is None:
        return OrderState.TO_MEASURE
    within = 0.0 if order.within_um is None else metres(order.within_um)
    return OrderState.RIGHT if abs(off_m) <= within + 1e-12 else OrderState.WRONG
