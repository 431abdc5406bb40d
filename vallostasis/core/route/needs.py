"""What the route asks of a hole before what its subjects ask."""

from vallostasis.core.needs import Action, Need
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Hole
from vallostasis.core.route.evidence import evidence_of
from vallostasis.core.route.plan import plan_of
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State

# What makes the seat of a liner: nothing goes in before it is done. Common practice, no published source.
SEATS = (Operation.BORE_BLOCK, Operation.HONE_BLOCK)


def need_of_seat(facts: JobFacts, hole: Hole, asked: Operation | None) -> Need | None:
    """Say what has to be done to the seat of a liner before what is asked of its hole; None where nothing has.

    House rule: the order of the route.
    """
    for leg in plan_of(facts):
        if leg.operation is asked:
            return None
        if leg.operation not in SEATS or hole not in leg.holes:
            continue
        found = evidence_of(facts, leg.operation, hole)
        if found.is_done:
            continue
        title, detail = OPERATIONS[leg.operation].title, Phrase(found.words[:1].upper() + found.words[1:])
        if found.state is State.NOT_MEASURED:
            return Need(Action.ROUTE, Phrase(title), detail, operation=leg.operation)
        quantity = OPERATIONS[leg.operation].proves[0]
        again = Phrase(f"Read the {quantity.value} again" if found.state is State.READ_AGAIN else title)
        return Need(Action.READ_SURVEY, again, detail, quantity=quantity, part=f"hole-{hole.number}",
                    operation=leg.operation)  # fmt: skip
    return None
