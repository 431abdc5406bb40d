"""The plan of a deck: what a surfacer takes for each aim, and everything that moves with it."""

from typing import Annotated
from uuid import UUID

import numpy as np
from fastapi import APIRouter, Query
from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.deps import Conn, LengthText
from vallostasis.api.errors import ERROR_RESPONSES
from vallostasis.api.trail import PhraseView
from vallostasis.core.counterbore.dependents import DependentAfter
from vallostasis.core.deck.face import DeckFace
from vallostasis.core.deck.plan import Aim, DeckOption, FaceAfter, HoleAfter
from vallostasis.core.deck.surface import relief_of
from vallostasis.core.deck.volume import BoreForVolume, Swept
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.operations.catalogue import OPERATIONS
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.uncertainty.decision import RuleResult, State
from vallostasis.services import deck

router = APIRouter(prefix="/api/jobs/{job_id}/deck", tags=["deck"], responses=ERROR_RESPONSES)


class ReliefView(BaseModel):
    """How far a face lies below its highest point, cell by cell from its first corner. [m]"""

    along_m: float
    across_m: float
    step_m: float
    below_m: list[list[float]]


class DeckBoreView(BaseModel):
    """Where a bore comes out of the deck. [m]"""

    number: int
    along_m: float
    across_m: float
    radius_m: float


class DeckFaceView(BaseModel):
    """One face. [m]"""

    part: str
    title: str
    numbers: list[int]
    relief: ReliefView | None
    bores: list[DeckBoreView]
    land_m: float
    whole_m: float | None = Field(description="The least that cleans all of it, off its highest point.")
    land_cut_m: float | None
    within_m: float | None
    may_tilt: bool
    fall_along: float | None
    fall_across: float | None
    flat: State | None
    height: StatedView | None

    @classmethod
    def of(cls, one: DeckFace) -> "DeckFaceView":
        """Show a face."""
        relief, cut = None, one.land_cut
        if one.surface is not None and cut is not None:
            found = relief_of(one.surface, cut, one.bores, one.land_m)
            relief = ReliefView(along_m=found.along_m, across_m=found.across_m, step_m=found.step_m,
                                below_m=np.round(found.below_m, 9).tolist())  # fmt: skip
        return cls(
            part=one.part.key, title=one.part.title, numbers=list(one.numbers), relief=relief,
            bores=[DeckBoreView(number=bore.number, along_m=bore.along_m, across_m=bore.across_m,
                                radius_m=bore.radius_m) for bore in one.bores],
            land_m=one.land_m, whole_m=None if one.whole_cut is None else one.whole_cut.depth_m,
            land_cut_m=None if cut is None else cut.depth_m, within_m=one.within_m, may_tilt=one.may_tilt,
            fall_along=None if cut is None else cut.fall_along, fall_across=None if cut is None else cut.fall_across,
            flat=one.flat, height=StatedView.maybe(one.height),
        )  # fmt: skip


class EndView(BaseModel):
    """One end of a liner after the cut. [m]"""

    stated: StatedView
    state: State

    @classmethod
    def of(cls, one: RuleResult | None) -> "EndView | None":
        """Show an end."""
        return None if one is None else cls(stated=StatedView.of(one.stated), state=one.decision.state)


class HoleAfterView(BaseModel):
    """One hole after the cut. [m]"""

    hole: int
    off_m: float
    lowest: EndView | None
    highest: EndView | None
    state: State | None

    @classmethod
    def of(cls, one: HoleAfter) -> "HoleAfterView":
        """Show a hole."""
        return cls(hole=one.hole, off_m=one.off_m, lowest=EndView.of(one.lowest), highest=EndView.of(one.highest),
                   state=one.state)  # fmt: skip


class HeightAfterView(BaseModel):
    """A height that depends on the deck. [m]"""

    name: str
    now_m: float | None
    after_m: float | None
    least_m: float | None
    greatest_m: float | None
    keeps: bool | None

    @classmethod
    def of(cls, one: DependentAfter) -> "HeightAfterView":
        """Show a height."""
        return cls(name=one.name, now_m=one.now_m, after_m=one.after_m, least_m=one.least_m,
                   greatest_m=one.greatest_m, keeps=one.keeps)  # fmt: skip


