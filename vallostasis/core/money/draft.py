"""An estimate as the job itself drafts it: work from its route, parts from its needs, both at least and at worst."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.bores.decisions import contradictions
from vallostasis.core.hours.learned import PlannedHours, worst_of
from vallostasis.core.money.needed import NeedKind, needed_for
from vallostasis.core.money.sums import NOTHING, quarters_up
from vallostasis.core.operations.catalogue import OPERATIONS, Scope
from vallostasis.core.records.estimates import MoneyRules, PartPrice, Sheet
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.prices import PriceKind, PriceList
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.route.plan import plan_of

# Operations that come only where something is found: at least they take nothing. Common practice.
ONLY_IF_FOUND = (Operation.ALIGN, Operation.DECK)


@dataclass(frozen=True, slots=True)
class DraftLine:
    """One line as drafted: what it stands for, money or hours at least and at worst, and where the figures come from.

    ``unpriced`` where nobody set a price: the line stands at nought and says so.
    """

    sheet: Sheet
    key: str
    words: str
    low: Decimal
    worst: Decimal
    tax_percent: Decimal
    source: str
    unpriced: bool = False


def key_of_work(operation: Operation) -> str:
    """Return how the line of an operation is known. By its name."""
    return f"work: {operation.value}"


def key_of_again(operation: Operation) -> str:
    """Return how the line of an operation is known that has to be done once more. By its name."""
    return f"again: {operation.value}"


def key_of_part(name: str) -> str:
    """Return how the line of a part is known. By its name."""
    return f"part: {name.casefold()}"


def draft_of(
    facts: JobFacts, learned: Mapping[Operation, PlannedHours], prices: Iterable[PartPrice], listed: PriceList,
    rules: MoneyRules,
) -> tuple[DraftLine, ...]:  # fmt: skip
    """Draft the estimate of a job.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    learned : mapping
        Planned hours of one unit of every operation. [h]
    prices : iterable of PartPrice
        What parts cost as a rule.
    listed : PriceList
        Prices of what can be done about a hole.
    rules : MoneyRules
        Tax in per cent.

    Returns
    -------
    tuple of DraftLine
        Parts first. Work at least at its lower quartile, at worst at what nine of ten stay below, in quarters of an
        hour rounded up; parts at worst what they cost, at least nothing where they may not be needed. Common practice.
    """
    tax = rules.tax_percent
    return (*_parts(facts, {one.name.casefold(): one for one in prices}, tax), *_options(facts, listed, tax),
            *_work(facts, learned, tax))  # fmt: skip


def _parts(facts: JobFacts, prices: Mapping[str, PartPrice], tax: Decimal) -> list[DraftLine]:
    found = []
    for one in needed_for(facts):
        price = prices.get(one.name.casefold()) or prices.get(one.name.split(",")[0].casefold())
        if one.kind is NeedKind.TOOL:
            continue
        worst = NOTHING if price is None else price.money * one.count
        count = f"{one.count} × " if one.count > 1 else ""
        source = "no price on the list" if price is None else f"{price.money} each"
        found.append(DraftLine(Sheet.PARTS, key_of_part(one.name), f"{count}{one.name}", worst if one.sure else NOTHING,
                               worst, tax, source, price is None))  # fmt: skip
    return found


def _options(facts: JobFacts, listed: PriceList, tax: Decimal) -> list[DraftLine]:
    """Money of what was decided about sunk holes; its hours stand with the route."""
    newest = {one.hole_id: one for one in facts.standing(facts.option_choices)}
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    found = []
    for kind in (PriceKind.RING, PriceKind.SKIM, PriceKind.BLOCK):
        holes = [numbers[one.hole_id] for one in newest.values() if kind.value.endswith(one.option)]
        money = listed.of(kind).money
        if holes and money is not None and money > 0:
            words = f"{kind.value}, hole{'s' if len(holes) > 1 else ''} {', '.join(map(str, sorted(holes)))}"
            total = money * (1 if kind is not PriceKind.RING else len(holes))
            found.append(DraftLine(Sheet.PARTS, key_of_part(kind.value), words, total, total, tax, "price list"))
    return found


def _work(facts: JobFacts, learned: Mapping[Operation, PlannedHours], tax: Decimal) -> list[DraftLine]:
    found = []
    again = {hole for one in contradictions(facts) for hole in one.holes}
    for leg in plan_of(facts):
        kind, planned = OPERATIONS[leg.operation], learned[leg.operation]
        units = len(leg.holes) if kind.scope is Scope.HOLE else 1
        worst = quarters_up(units * worst_of(planned))
        if worst <= 0:
            continue
        low = NOTHING if leg.operation in ONLY_IF_FOUND else min(quarters_up(units * planned.low_h), worst)
        words = kind.title + (f", {units} holes" if units > 1 else "")
        source = f"own log, {planned.n}" if planned.is_own else "common practice"
        found.append(DraftLine(Sheet.LABOUR, key_of_work(leg.operation), words, low, worst, tax, source))
        if leg.operation is Operation.BORE and again:
            low, worst = (quarters_up(len(again) * one) for one in (planned.low_h, worst_of(planned)))
            found.append(DraftLine(Sheet.LABOUR, key_of_again(leg.operation), f"Bore {len(again)} on to the next step",
                                   low, worst, tax, source))  # fmt: skip
    return found
