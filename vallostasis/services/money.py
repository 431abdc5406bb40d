"""The estimate of a job: drafted from its route and needs, written, answered, held against what it took."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, date, datetime
from decimal import Decimal
from uuid import UUID

from vallostasis.core.bores.decisions import contradictions
from vallostasis.core.errors import OutOfDomain
from vallostasis.core.money.draft import DraftLine, draft_of
from vallostasis.core.money.needed import Needed, needed_for
from vallostasis.core.money.standing import Standing, Written, estimate_with, message_of, standing_of, written_of
from vallostasis.core.money.sums import Line, Totals, totals_of
from vallostasis.core.records.estimates import Answered, Declined, MoneyRules, PartCost, PartPrice, Sheet
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.prices import PriceKind
from vallostasis.core.records.route_marks import Bill
from vallostasis.services.refused import RefusalCode, Refused
from vallostasis.services.shop_time import learned_hours
from vallostasis.store import jobs, money, prices
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts, lock_job_facts
from vallostasis.store.new_money_facts import (
    NewDeclined,
    NewEstimate,
    NewEstimateAnswer,
    NewEstimateLine,
    NewPartCost,
)
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class MoneyNow:
    """The money of a job: its draft as of now with its sums, every estimate written, how the agreed one stands.

    ``rate`` is None while the shop has set none.
    """

    facts: JobFacts
    draft: tuple[DraftLine, ...]
    totals: Totals | None
    rate: Decimal | None
    currency: str
    rules: MoneyRules
    written: tuple[Written, ...]
    standing: Standing | None
    message: str
    needed: tuple[Needed, ...]
    part_prices: tuple[PartPrice, ...]
    costs: tuple[PartCost, ...]
    declined: tuple[Declined, ...]


def money_now(conn: Conn, job_id: UUID, now: datetime) -> MoneyNow:
    """Bring together the money of a job as of now."""
    facts = load_job_facts(conn, job_id)
    listed, rules, part_prices = prices.price_list(conn), money.money_rules(conn), money.list_part_prices(conn)
    every = [load_job_facts(conn, one.job_id) for one in jobs.list_jobs(conn)]
    draft = draft_of(facts, learned_hours(every, now), part_prices, listed, rules)
    rate = listed.of(PriceKind.HOUR).money
    totals = None if rate is None else totals_of([_line(one) for one in draft], rate, rules.rounding)
    standing = standing_of(facts, draft, now)
    message = "" if standing is None or not standing.is_broken else message_of(facts, standing, _found(facts))
    return MoneyNow(facts, draft, totals, rate, listed.currency, rules, written_of(facts), standing, message,
                    needed_for(facts), part_prices, facts.standing(facts.part_costs),
                    facts.standing(facts.declined))  # fmt: skip


def _line(one: DraftLine) -> Line:
    return Line(one.sheet, one.low, one.worst, one.tax_percent)


def _found(facts: JobFacts) -> str:
    """What was found in a sentence: a bore that did not clean up."""
    return " ".join(one.words for one in contradictions(facts))


@dataclass(frozen=True, slots=True)
class LineTyped:
    """A line of an estimate as typed: money, or hours."""

    sheet: Sheet
    key: str
    words: str
    low: Decimal
    worst: Decimal
    tax_percent: Decimal


def write_estimate(
    conn: Conn, job_id: UUID, estimate_id: UUID, lines: Sequence[LineTyped], words: str, by: UUID
) -> None:
    """Write an estimate down as it goes to the owner; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.estimate_id == estimate_id for one in facts.estimates):
        return
    listed, rules = prices.price_list(conn), money.money_rules(conn)
    rate = listed.of(PriceKind.HOUR).money
    if rate is None:
        raise Refused("Nobody has said yet what an hour of the shop costs: set it under Prices first.", "rate")
    if not lines:
        raise Refused("An estimate has a line or more.", "lines")
    for place, one in enumerate(lines):
        if one.worst < one.low:
            raise Refused(f"{one.words}: at worst it is no less than at least.", f"lines.{place}.worst")
    keys = [one.key for one in lines if one.key]
    if len(keys) != len(set(keys)):
        raise Refused("Two lines stand for the same thing: put them together.", "lines")
    try:
        totals_of([Line(one.sheet, one.low, one.worst, one.tax_percent) for one in lines], rate, rules.rounding)
    except OutOfDomain as error:
        raise Refused(str(error), "lines") from error
    record_fact(conn, NewEstimate(estimate_id, job_id, rate, listed.currency, rules.rounding, words.strip()), by)
    for place, one in enumerate(lines):
        key = one.key or f"own: {one.words.casefold()}"
        record_fact(conn, NewEstimateLine(job_id, estimate_id, place, one.sheet, key, one.words, one.low, one.worst,
                                          one.tax_percent), by)  # fmt: skip


@dataclass(frozen=True, slots=True)
class Said:
    """What the owner said: who, by what way, on which day, in what words."""

    answer: Answered
    said: str
    way: str
    on: date
    words: str


def answer_estimate(conn: Conn, job_id: UUID, estimate_id: UUID, said: Said, by: UUID) -> None:
    """Write down what the owner said to an estimate."""
    facts = lock_job_facts(conn, job_id)
    written = estimate_with(facts, estimate_id)
    if written is None:
        raise Refused("That estimate is not there any more: look again.", "estimate_id", RefusalCode.STALE)
    if not said.said.strip():
        raise Refused("Say who agreed or refused: it stands under the name.", "said")
    if said.on > datetime.now(UTC).date():
        raise Refused("Nobody can have said it on a day to come.", "on")
    if said.answer is Answered.REFUSED and not said.words.strip():
        raise Refused("Say why it was refused.", "words")
    record_fact(conn, NewEstimateAnswer(job_id, estimate_id, said.answer, said.said.strip(), said.way.strip(), said.on,
                                        said.words.strip()), by)  # fmt: skip


def decline(conn: Conn, job_id: UUID, what: str, reason: str, by: UUID) -> None:
    """Write down what else could have been done and was not wanted."""
    lock_job_facts(conn, job_id)
    if not reason.strip():
        raise Refused("Say why it was not wanted.", "reason")
    record_fact(conn, NewDeclined(job_id, what, reason.strip()), by)


@dataclass(frozen=True, slots=True)
class PaidFor:
    """What a part really cost; the client makes the id."""

    part_cost_id: UUID
    key: str
    words: str
    money: Decimal
    bill: Bill


def pay_part(conn: Conn, job_id: UUID, paid: PaidFor, by: UUID) -> None:
    """Write down what a part really cost; sending it again never doubles it."""
    facts = lock_job_facts(conn, job_id)
    if any(one.part_cost_id == paid.part_cost_id for one in facts.part_costs):
        return
    key = paid.key or f"own: {paid.words.casefold()}"
    record_fact(conn, NewPartCost(paid.part_cost_id, job_id, key, paid.words, paid.money, paid.bill), by)
