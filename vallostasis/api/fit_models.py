"""Fits as they go over the wire. Lengths in metres, forces in newtons, stresses in pascals, squeezed negative."""

from pydantic import BaseModel, Field

from vallostasis.api.budget_models import StatedView
from vallostasis.api.fit_outcome_models import AfterView, ExpectedBoreView, SizingsView
from vallostasis.api.trail import PhraseView, StepView
from vallostasis.core.fits.effects import FitWalls, LevelEffect, thin_walls, walls_of
from vallostasis.core.fits.expected_bore import expected_bore
from vallostasis.core.fits.fit import Fit, FitLevel, FitRefused
from vallostasis.core.fits.going_in import Band, Friction, GoingIn, SchoolOfFit, liner_length_m, schools_of_fit
from vallostasis.core.fits.needs import better_liner, is_to_be_sized, need_of_fit, stripes_to_leave
from vallostasis.core.fits.sizing import sizings_of
from vallostasis.core.fits.tried import Tried, tried_of
from vallostasis.core.fits.wanted import Sizing, Wanted
from vallostasis.core.fits.why import why_of_fit
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.limits import SourceStatus
from vallostasis.core.records.rows import Liner, Quantity
from vallostasis.core.surveys.places import newest_set
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.uncertainty.budget import value_of
from vallostasis.core.uncertainty.decision import State


class WantedView(BaseModel):
    """The press that is wanted, and how it is known."""

    school: str
    least_m: float | None
    aim_m: float | None
    greatest_m: float | None
    source: str
    status: SourceStatus

    @classmethod
    def of(cls, one: Wanted | None) -> "WantedView | None":
        """Show a press that is wanted."""
        if one is None:
            return None
        return cls(school=one.school, least_m=one.least_m, aim_m=one.aim_m, greatest_m=one.greatest_m,
                   source=one.source, status=one.status)  # fmt: skip


class FitPlaceView(BaseModel):
    """The press on one axis of a level."""

    axis_deg: float
    press: StatedView
    state: State
    stock: StatedView | None


class FitLevelView(BaseModel):
    """One level: both walls, the press, what comes off, what it closes the bore in."""

    name: str
    depth_m: float
    bore_m: float
    bore_within_m: float
    liner_m: float
    liner_within_m: float
    press: StatedView
    state: State
    places: list[FitPlaceView]
    stock: StatedView | None
    leave: bool = Field(description="Whether nothing is to come off there.")


class EffectView(BaseModel):
    """What the press of a level does."""

    level: str
    pressure_pa: float
    hoop_liner_pa: float
    hoop_block_pa: float
    liner_share: float = Field(description="Of what the liner's material bears.")
    block_share: float
    close_in: StatedView
    boss_grows_m: float

    @classmethod
    def of(cls, one: LevelEffect) -> "EffectView":
        """Show what a press does."""
        return cls(level=one.level.name, pressure_pa=one.pressure_pa, hoop_liner_pa=one.hoop_liner_pa,
                   hoop_block_pa=one.hoop_block_pa, liner_share=one.liner_share, block_share=one.block_share,
                   close_in=StatedView.of(one.close_in), boss_grows_m=one.boss_grows_m)  # fmt: skip


class BandView(BaseModel):
    """A value with most draws between its edges."""

    low: float
    middle: float
    high: float

    @classmethod
    def of(cls, one: Band) -> "BandView":
        """Show a band."""
        return cls(low=one.low, middle=one.middle, high=one.high)


class GoingInView(BaseModel):
    """How a liner goes in: force against how far its foot is down, and how far by hand."""

    depths_m: list[float]
    low_n: list[float]
    middle_n: list[float]
    high_n: list[float]
    greatest_n: BandView
    by_hand_m: BandView = Field(description="Oiled.")
    by_hand_dry_m: BandView
    stiffens_m: list[float]
    work_j: float

    @classmethod
    def of(cls, one: GoingIn | None) -> "GoingInView | None":
        """Show a way in."""
        if one is None:
            return None
        return cls(
            depths_m=one.depths_m.tolist(), low_n=one.low_n.round(1).tolist(), middle_n=one.middle_n.round(1).tolist(),
            high_n=one.high_n.round(1).tolist(), greatest_n=BandView.of(one.greatest),
            by_hand_m=BandView.of(one.by_hand), by_hand_dry_m=BandView.of(one.by_hand_dry),
            stiffens_m=list(one.stiffens_m), work_j=one.work_j,
        )  # fmt: skip


