"""How dates, money and orders of a job stand on the tape, in words."""

from vallostasis.core.operations.catalogue import operation_of
from vallostasis.core.records.brought_in import BroughtIn
from vallostasis.core.records.calendar import Pin, Promise, WaitMoved
from vallostasis.core.records.estimates import Declined, Estimate, EstimateAnswer, PartCost
from vallostasis.core.records.filings import Filing
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.orders import Order, OrderMove
from vallostasis.core.records.printings import Printing
from vallostasis.core.records.route_marks import Bill
from vallostasis.core.tape.fact_words import with_more


def promise_words(_facts: JobFacts, promise: Promise) -> str:
    """How it stands on the tape, in words."""
    if promise.promised is None:
        return with_more("promise taken back", promise.told)
    return with_more(f"promised for {promise.promised:%a %d %b %Y}", promise.told)


def filing_words(_facts: JobFacts, filing: Filing) -> str:
    """How it stands on the tape, in words."""
    return with_more("put away, off the floor" if filing.away else "brought back to the floor", filing.words)


def brought_in_words(_facts: JobFacts, brought: BroughtIn) -> str:
    """How it stands on the tape, in words."""
    copy = " as a copy" if brought.as_copy else ""
    file = f"{brought.file_name or 'a file'} (SHA-256 {brought.sha256[:12]}…)"
    return with_more(f"brought in{copy} from {file}", brought.words)


def printing_words(_facts: JobFacts, printing: Printing) -> str:
    """How it stands on the tape, in words."""
    return f"proof printed up to entry {printing.entries}, PDF SHA-256 {printing.sha256[:12]}…"


def pin_words(_facts: JobFacts, pin: Pin) -> str:
    """How it stands on the tape, in words."""
    title = operation_of(pin.operation).title
    if pin.starts_at is None and not pin.person:
        return f"pin taken away: {title}"
    when = "" if pin.starts_at is None else f" to {pin.starts_at:%a %d %b %H:%M %Z}"
    return f"{title} pinned{when}" + (f" for {pin.person}" if pin.person else "")


def wait_moved_words(facts: JobFacts, moved: WaitMoved) -> str:
    """How it stands on the tape, in words."""
    wait = next(one for one in facts.waits if one.wait_id == moved.wait_id)
    day = "nobody knows when" if moved.expected is None else f"{moved.expected:%a %d %b %Y}"
    return with_more(f"{wait.words}: expected {day}", moved.words)


def estimate_words(facts: JobFacts, estimate: Estimate) -> str:
    """How it stands on the tape, in words."""
    lines = sum(one.estimate_id == estimate.estimate_id for one in facts.estimate_lines)
    return with_more(f"estimate of {lines} lines, {estimate.rate:,.2f} {estimate.currency} an hour", estimate.words)


def estimate_answer_words(_facts: JobFacts, answer: EstimateAnswer) -> str:
    """How it stands on the tape, in words."""
    way = f", {answer.way}" if answer.way else ""
    said = f"estimate {answer.answer.value} by {answer.said}{way}, {answer.answered_on:%d %b %Y}"
    return with_more(said, answer.words)


def declined_words(_facts: JobFacts, declined: Declined) -> str:
    """How it stands on the tape, in words."""
    return f"declined, {declined.what}: {declined.reason}"


def part_cost_words(_facts: JobFacts, cost: PartCost) -> str:
    """How it stands on the tape, in words."""
    bill = "" if cost.bill is Bill.AGREED else cost.bill.value
    return with_more(f"paid for {cost.words}: {cost.money:,.2f}", bill)


def order_words(_facts: JobFacts, order: Order) -> str:
    """How it stands on the tape, in words."""
    count = f"{order.count} × " if order.count > 1 else ""
    whom = f" from {order.whom}" if order.whom else ""
    due = "" if order.due is None else f"due {order.due:%d %b %Y}"
    return with_more(f"{order.kind.value}: {count}{order.what}{whom}", due)


def order_move_words(facts: JobFacts, move: OrderMove) -> str:
    """How it stands on the tape, in words."""
    order = next(one for one in facts.orders if one.order_id == move.order_id)
    day = f" {move.due:%d %b %Y}" if move.due is not None else ""
    return with_more(f"{order.what}: {move.kind.value}{day} {move.typed}".strip(), move.words)
