"""Uncertainty budgets as they go over the wire."""

from math import isinf

from pydantic import BaseModel, Field

from vallostasis.core.uncertainty.budget import Budget, Shape, Source, Stated


class SourceView(BaseModel):
    """One source of a budget."""

    name: str
    standard: float = Field(description="Its own standard uncertainty, in the unit named.")
    unit: str
    sensitivity: float = Field(description="What turns it into metres.")
    contribution_m: float = Field(description="Standard uncertainty that it brings to the result. [m]")
    share: float = Field(description="Share of the variance. [1]")
    shared: bool = Field(description="Common to every reading of one set.")
    shape: Shape
    basis: str

    @classmethod
    def of(cls, budget: Budget, source: Source) -> "SourceView":
        """Show one source of a budget."""
        return cls(
            name=source.name,
            standard=source.standard,
            unit=source.unit,
            sensitivity=source.sensitivity,
            contribution_m=source.contribution_m,
            share=budget.share(source),
            shared=source.shared,
            shape=source.shape,
            basis=source.basis,
        )

    @classmethod
    def many(cls, budget: Budget) -> "list[SourceView]":
        """Show the sources of a budget, the greatest first; those that bring nothing are left out."""
        return [cls.of(budget, source) for source in budget.lines]


class StatedView(BaseModel):
    """A value with its ±. [m]"""

    value_m: float
    expanded_m: float

    @classmethod
    def of(cls, one: Stated) -> "StatedView":
        """Show a stated value."""
        return cls(value_m=one.value_m, expanded_m=one.expanded_m)

    @classmethod
    def maybe(cls, one: Stated | None) -> "StatedView | None":
        """Show a stated value, or nothing."""
        return None if one is None else cls.of(one)


class BoundView(BaseModel):
    """What is added to the ± as it is. [m]"""

    name: str
    half_width_m: float


class BudgetView(BaseModel):
    """Every source of one value; the greatest share first."""

    what: str
    sources: list[SourceView]
    standard_m: float
    coverage: float
    expanded_m: float
    freedom: float | None = Field(description="Effective degrees of freedom; null where there are plenty.")
    bounds: list[BoundView] = Field(description="Added to the expanded uncertainty as they are.")
    bias_m: float = Field(description="What scatter alone shows where there is nothing to be found. [m]")
    monte_carlo_m: float = Field(description="Half of the 95 % interval from drawing every source. [m]")

    @classmethod
    def of(cls, budget: Budget, monte_carlo_m: float) -> "BudgetView":
        """Show a budget."""
        return cls(
            what=budget.what,
            sources=SourceView.many(budget),
            standard_m=budget.standard_m,
            coverage=budget.coverage,
            expanded_m=budget.expanded_m,
            freedom=None if isinf(budget.freedom) else budget.freedom,
            bounds=[BoundView(name=one.name, half_width_m=one.half_width_m) for one in budget.bounds],
            bias_m=budget.bias_m,
            monte_carlo_m=monte_carlo_m,
        )
