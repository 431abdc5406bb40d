"""What a fit leads to, as it goes over the wire: how it is sized, the bore it leaves, what was found after. [m], [N]"""

from datetime import datetime
from uuid import UUID

from pydantic import BaseModel

from vallostasis.api.budget_models import StatedView
from vallostasis.api.trail import PhraseView
from vallostasis.core.fits.after import after_of
from vallostasis.core.fits.expected_bore import ExpectedBore
from vallostasis.core.fits.fit import Fit
from vallostasis.core.fits.seated import SeatLook, home_pull, seat_checks
from vallostasis.core.fits.sizing import Sizings
from vallostasis.core.fits.wanted import Sizing
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.pulls import PullMarkKind
from vallostasis.core.uncertainty.decision import State


class AfterLevelView(BaseModel):
    """One level of a bore after its liner went in."""

    name: str
    depth_m: float
    predicted: StatedView
    found: StatedView
    press: StatedView
    true_press: StatedView
    agrees: bool


class PressByForceView(BaseModel):
    """Press that the force of the pull says, as a share of the one read."""

    low: float
    middle: float
    high: float
    greatest_n: float


class SeatCheckView(BaseModel):
    """One look at a seated liner; ``marks`` are what can be noted of it, the good one first."""

    look: SeatLook
    state: State
    words: str
    by: str
    at: datetime | None
    marks: list[PullMarkKind]


class AfterView(BaseModel):
    """What is known of a fit since its liner is in."""

    levels: list[AfterLevelView]
    confirmed: bool
    inside_was_read: bool
    by_force: PressByForceView | None
    says: list[PhraseView]
    seat: list[SeatCheckView]
    pull_id: UUID | None

    @classmethod
    def of(cls, facts: JobFacts, fit: Fit) -> "AfterView | None":
        """Show what is known of a fit since its liner is in."""
        one = after_of(facts, fit.hole)
        if one is None:
            return None
        force, pull = one.by_force, home_pull(facts, fit.hole)
        return cls(
            levels=[AfterLevelView(name=level.name, depth_m=level.depth_m, predicted=StatedView.of(level.predicted),
                                   found=StatedView.of(level.found), press=StatedView.of(level.press),
                                   true_press=StatedView.of(level.true_press), agrees=level.agrees)
                    for level in one.levels],
            confirmed=one.confirmed, inside_was_read=one.inside_was_read,
            by_force=None if force is None else PressByForceView(low=force.low, middle=force.middle, high=force.high,
                                                                 greatest_n=force.greatest_n),
            says=[PhraseView.of(phrase) for phrase in one.says],
            seat=[SeatCheckView(look=row.look, state=row.state, words=row.words, by=row.by, at=row.at,
                                marks=list(row.marked_by)) for row in seat_checks(facts, fit.hole)],
            pull_id=None if pull is None else pull.pull.pull_id,
        )  # fmt: skip


class SizedPartView(BaseModel):
    """One way to the press: what comes off, what stays uneven, the wall that is left."""

    sizing: Sizing
    takes_off: StatedView | None
    levels: int
    egg_m: float
    wall_m: float | None
    least_m: float | None
    is_thin: bool
    is_chosen: bool


class SizingsView(BaseModel):
    """Both ways side by side."""

    ways: list[SizedPartView]
    better: Sizing | None
    says: PhraseView

    @classmethod
    def of(cls, one: Sizings | None) -> "SizingsView | None":
        """Show both ways."""
        if one is None:
            return None
        return cls(
            ways=[SizedPartView(sizing=way.sizing, takes_off=StatedView.maybe(way.takes_off), levels=way.levels,
                                egg_m=way.egg_m, wall_m=way.wall_m, least_m=way.least_m, is_thin=way.is_thin,
                                is_chosen=way.is_chosen) for way in one.ways],
            better=one.better, says=PhraseView.of(one.says),
        )  # fmt: skip


class ExpectedLevelView(BaseModel):
    """One level of the bore that a press will leave."""

    name: str
    bore: StatedView
    to_hone: StatedView | None


class ExpectedBoreView(BaseModel):
    """The bore that a press will leave, and the size it is honed to."""

    levels: list[ExpectedLevelView]
    finished_m: float | None
    inside_was_read: bool

    @classmethod
    def of(cls, one: ExpectedBore | None) -> "ExpectedBoreView | None":
        """Show the bore that a press will leave."""
        if one is None:
            return None
        return cls(levels=[ExpectedLevelView(name=level.name, bore=StatedView.of(level.bore),
                                             to_hone=StatedView.maybe(level.to_hone)) for level in one.levels],
                   finished_m=one.finished_m, inside_was_read=one.inside_was_read)  # fmt: skip
