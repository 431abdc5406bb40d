"""Sums of uncertainty: budgets and decisions. Lengths in metres."""

from math import inf, isinf
from typing import Annotated

from fastapi import APIRouter
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import SourceView
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.ranges import (
    NotNegativeSmall,
    Reading,
    Size,
    Small,
    Uncertainty,
)
from vallostasis.api.trail import StepView
from vallostasis.core.uncertainty.decision import State, decide, decision_step
from vallostasis.core.uncertainty.monte_carlo import monte_carlo_half_width
from vallostasis.core.uncertainty.reading_errors import (
    GaugeSources,
    Known,
    SizeInputs,
    difference_of_sizes,
    mean_of_sizes,
    size_budget,
)

router = APIRouter(prefix="/api/compute", tags=["compute"], responses=ERROR_RESPONSES)

Trust = Annotated[float, Field(allow_inf_nan=False, ge=0, le=1)]


Celsius = Annotated[float, Field(allow_inf_nan=False, ge=-273, le=1000, description="[°C]")]


Expansion = Annotated[float, Field(allow_inf_nan=False, ge=-1e-3, le=1e-3, description="[1/K]")]


DECISION_WORDS = {State.IN: "conform", State.OUT: "not conform", State.CANNOT_TELL: "not decidable"}


class DecisionRequest(BaseModel):
    """A value with its expanded uncertainty and its limits."""

    value_m: Reading
    U_m: NotNegativeSmall = Field(description="Expanded uncertainty. [m]")
    lower_limit_m: Reading | None = None
    upper_limit_m: Reading | None = None


class DecisionAnswer(BaseModel):
    """Conform, not conform, or not decidable."""

    decision: str | None = Field(description="Null without a limit to be held against.")
    state: State | None = Field(description="The same in the words of the bench.")
    trail: list[StepView]


@router.post("/decision")
def compute_decision(ask: DecisionRequest) -> DecisionAnswer:
    """Decide a value against its limits beyond its uncertainty."""
    limits = ask.lower_limit_m, ask.upper_limit_m
    if limits == (None, None):
        return DecisionAnswer(decision=None, state=None, trail=[])
    state = decide(ask.value_m, ask.U_m, *limits).guarded
    step = decision_step(f"Decision: {state.value}", ask.value_m, ask.U_m, *limits)
    return DecisionAnswer(decision=DECISION_WORDS[state], state=state, trail=[StepView.of(step)])


class BudgetRequest(BaseModel):
    """A bore read as a deviation from a ring, with the standard uncertainty of everything it depends on."""

    ring_m: Size
    u_ring_m: Uncertainty = 0.0
    deviation_m: Small = 0.0
    u_repeatability_m: Uncertainty = 0.0
    repeats: Annotated[int, Field(ge=2, le=10_000)] | None = Field(
        None, description="Readings that the repeatability was found from; null when it is well known."
    )
    step_m: Annotated[float, Field(allow_inf_nan=False, ge=0, le=0.01, description="Graduation. [m]")] = 0.0
    step_at_zero: bool = Field(
        False, description="Count the zero too, which is a reading: its graduation and its repeatability."
    )
    alpha_ring: Expansion = 0.0
    u_alpha_ring: Trust = 0.0
    ring_c: Celsius = 20.0
    u_ring_c: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)] = 0.0
    alpha_part: Expansion = 0.0
    u_alpha_part: Trust = 0.0
    part_c: Celsius = 20.0
    u_part_c: Annotated[float, Field(allow_inf_nan=False, ge=0, le=100)] = 0.0
    coverage_k: Annotated[float, Field(ge=1, le=4)] = 2.0
    readings: Annotated[int, Field(ge=1, le=1000, description="Readings that a mean is taken of.")] = 1


class BudgetAnswer(BaseModel):
    """The size, its uncertainty source by source, and what follows for values worked out from such readings. [m]"""

    diameter_20C_m: float
    u_m: float
    U_m: float
    coverage: float
    freedom: float | None
    mc_half_width_95_m: float
    difference_to_mc_m: float = Field(description="U less the Monte Carlo half width. [m]")
    sources: list[SourceView]
    share_of_part_temperature: float
    u_mean_m: float
    U_mean_m: float
    u_difference_m: float = Field(description="Of the difference of two readings of one zero, such as out of round.")
    U_difference_m: float


@router.post("/budget")
def compute_budget(ask: BudgetRequest) -> BudgetAnswer:
    """Work out how far a size can be trusted, by the GUM and by Monte Carlo beside it."""
    inputs = SizeInputs(
        set_size_m=Known(ask.ring_m, ask.u_ring_m),
        deviation_m=ask.deviation_m,
        master_c=Known(ask.ring_c, ask.u_ring_c),
        master_alpha=Known(ask.alpha_ring, ask.u_alpha_ring),
        part_c=Known(ask.part_c, ask.u_part_c),
        part_alpha=Known(ask.alpha_part, ask.u_alpha_part),
    )
    freedom = inf if ask.repeats is None else float(ask.repeats - 1)
    gauge = GaugeSources(ask.step_m, ask.u_repeatability_m, freedom, ask.step_at_zero)
    budget = size_budget("size at 20 °C", inputs, gauge, ask.coverage_k)
    drawn = monte_carlo_half_width(inputs, gauge)
    mean = mean_of_sizes(inputs, gauge, ask.readings, ask.coverage_k)
    difference = difference_of_sizes(inputs, gauge, ask.coverage_k)
    part = next(source for source in budget.sources if source.name == "temperature of the part")
    return BudgetAnswer(
        diameter_20C_m=inputs.size_at_20c_m(),
        u_m=budget.standard_m,
        U_m=budget.expanded_m,
        coverage=budget.coverage,
        freedom=None if isinf(budget.freedom) else budget.freedom,
        mc_half_width_95_m=drawn,
        difference_to_mc_m=budget.expanded_m - drawn,
        sources=SourceView.many(budget),
        share_of_part_temperature=budget.share(part),
        u_mean_m=mean.standard_m,
        U_mean_m=mean.expanded_m,
        u_difference_m=difference.standard_m,
        U_difference_m=difference.expanded_m,
    )
