"""What can be done about a hole, with the prices of the shop; what was decided; the price list itself."""

from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from vallostasis.core.options.sunk import OptionKind, SunkHole, options_for
from vallostasis.core.options.worth import Worth, worth_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.prices import OptionChoice, PriceKind, PriceList
from vallostasis.core.records.rows import Hole
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.store import prices
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_cut_facts import NewOptionChoice
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class OptionsNow:
    """The options of a hole or why there are none, the prices, what was decided, what each costs of the worth."""

    found: SunkHole | str
    prices: PriceList
    chosen: OptionChoice | None
    worth: dict[OptionKind, Worth]


def options_now(conn: Conn, job_id: UUID, number: int, worth: float | None, day_cost: float) -> OptionsNow:
    """Lay side by side what can be done about a hole of a job."""
    facts = load_job_facts(conn, job_id)
    hole, listed = _hole(facts, number), prices.price_list(conn)
    found = options_for(facts, hole, listed)
    chosen = [one for one in facts.standing(facts.option_choices) if one.hole_id == hole.hole_id]
    shares = {} if isinstance(found, str) else {
        one.kind: worth_of(one.cost.money, one.cost.hours, one.cost.days, worth, day_cost, listed.currency)
        for one in found.options if one.cost.money is not None
    }  # fmt: skip
    return OptionsNow(found, listed, chosen[-1] if chosen else None, shares)


def _hole(facts: JobFacts, number: int) -> Hole:
    hole = facts.hole_numbered(number)
    if hole is None:
        raise Refused(f"There is no hole {number} in this block.", "hole")
    return hole


@dataclass(frozen=True, slots=True)
class Choose:
    """What is decided, why, and what the engine is worth as it was told."""

    option_choice_id: UUID
    option: OptionKind
    reason: str
    worth: float | None


def choose_option(conn: Conn, job_id: UUID, number: int, choice: Choose, by: UUID) -> None:
    """Decide what is done about a hole; what is held or cannot be done is refused with its reason."""
    facts = lock_job_facts(conn, job_id)
    if any(one.option_choice_id == choice.option_choice_id for one in facts.option_choices):
        return
    hole = _hole(facts, number)
    found = options_for(facts, hole, prices.price_list(conn))
    if isinstance(found, str):
        raise Refused(found, "option")
    option = next(one for one in found.options if one.kind is choice.option)
    if option.why_not and option.kind is not OptionKind.BLOCK:
        raise Refused(option.why_not, "option")
    if option.kind is OptionKind.BLOCK and found.hold:
        raise Refused(f"Hole {number}: {found.hold}", "option", RefusalCode.HOLD)
    if not choice.reason.strip():
        raise Refused("Say why: it stands under your name.", "reason")
    worth = None if choice.worth is None else Decimal(str(choice.worth))
    record_fact(conn, NewOptionChoice(choice.option_choice_id, job_id, hole.hole_id, option.kind.value,
                                      choice.reason.strip(), worth), by)  # fmt: skip


def set_price(
    conn: Conn, kind: PriceKind, hours: float, money: float | None, days: float, currency: str, by: UUID
) -> None:
    """Save a price of the shop."""
    if kind is PriceKind.HOUR and (money is None or money <= 0):
        raise Refused("An hour of the shop costs something: type what.", "money")
    prices.set_price(conn, kind, Decimal(str(hours)), None if money is None else Decimal(str(money)),
                     Decimal(str(days)), currency.strip(), by)  # fmt: skip
