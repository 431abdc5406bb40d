"""The plan of a drop: which temperatures, how long the window stays open, and what pressing cold takes instead."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.fits.fit import Fit, FitRefused, shown_liners
from vallostasis.core.fits.going_in import Band, Friction, going_in
from vallostasis.core.heat.plan import HeatPlan, Tried, heat_plan
from vallostasis.core.heat.seals import SealInHeat, seals_in_heat
from vallostasis.core.operations import schools
from vallostasis.core.operations.schools import School, school_of, side_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.trail import Phrase
from vallostasis.services.fits import FitAsked, fit_now
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class HeatNow:
    """A hole and the liner that is to drop into it: the plan or what is missing, and the other school's side of it.

    ``cold_force`` is what pressing it at room temperature takes [N], None where it cannot be told.
    """

    facts: JobFacts
    fit: Fit | FitRefused
    plan: HeatPlan | Phrase
    school: School
    side: str
    cold_force: Band | None
    seals: tuple[SealInHeat, ...]


def _of_the_tray(conn: Conn, job_id: UUID, number: int) -> str | None:
    """The liner that goes to a hole where nobody chose another: each is shown with one hole only."""
    liner = shown_liners(load_job_facts(conn, job_id)).get(number)
    return None if liner is None else liner.mark


def heat_now(conn: Conn, job_id: UUID, number: int, mark: str | None, tried: Tried) -> HeatNow:
    """Plan one drop as somebody tries it."""
    facts, fit, _ = fit_now(conn, job_id, FitAsked(number, mark or _of_the_tray(conn, job_id, number)))
    plan = fit.reason if isinstance(fit, FitRefused) else heat_plan(facts, fit, tried)
    cold = None if isinstance(fit, FitRefused) else going_in(facts, fit, None, Friction())
    school = school_of(schools.GETTING_IN)
    assert school is not None
    return HeatNow(facts, fit, plan, school, side_of(facts, schools.GETTING_IN),
                   None if cold is None else cold.greatest,
                   seals_in_heat(facts, fit.hole, tried.block_c, tried.liner_c))  # fmt: skip
