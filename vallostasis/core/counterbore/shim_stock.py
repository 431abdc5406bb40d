"""How many shims of each size a job can take."""

from collections import Counter
from decimal import Decimal

from vallostasis.core.records.job_facts import JobFacts


def shims_left(facts: JobFacts) -> dict[Decimal, int]:
    """Shims for this job by size [µm]: on the shelf where it has lots of a size, less what is kept for other jobs.

    Of a size that the shelf does not know the card's stock less those under the liners of this job. House rule.
    """
    on_shelf: Counter[Decimal] = Counter()
    for lot in facts.shelf:
        on_shelf[lot.size_um] += lot.free
    fitted = Counter(
        shim.nominal_um
        for hole in facts.holes
        if (fitting := facts.present_fitting(hole.hole_id)) is not None
        for shim in facts.shims_of(fitting.fitting_id)
    )
    sizes = [shim.thickness.um for shim in facts.card.shims]
    stock = {shim.thickness.um: max(0, shim.stock - fitted[shim.thickness.um]) for shim in facts.card.shims}
    return {size: on_shelf[size] if size in on_shelf else stock[size] for size in sizes}
