"""How an agreed estimate stands: what was used of each line, what is taken off, what was found beside it, and its sum.

Common practice, no published source: what is not used is taken off; what was found is agreed before it is done.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID

from vallostasis.core.hours.log import billed_hours
from vallostasis.core.money.draft import DraftLine, key_of_work
from vallostasis.core.money.sums import NOTHING, Line, Totals, quarters_up, to_coin, totals_of
from vallostasis.core.records.estimates import Answered, Estimate, EstimateAnswer, EstimateLine, Sheet
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.route_marks import Bill, Operation
from vallostasis.core.route.route import route_of

# How a line begins that says by how much another was exceeded. House rule.
MORE = "more than agreed: "


@dataclass(frozen=True, slots=True)
class Written:
    """An estimate with its lines, its sums, and what the owner answered; None while nobody did."""

    estimate: Estimate
    lines: tuple[EstimateLine, ...]
    totals: Totals
    answer: EstimateAnswer | None


@dataclass(frozen=True, slots=True)
class LineNow:
    """A line of the agreed estimate as it stands, in its own unit (money or hours) and in money.

    ``used`` is None where nothing was yet; ``off`` is what is taken off the worst in money, ``is_over`` whether it is
    done or not needed any more; ``no_clock`` where it is done and nobody wrote its hours down.
    """

    line: EstimateLine
    used: Decimal | None
    worst_money: Decimal
    used_money: Decimal
    off: Decimal
    is_over: bool
    no_clock: bool


@dataclass(frozen=True, slots=True)
class FoundLine:
    """What the job needs beside what was agreed: words, at worst in its own unit and in money, tax in per cent.

    ``is_paid`` where it was paid for or worked already.
    """

    sheet: Sheet
    key: str
    words: str
    worst: Decimal
    money: Decimal
    tax_percent: Decimal
    is_paid: bool = False


@dataclass(frozen=True, slots=True)
class Standing:
    """How the agreed estimate stands. All without tax; ``tax`` that of what it will be at most."""

    written: Written
    lines: tuple[LineNow, ...]
    found: tuple[FoundLine, ...]
    agreed: Decimal
    off: Decimal
    found_money: Decimal
    so_far: Decimal
    at_most: Decimal
    tax: Decimal
    credit: Decimal
    hours_agreed: Decimal
    hours_used: Decimal

    @property
    def is_broken(self) -> bool:
        """Whether it will cost more than was agreed at worst. By comparison."""
        return self.at_most > self.agreed

    @property
    def over(self) -> Decimal:
        """By how much; nought while it holds. By definition."""
        return max(self.at_most - self.agreed, NOTHING)


@once
def written_of(facts: JobFacts) -> tuple[Written, ...]:
    """Return every estimate that stands, oldest first, with its lines, sums and newest answer. House rule."""
    answers = {one.estimate_id: one for one in facts.standing(facts.estimate_answers)}
    found = []
    for estimate in facts.standing(facts.estimates):
        lines = tuple(sorted((one for one in facts.estimate_lines if one.estimate_id == estimate.estimate_id),
                             key=lambda one: one.place))  # fmt: skip
        totals = totals_of([_line(one) for one in lines], estimate.rate, estimate.rounding)
        found.append(Written(estimate, lines, totals, answers.get(estimate.estimate_id)))
    return tuple(found)


def agreed_of(facts: JobFacts) -> Written | None:
    """Return the estimate that was agreed last. House rule."""
    agreed = [one for one in written_of(facts) if one.answer is not None and one.answer.answer is Answered.AGREED]
    return max(agreed, key=lambda one: one.answer.event if one.answer else 0, default=None)


def _line(one: EstimateLine) -> Line:
    return Line(one.sheet, one.low, one.worst, one.tax_percent)


def standing_of(facts: JobFacts, draft: Sequence[DraftLine], now: datetime) -> Standing | None:
    """Say how the agreed estimate of a job stands.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    draft : sequence of DraftLine
        The estimate as the job drafts it now: what it needs today.
    now : datetime
        Until when clocks that run are counted.

    Returns
    -------
    Standing or None
        None before anything was agreed.

    Notes
    -----
    At most = agreed − taken off + found. Taken off: what of a line was not used once its work is done, and lines that
    are not needed any more. Found: what is needed that no line was agreed for, and use of a line beyond its worst.
    Hours of goodwill cost nothing. Common practice, no published source.
    """
    written = agreed_of(facts)
    if written is None:
        return None
    estimate = written.estimate
    needed = {one.key for one in draft}
    known = {one.key for one in written.lines}
    lines = tuple(_now(facts, estimate, one, needed, now) for one in written.lines)
    found = (
        []
        if _is_home(facts)
        else [
            FoundLine(one.sheet, one.key, one.words, one.worst, _money(estimate, one.sheet, one.worst), one.tax_percent)
            for one in draft
            if one.key not in known and _paid(facts, one.key) is None
        ]
    )
    found += [_beyond(estimate, one) for one in lines if one.used is not None and one.used > one.line.worst]
    found += _beside(facts, written, known)
    kept = tuple(one for one in found if one.money > 0)
    off, extra = sum((one.off for one in lines), NOTHING), sum((one.money for one in kept), NOTHING)
    at_most = written.totals.net.worst - off + extra
    return Standing(
        written, lines, kept, written.totals.net.worst, off, extra, sum((one.used_money for one in lines), NOTHING),
        at_most, _tax(written, lines, kept), max(off - extra, NOTHING), written.totals.hours.worst,
        sum((one.used or NOTHING for one in lines if one.line.sheet is Sheet.LABOUR), NOTHING),
    )  # fmt: skip


def _now(facts: JobFacts, estimate: Estimate, line: EstimateLine, needed: set[str], now: datetime) -> LineNow:
    worst = _money(estimate, line.sheet, line.worst)
    done = _is_done(facts, line)
    used = _hours_used(facts, line, now) if line.sheet is Sheet.LABOUR else _paid(facts, line.key)
    is_own = not line.key.startswith(("work: ", "part: "))
    spent = NOTHING if used is None else _money(estimate, line.sheet, used)
    # Work that is done but for which no clock ran is not given away: its hours are still to be written down.
    closed = (
        _is_home(facts)
        or (used is not None and (done or line.sheet is Sheet.PARTS))
        or (used is None and not done and line.key not in needed and not is_own)
    )
    off = max(worst - spent, NOTHING) if closed else NOTHING
    return LineNow(line, used, worst, spent, off, closed, done and used is None and not closed)


def _is_home(facts: JobFacts) -> bool:
    """Whether the engine went back to its owner: nothing more comes. By the mark of its release."""
    return any(one.kind.operation is Operation.RELEASE and one.evidence.is_done for one in route_of(facts).operations)


def _is_done(facts: JobFacts, line: EstimateLine) -> bool:
    return line.sheet is Sheet.LABOUR and any(
        key_of_work(one.kind.operation) == line.key and one.evidence.is_done for one in route_of(facts).operations
    )


def _hours_used(facts: JobFacts, line: EstimateLine, now: datetime) -> Decimal | None:
    """Hours on the bill within what was agreed, in quarters rounded up; None where no clock ran."""
    operation = next((one for one in Operation if key_of_work(one) == line.key), None)
    if operation is None:
        return None
    billed = billed_hours(facts, now, (operation,))
    return None if billed.worked_h <= 0 else quarters_up(billed.agreed_h)


def _paid(facts: JobFacts, key: str) -> Decimal | None:
    paid = [one.money for one in facts.standing(facts.part_costs) if one.key == key and one.bill is Bill.AGREED]
    return sum(paid, NOTHING) if paid else None


def _beyond(estimate: Estimate, one: LineNow) -> FoundLine:
    """What was used of a line beyond its worst."""
    over = (one.used or NOTHING) - one.line.worst
    money = _money(estimate, one.line.sheet, over)
    return FoundLine(one.line.sheet, one.line.key, MORE + one.line.words, over, money, one.line.tax_percent, True)


def _beside(facts: JobFacts, written: Written, known: set[str]) -> list[FoundLine]:
    """Parts that were paid for beside the lines that were agreed."""
    estimate, percent = written.estimate, written.lines[0].tax_percent if written.lines else NOTHING
    costs = [one for one in facts.standing(facts.part_costs) if one.bill is not Bill.GOODWILL]
    beside = [one for one in costs if one.key not in known or one.bill is Bill.CHARGEABLE]
    return [FoundLine(Sheet.PARTS, one.key, one.words, one.money, to_coin(one.money, estimate.rounding), percent, True)
            for one in beside]  # fmt: skip


def _money(estimate: Estimate, sheet: Sheet, amount: Decimal) -> Decimal:
    return to_coin(amount * (estimate.rate if sheet is Sheet.LABOUR else Decimal(1)), estimate.rounding)


def _tax(written: Written, lines: Sequence[LineNow], found: Sequence[FoundLine]) -> Decimal:
    """Tax of what it will be at most, once for each rate."""
    base: dict[Decimal, Decimal] = {}
    for one in lines:
        percent = one.line.tax_percent
        base[percent] = base.get(percent, NOTHING) + one.worst_money - one.off
    for beside in found:
        base[beside.tax_percent] = base.get(beside.tax_percent, NOTHING) + beside.money
    return sum(
        (to_coin(amount * percent / 100, written.estimate.rounding) for percent, amount in base.items()), NOTHING
    )


def message_of(facts: JobFacts, standing: Standing, found: str) -> str:
    """Draft what the owner is told where an estimate is broken: what was found, what it costs more, how long it takes.

    Parameters
    ----------
    facts : JobFacts
        The job.
    standing : Standing
        How the estimate stands.
    found : str
        What was found, in a sentence; may be empty.

    Returns
    -------
    str
        Plain words. House rule.
    """
    estimate = standing.written.estimate
    more = "; ".join(f"{one.words} {one.money:,.2f}" for one in standing.found)
    found = f"{found}." if found and not found.endswith(".") else found
    said = [f"{facts.job.name}: {found}" if found else f"{facts.job.name}:",
            f"It comes to {standing.at_most:,.2f} {estimate.currency} at most before tax, {standing.over:,.2f} over "
            f"the {standing.agreed:,.2f} agreed."]  # fmt: skip
    if more:
        said.append(f"New: {more}.")
    if standing.off > 0:
        said.append(f"{standing.off:,.2f} of what was agreed is taken off already.")
    said.append("We go on when you say so.")
    return " ".join(said)


def estimate_with(facts: JobFacts, estimate_id: UUID) -> Written | None:
    """Return an estimate by its id. By its name."""
    return next((one for one in written_of(facts) if one.estimate.estimate_id == estimate_id), None)
