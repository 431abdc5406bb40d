"""The route in short: the rule over every view of a job, and its strip on the floor."""

from pydantic import BaseModel, Field

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.route.route import route_of
from vallostasis.core.uncertainty.decision import State


class LegView(BaseModel):
    """An operation in short, as it stands on the rule over every view of a job."""

    operation: Operation
    short: str
    title: str
    hours: float = Field(description="Planned, of all its holes. [h]")
    state: State
    is_done: bool
    is_next: bool
    words: str
    open_holes: list[int]


def leg_views(facts: JobFacts) -> list[LegView]:
    """Show the route of a job in short."""
    route = route_of(facts)
    following = route.next
    return [
        LegView(
            operation=one.kind.operation,
            short=one.kind.short,
            title=one.kind.title,
            hours=one.leg.hours,
            state=one.evidence.state,
            is_done=one.evidence.is_done,
            is_next=one is following,
            words=one.short_words,
            open_holes=list(one.open_holes),
        )
        for one in route.operations
    ]