class FaceAfterView(BaseModel):
    """One face after the cut. [m]"""

    part: str
    depth_m: float
    height: StatedView | None
    height_state: State | None
    is_clean: bool | None

    @classmethod
    def of(cls, one: FaceAfter) -> "FaceAfterView":
        """Show a face."""
        return cls(part=one.face.part.key, depth_m=one.depth_m, height=StatedView.maybe(one.height),
                   height_state=None if one.height_rule is None else one.height_rule.decision.state,
                   is_clean=one.is_clean)  # fmt: skip


class DeckOptionView(BaseModel):
    """One aim, and everything that moves with it. [m], [1]"""

    aim: Aim
    faces: list[FaceAfterView]
    holes: list[HoleAfterView]
    heights: list[HeightAfterView]
    compression_before: float | None
    compression_after: float | None
    state: State
    deepest_m: float
    says: list[PhraseView]
    why_not: str

    @classmethod
    def of(cls, one: DeckOption) -> "DeckOptionView":
        """Show an option."""
        before, after = one.compression or (None, None)
        return cls(
            aim=one.aim, faces=[FaceAfterView.of(face) for face in one.faces],
            holes=[HoleAfterView.of(hole) for hole in one.holes],
            heights=[HeightAfterView.of(height) for height in one.heights], compression_before=before,
            compression_after=after, state=one.state, deepest_m=one.deepest_m,
            says=[PhraseView.of(said) for said in one.says], why_not=one.why_not,
        )  # fmt: skip


class SweptView(BaseModel):
    """A swept volume in both units, from one number."""

    cm3: float
    cubic_inches: float

    @classmethod
    def of(cls, one: Swept | None) -> "SweptView | None":
        """Show a volume."""
        return None if one is None else cls(cm3=one.cm3, cubic_inches=one.cubic_inches)


class BoreForVolumeView(BaseModel):
    """The bore that a volume wants. [m], [%]"""

    bore_m: float
    growth_m: float
    wall_m: float | None
    per_cent: float

    @classmethod
    def of(cls, one: BoreForVolume | None) -> "BoreForVolumeView | None":
        """Show a bore."""
        if one is None:
            return None
        return cls(bore_m=one.bore_m, growth_m=one.growth_m, wall_m=one.wall_m, per_cent=one.per_cent)


class DeckPlanView(BaseModel):
    """The plan of a deck."""

    faces: list[DeckFaceView]
    options: list[DeckOptionView]
    least: Aim | None = Field(description="Which takes least of those that come out in; null where none does.")
    swept: SweptView | None
    wanted: BoreForVolumeView | None
    least_wall_m: float | None
    kept: list[str] = Field(description="Faces that stay as they are, and why.")
    is_kept: bool = Field(description="The card says that the deck stays as it is: no cut of it is recommended.")
    caution: list[str]


@router.get("")
def read_deck_plan(
    job_id: UUID,
    conn: Conn,
    skim: Annotated[LengthText, Query(description="A cut to try, off the highest point.")] = "",
    land: Annotated[LengthText, Query(description="Width of the sealing land; the card's where empty.")] = "",
    volume: Annotated[LengthText, Query(description="A volume wanted, with its unit.")] = "",
    bare_unit: Unit = "thou",
) -> DeckPlanView:
    """Plan the cut of a deck for every aim."""
    now = deck.deck_now(conn, job_id, deck.DeckAsked(skim, land, volume, bare_unit))
    return DeckPlanView(
        faces=[DeckFaceView.of(one) for one in now.plan.faces],
        options=[DeckOptionView.of(one) for one in now.plan.options],
        least=None if now.plan.least is None else now.plan.least.aim, swept=SweptView.of(now.swept),
        wanted=BoreForVolumeView.of(now.wanted), least_wall_m=now.facts.card.bores.least_wall.metres,
        kept=list(now.plan.kept), is_kept=now.plan.is_kept, caution=list(OPERATIONS[Operation.DECK].caution),
    )  # fmt: skip
