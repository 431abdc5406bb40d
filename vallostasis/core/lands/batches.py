"""Batches whose liners do not add up in the same way on more than one engine: told before the next is opened.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: two residuals are the same where their difference is within its own expanded u.
"""

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from math import hypot

from vallostasis.core.causes.of_job import heights_add_up
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.uncertainty.budget import Stated


@dataclass(frozen=True, slots=True)
class OffLiner:
    """A liner that does not add up where it stands. [m]"""

    job: str
    number: str
    hole: int
    mark: str
    make: str
    batch: str
    off: Stated


@dataclass(frozen=True, slots=True)
class BatchAlert:
    """A batch that is off alike on several jobs. [m]"""

    make: str
    batch: str
    liners: tuple[OffLiner, ...]
    middle_m: float

    @property
    def words(self) -> str:
        """Say it, in whole micrometres. House rule."""
        jobs = ", ".join(dict.fromkeys(f"{one.job} hole {one.hole}" for one in self.liners))
        way = "low" if self.middle_m < 0 else "high"
        return (f"{self.make}, batch {self.batch}: {round(abs(self.middle_m) * 1e6)} µm too {way} for their parts on "
                f"{jobs}. Read their lands before another engine is opened for it.")  # fmt: skip


@once
def off_liners(facts: JobFacts) -> tuple[OffLiner, ...]:
    """Return the liners of a job that do not add up where they stand. [m] Joint U, GUM F.1.2.3."""
    found = heights_add_up(facts)
    if isinstance(found, str):
        return ()
    batches = {one.mark: one.batch for one in facts.liners}
    job = facts.job
    return tuple(OffLiner(job.name, job.number, one.hole, one.liner, one.make, batches[one.liner], one.middle)
                 for one in found.holes if not one.adds_up and one.middle is not None)  # fmt: skip


def batch_alerts(liners: Sequence[OffLiner]) -> tuple[BatchAlert, ...]:
    """Say which batches are off alike on two jobs or more.

    Parameters
    ----------
    liners : sequence of OffLiner
        Of all jobs.

    Returns
    -------
    tuple of BatchAlert
        Off the same way, and none further from the middle of them than their joint expanded uncertainty, [1]_ of the
        module. [m]
    """
    groups: dict[tuple[str, str, bool], list[OffLiner]] = defaultdict(list)
    for one in liners:
        if one.batch:
            groups[(one.make, one.batch, one.off.value_m < 0)].append(one)
    found = []
    for (make, batch, _), group in groups.items():
        middle = sum(one.off.value_m for one in group) / len(group)
        within = max(one.off.expanded_m for one in group)
        alike = [one for one in group if abs(one.off.value_m - middle) <= hypot(one.off.expanded_m, within)]
        if len({one.number for one in alike}) >= 2:
            found.append(BatchAlert(make, batch, tuple(alike), sum(one.off.value_m for one in alike) / len(alike)))
    return tuple(sorted(found, key=lambda one: -abs(one.middle_m)))