class SchoolOfFitView(BaseModel):
    """A fit by one school."""

    name: str
    aim_m: float | None
    least_m: float
    greatest_m: float
    too_big_m: float
    takes_off_m: float
    effects: list[EffectView]
    going_in: GoingInView | None

    @classmethod
    def of(cls, one: SchoolOfFit) -> "SchoolOfFitView":
        """Show a school."""
        return cls(name=one.name, aim_m=one.aim_m, least_m=one.least_m, greatest_m=one.greatest_m,
                   too_big_m=one.too_big_m, takes_off_m=one.takes_off_m,
                   effects=[EffectView.of(effect) for effect in one.effects],
                   going_in=GoingInView.of(one.going_in))  # fmt: skip


class ThinWallView(BaseModel):
    """A wall held against the least of the card."""

    what: str
    wall_m: float
    least_m: float | None
    is_thin: bool


class WallsView(BaseModel):
    """Both walls as rings, and what was taken of them."""

    inside_m: float
    fit_m: float
    outside_m: float
    liner_material: str
    block_material: str
    source: str
    lost_m: float
    roughness_known: bool
    otherwise: dict[str, float] = Field(description="Pressure with other ends, as a share of that with free ends.")
    walls: list[ThinWallView]


class TriedView(BaseModel):
    """What a trial fit by hand found, beside what was expected."""

    inserted_m: float
    share: float
    held: str
    says: str
    as_expected: bool | None = Field(description="Null where it was not said whether dry or oiled.")


class BetterLinerView(BaseModel):
    """Another liner that suits the hole better."""

    mark: str
    outside: int
    takes_off_m: float


class StampView(BaseModel):
    """Letters found on a part."""

    part: str
    letters: str


class FitView(BaseModel):
    """A liner held against a hole; where either was not measured only the reason."""

    hole: int
    liner: str | None
    liners: list[str] = Field(description="Liners that may go into this hole.")
    is_home: bool
    state: State
    refused: PhraseView | None
    refused_quantity: Quantity | None
    refused_part: str
    wanted: WantedView | None
    sizing: Sizing
    levels: list[FitLevelView]
    left_out: list[str]
    doubtful: bool
    grips: float
    length_m: float | None
    barrel_m: StatedView | None
    stamps: list[StampView]
    bore_read: str
    outside_read: str
    walls: WallsView | None
    no_walls: PhraseView | None
    schools: list[SchoolOfFitView]
    tried: TriedView | None
    better: BetterLinerView | None
    stripes: PhraseView | None
    need: PhraseView
    why: list[StepView]
    after: AfterView | None = None
    sizings: SizingsView | None = None
    expected_bore: ExpectedBoreView | None = None
    is_conversion: bool = False


def fit_view(facts: JobFacts, fit: Fit | FitRefused, offered: tuple[Liner, ...], friction: Friction,
             aim_m: float | None) -> FitView:  # fmt: skip
    """Show a fit."""
    home = facts.present_fitting(fit.hole.hole_id) is not None
    marks = [one.mark for one in offered]
    if isinstance(fit, FitRefused):
        return FitView(
            hole=fit.hole.number, liner=None if fit.liner is None else fit.liner.mark, liners=marks, is_home=home,
            state=State.NOT_MEASURED, refused=PhraseView.of(fit.reason), refused_quantity=fit.quantity,
            refused_part=fit.part, wanted=None, sizing=Sizing.BLOCK, levels=[], left_out=[], doubtful=False,
            grips=0.0, length_m=liner_length_m(facts.card), barrel_m=None, stamps=[], bore_read="", outside_read="",
            walls=None, no_walls=None, schools=[], tried=None, better=None, stripes=None,
            need=PhraseView.of(fit.reason), why=[],
        )  # fmt: skip
    walls = walls_of(facts, fit)
    known = walls if isinstance(walls, FitWalls) else None
    schools = () if known is None else schools_of_fit(facts, fit, friction, aim_m)
    as_is = schools[0].going_in if schools else None
    better = better_liner(facts, fit)
    barrel = next((one for one in fit.outside.derived if one.kind.value == "barrel"), None)
    parts = {f"hole-{fit.hole.number}": "hole", f"liner-{fit.liner.mark}": "liner"}
    letters = {one.part: one.letters for one in facts.standing(facts.stamps) if one.part in parts}
    return FitView(
        hole=fit.hole.number, liner=fit.liner.mark, liners=marks, is_home=home, state=fit.state, refused=None,
        refused_quantity=None, refused_part="", wanted=WantedView.of(fit.wanted), sizing=fit.sizing,
        levels=[_level(facts, level, home) for level in fit.levels], left_out=list(fit.left_out), doubtful=fit.doubtful,
        grips=fit.grips, length_m=liner_length_m(facts.card),
        barrel_m=None if barrel is None else StatedView.of(barrel.stated),
        stamps=[StampView(part=parts[part], letters=one) for part, one in letters.items()],
        bore_read=_read_words(facts, fit.bore), outside_read=_read_words(facts, fit.outside),
        walls=None if known is None else _walls(facts, known),
        no_walls=None if known is not None else PhraseView.of(walls),  # type: ignore[arg-type]
        schools=[SchoolOfFitView.of(one) for one in schools],
        tried=_tried(tried_of(facts, fit, as_is)),
        better=None if better is None else BetterLinerView(mark=better.mark, outside=better.outside,
                                                           takes_off_m=better.takes_off_m),
        stripes=None if fit.wanted is None else PhraseView.of(stripes_to_leave(fit)),
        need=PhraseView.of(need_of_fit(facts, fit)),
        why=[StepView.of(step) for step in why_of_fit(facts, fit, walls)],
        after=AfterView.of(facts, fit),
        sizings=SizingsView.of(sizings_of(facts.card, fit, known)),
        expected_bore=ExpectedBoreView.of(expected_bore(facts, fit.hole, fit.liner.mark)),
    )  # fmt: skip


