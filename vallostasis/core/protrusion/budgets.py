"""The budget behind every ± of a hole's protrusion."""

from vallostasis.core.job_facts import JobFacts
from vallostasis.core.measuring.budget import Budget, difference_of, mean_of
from vallostasis.core.measuring.set_budget import budget_of_set
from vallostasis.core.protrusion.measured import readings_by_hour
from vallostasis.core.records import Hole


def budgets_of_hole(facts: JobFacts, hole: Hole) -> tuple[Budget, ...]:
    """Budgets of one reading, the hole's mean, its variation, and its difference to a neighbour. [m]

    Notes
    -----
    What readings of one zero share cancels in the variation; between holes it cancels only where one zero serves
    them all.
    """
    fitting = facts.present_fitting(hole.hole_id)
    reading_set = None if fitting is None else facts.newest_protrusion_set(fitting.fitting_id)
    if reading_set is None:
        return ()
    k = facts.card.coverage_factor
    one = budget_of_set(facts, reading_set, "", 0.0)
    positions = readings_by_hour(facts, reading_set)
    if not positions:
        return (one,)
    mean = mean_of(one, len(positions), k)
    shared = facts.setup(reading_set.setup_id).shared_zero
    return (
        one,
        mean,
        difference_of("variation round the liner", one, one, True, k),
        difference_of("difference to a neighbour", mean, mean, shared, k),
    )
