"""What all jobs together say: hours against estimates, causes of waiting, first steps, stones, fits reached."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal

from vallostasis.core.bores.decisions import step_of
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.honing.rounds import learned_rate
from vallostasis.core.hours.log import billed_hours
from vallostasis.core.money.standing import agreed_of
from vallostasis.core.operations import schools
from vallostasis.core.records.bore_decisions import LookOutcome
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import WaitCause
from vallostasis.core.route.clocks import clocks_of


@dataclass(frozen=True, slots=True)
class JobHours:
    """Hours of a job: agreed at least and at worst, and worked on the bill. [h]"""

    job: str
    low: Decimal
    worst: Decimal
    worked_h: float


@dataclass(frozen=True, slots=True)
class FirstStep:
    """How often a bore cleaned up at the first step of its ladder, of how many that were looked at. [1]"""

    cleaned: int
    looked: int


@dataclass(frozen=True, slots=True)
class StoneRate:
    """What a double stroke of one kind of stones takes on the diameter in one job, from how many rounds. [m]"""

    job: str
    grit: int
    method: str
    per_stroke_m: float
    spread_m: float
    rounds: int


@dataclass(frozen=True, slots=True)
class FitReached:
    """A press as it was aimed at and as it was measured, at the level that decides. [m]"""

    job: str
    hole: int
    aim_m: float
    reached_m: float


@dataclass(frozen=True, slots=True)
class ShopLearned:
    """All of it; waiting in days by cause."""

    hours: tuple[JobHours, ...]
    waited_d: dict[WaitCause, float]
    first_step: FirstStep
    rates: tuple[StoneRate, ...]
    fits: tuple[FitReached, ...]


def learn_from(jobs: Sequence[JobFacts], now: datetime) -> ShopLearned:
    """Bring together what the jobs of a shop teach.

    Parameters
    ----------
    jobs : sequence of JobFacts
        Open and finished ones.
    now : datetime
        Until when clocks and waits that run are counted.

    Returns
    -------
    ShopLearned
        Counts and sums by definition.
    """
    waited: dict[WaitCause, float] = {}
    for facts in jobs:
        for one in clocks_of(facts, now).waits:
            waited[one.wait.cause] = waited.get(one.wait.cause, 0.0) + one.lasted_h(now) / 24
    hours = [found for facts in jobs if (found := _hours(facts, now)) is not None]
    rates = [rate for facts in jobs for rate in _rates(facts)]
    fits = [fit for facts in jobs for fit in _fits(facts)]
    return ShopLearned(tuple(hours), waited, _first_step(jobs), tuple(rates), tuple(fits))


def _hours(facts: JobFacts, now: datetime) -> JobHours | None:
    agreed = agreed_of(facts)
    if agreed is None:
        return None
    billed = billed_hours(facts, now)
    return JobHours(facts.job.name, agreed.totals.hours.low, agreed.totals.hours.worst,
                    billed.agreed_h + billed.chargeable_h)  # fmt: skip


def _first_step(jobs: Sequence[JobFacts]) -> FirstStep:
    looks = []
    for facts in jobs:
        ladder = facts.card.bores.ladder
        first = min((one.oversize.um for one in ladder), default=None)
        looks += [one.outcome for one in facts.standing(facts.bore_looks)
                  if one.oversize_um == first and step_of(facts, one.oversize_um) is not None]  # fmt: skip
    return FirstStep(sum(one is LookOutcome.CLEAN for one in looks), len(looks))


def _rates(facts: JobFacts) -> list[StoneRate]:
    kinds = dict.fromkeys((one.grit, one.method, one.aim) for one in facts.standing(facts.hone_rounds))
    found = []
    for grit, method, aim in kinds:
        rate = learned_rate(facts, aim, grit, method)
        if rate is not None:
            found.append(StoneRate(facts.job.name, grit, method.value, rate.per_stroke_m, rate.spread_m, rate.rounds))
    return found


def _fits(facts: JobFacts) -> list[FitReached]:
    if facts.card.construction not in schools.DRY:
        return []
    found = []
    for hole in facts.holes:
        fitting = facts.present_fitting(hole.hole_id)
        fit = None if fitting is None else fit_of(facts, hole, facts.liner(fitting.liner_id).mark)
        if isinstance(fit, Fit) and fit.levels and fit.deciding.stock is not None:
            press = fit.deciding.press.value_m
            found.append(FitReached(facts.job.name, hole.number, press + fit.deciding.stock.value_m, press))
    return found


@dataclass(frozen=True, slots=True)
class Opening:
    """One time a block was opened: job, when, complaint, what was decided for its bores, cuts and shims. [µm]"""

    job_id: str
    number: str
    name: str
    opened_at: datetime
    complaint: str
    steps: tuple[tuple[int, str, Decimal | None], ...]
    cuts: tuple[tuple[int, Decimal], ...]


def life_of(jobs: Sequence[JobFacts], serial: str) -> tuple[Opening, ...]:
    """Return every opening of a block, oldest first.

    Parameters
    ----------
    jobs : sequence of JobFacts
        Of the shop.
    serial : str
        The number stamped on the block; capitals and spaces do not count.

    Returns
    -------
    tuple of Opening
        House rule: a block is known by its stamped number.
    """
    wanted = _plain(serial)
    own = sorted(
        (one for one in jobs if wanted and _plain(one.job.serial) == wanted), key=lambda one: one.job.opened_at
    )
    return tuple(_opening(one) for one in own)


def _plain(serial: str) -> str:
    return "".join(serial.split()).casefold()


def _opening(facts: JobFacts) -> Opening:
    numbers = {hole.hole_id: hole.number for hole in facts.holes}
    newest = {one.hole_id: one for one in facts.standing(facts.bore_decisions)}
    steps = tuple((numbers[key], one.choice.value, one.oversize_um) for key, one in newest.items())
    cuts = [facts.last_cut(hole.hole_id) for hole in facts.holes]
    job = facts.job
    return Opening(str(job.job_id), job.number, job.name, job.opened_at, job.complaint, tuple(sorted(steps)),
                   tuple((numbers[one.hole_id], one.depth_um) for one in cuts if one is not None))  # fmt: skip
