"""Why something is in, out or undecided, as it goes over the wire: rules, limits with their sources, sums."""

from collections.abc import Iterable

from pydantic import BaseModel, Field

from vallostasis.api.hole_models import RuleView
from vallostasis.api.survey_models import SettlingView
from vallostasis.api.trail import StepView
from vallostasis.core.surveys.why import LimitUsed
from vallostasis.core.uncertainty.decision import RuleResult


class LimitUsedView(BaseModel):
    """A limit of the card with its source. [m]"""

    name: str
    value_m: float
    typed: str
    source: str
    status: str

    @classmethod
    def of(cls, used: LimitUsed) -> "LimitUsedView":
        """Show a limit."""
        return cls(name=used.name, value_m=used.value_m, typed=used.typed, source=used.source, status=used.status)


class RuleWhy(BaseModel):
    """A rule result with the limits behind it."""

    result: RuleView
    limits: list[LimitUsedView]

    @classmethod
    def of(cls, rule: RuleResult, limits: Iterable[LimitUsed]) -> "RuleWhy":
        """Show a rule with its limits."""
        return cls(result=RuleView.of(rule), limits=[LimitUsedView.of(one) for one in limits])


class HoleWhyView(BaseModel):
    """The state of a hole opened into its arithmetic."""

    hole: int
    state: str
    reason: str
    rules: list[RuleWhy]
    steps: list[StepView]
    settling: list[SettlingView]


class SurveyWhyView(BaseModel):
    """The state of a survey opened into its arithmetic."""

    title: str
    state: str
    reason: str
    how: str = Field(description="Gauge, zero, method and load it was read with; empty where nothing was read.")
    rules: list[RuleWhy]
    steps: list[StepView]