def _level(facts: JobFacts, level: FitLevel, is_home: bool) -> FitLevelView:
    return FitLevelView(
        name=level.name, depth_m=level.depth_m, bore_m=value_of(level.bore), liner_m=value_of(level.liner),
        bore_within_m=facts.card.coverage_factor * level.bore.standard_m,
        liner_within_m=facts.card.coverage_factor * level.liner.standard_m,
        press=StatedView.of(level.press), state=level.state, stock=StatedView.maybe(level.stock),
        leave=is_home or not is_to_be_sized(level),
        places=[FitPlaceView(axis_deg=one.axis_deg, press=StatedView.of(one.press), state=one.rule.decision.state,
                             stock=StatedView.maybe(one.stock)) for one in level.places],
    )  # fmt: skip


def _walls(facts: JobFacts, walls: FitWalls) -> WallsView:
    return WallsView(
        inside_m=walls.rings.inside_m, fit_m=walls.rings.fit_m, outside_m=walls.rings.outside_m,
        liner_material=walls.liner.name, block_material=walls.block.name, source=walls.liner.source,
        lost_m=walls.lost_m, roughness_known=walls.roughness_known,
        otherwise={ends.value: share for ends, share in walls.otherwise},
        walls=[ThinWallView(what=one.what, wall_m=one.wall_m, least_m=one.least_m, is_thin=one.is_thin)
               for one in thin_walls(facts, walls)],
    )  # fmt: skip


def _tried(one: Tried | None) -> TriedView | None:
    return None if one is None else TriedView(inserted_m=one.inserted_m, share=one.start.share, held=one.held,
                                              says=one.says, as_expected=one.as_expected)  # fmt: skip


class FitOnDeck(BaseModel):
    """The fit of one hole as the lens shows it: every axis of the level that decides."""

    hole: int
    liner: str | None
    is_home: bool
    state: State
    level: str = Field(description="The level that decides; empty without readings.")
    press: StatedView | None
    places: list[FitPlaceView]
    least_m: float | None
    greatest_m: float | None
    words: PhraseView


class FitsView(BaseModel):
    """The fits of a block, hole by hole; and whether card or job know of a conversion."""

    wanted: WantedView | None
    fits: list[FitOnDeck]
    is_conversion: bool


def fit_on_deck(facts: JobFacts, fit: Fit | FitRefused) -> FitOnDeck:
    """Show the fit of one hole on the deck."""
    home = facts.present_fitting(fit.hole.hole_id) is not None
    if isinstance(fit, FitRefused):
        return FitOnDeck(hole=fit.hole.number, liner=None if fit.liner is None else fit.liner.mark, is_home=home,
                         state=State.NOT_MEASURED, level="", press=None, places=[], least_m=None, greatest_m=None,
                         words=PhraseView.of(fit.reason))  # fmt: skip
    shown = fit.deciding
    return FitOnDeck(
        hole=fit.hole.number, liner=fit.liner.mark, is_home=home, state=fit.state, level=shown.name,
        press=StatedView.of(shown.press), places=_level(facts, shown, home).places, least_m=shown.rule.least_m,
        greatest_m=shown.rule.greatest_m, words=PhraseView.of(need_of_fit(facts, fit)),
    )  # fmt: skip


def _read_words(facts: JobFacts, survey: Survey) -> str:
    """How and when it was read, in words."""
    read = survey.reading_set or newest_set(facts, survey.feature.quantity, survey.part)
    if read is None:
        return ""
    setup, gauge = facts.setup(read.setup_id), facts.gauge_version(read.gauge_version_id)
    warm = ", at 20 °C" if survey.at_20c else ", not brought to 20 °C"
    return f"{gauge.name}{f', {setup.load}' if setup.load else ''}{warm}"
