"""Surveys as they go over the wire."""

from datetime import date
from decimal import Decimal
from uuid import UUID

from pydantic import BaseModel, Field

from vallostasis.api.form_models import FormView, form_view
from vallostasis.api.hole_models import RuleView
from vallostasis.api.setup_models import DoubtView, SetupView, setup_view
from vallostasis.api.trail import PhraseView
from vallostasis.core.features.catalogue import PartKind, PatternKind
from vallostasis.core.features.pattern import Pattern
from vallostasis.core.features.plan import blind_spots
from vallostasis.core.fits.interference import InterferenceToCome
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import sheet_of
from vallostasis.core.surveys.derived import Derived, DerivedKind, worst_of_each
from vallostasis.core.surveys.fitness import Settling
from vallostasis.core.surveys.places import PlaceRead
from vallostasis.core.surveys.set_budget import temperature_key
from vallostasis.core.surveys.survey import Survey
from vallostasis.core.tape.fact_kinds import newest_event
from vallostasis.core.uncertainty.decision import State
from vallostasis.services.surveys import FeatureNow, SurveyNow, Warmth


class PlaceView(BaseModel):
    """Where on a part a reading stands."""

    hour: float | None = Field(None, gt=0, le=12, description="Clock position. [h]")
    level_um: Decimal | None = Field(None, ge=-10_000_000, le=10_000_000, description="Depth of the level. [µm]")
    axis_deg: float | None = Field(None, ge=0, lt=180, description="Axis, clockwise from the front. [deg]")
    along_um: Decimal | None = Field(None, ge=-10_000_000, le=10_000_000, description="Along the deck. [µm]")
    across_um: Decimal | None = Field(None, ge=-10_000_000, le=10_000_000, description="Across the deck. [µm]")

    @classmethod
    def of(cls, place: Place) -> "PlaceView":
        """Show a place."""
        return cls(**{name: getattr(place, name) for name in Place.__slots__})

    def place(self) -> Place:
        """The place that is meant."""
        return Place(self.hour, self.level_um, self.axis_deg, self.along_um, self.across_um)


class LevelView(BaseModel):
    """A level of a pattern."""

    name: str
    depth_m: float


class PatternView(BaseModel):
    """A capture pattern and what it cannot see."""

    levels: list[LevelView]
    axes_deg: list[float]
    hours: list[float]
    along_m: list[float]
    across_m: list[float]
    places: int
    on_card: bool = Field(description="False where it is only proposed.")
    blind: list[str]

    @classmethod
    def of(cls, pattern: Pattern, on_card: bool, blind: tuple[str, ...]) -> "PatternView":
        """Show a pattern."""
        return cls(
            levels=[LevelView(name=level.name, depth_m=metres(level.depth_um)) for level in pattern.levels],
            axes_deg=list(pattern.axes_deg),
            hours=list(pattern.hours),
            along_m=[metres(one) for one in pattern.along_um],
            across_m=[metres(one) for one in pattern.across_um],
            places=len(pattern.places),
            on_card=on_card,
            blind=list(blind),
        )


class PartView(BaseModel):
    """How a feature stands on one part."""

    key: str
    title: str
    hole: int | None
    can_read: bool
    state: State
    reason: str
    read: int
    of: int
    greatest_m: float | None = None
    least_m: float | None = None
    out_of_round_m: float | None = None
    taper_m: float | None = None


class FeatureView(BaseModel):
    """A feature of the job: its pattern, how it is read, and how it stands on every part."""

    quantity: Quantity
    part_kind: PartKind
    pattern_kind: PatternKind
    is_size: bool
    pattern: PatternView
    setup: SetupView | None
    parts: list[PartView]


class FeaturesView(BaseModel):
    """Every feature of the job that is surveyed."""

    features: list[FeatureView]


class ReadingAt(BaseModel):
    """A standing reading of a place."""

    reading_id: UUID
    typed: str
    typed_unit: str
    value_um: Decimal
    taken_by: str


class PlaceReadView(BaseModel):
    """One place of a survey."""

    place: PlaceView
    name: str
    value_m: float | None = Field(description="Size at 20 °C where temperatures are known, else as read. [m]")
    as_read_m: float | None
    expanded_m: float | None
    readings: list[ReadingAt]
    unreadable: str
    doubtful: bool
    on_pattern: bool
    state: State | None
    past_m: float | None = Field(description="What stood here before something made it to be read again. [m]")

    @classmethod
    def of(cls, row: PlaceRead, past_m: float | None) -> "PlaceReadView":
        """Show a place."""
        return cls(
            past_m=past_m,
            place=PlaceView.of(row.place),
            name=row.name,
            value_m=row.value_m,
            as_read_m=row.as_read_m,
            expanded_m=row.expanded_m,
            readings=[
                ReadingAt(reading_id=one.reading_id, typed=one.typed, typed_unit=one.typed_unit, value_um=one.value_um,
                          taken_by=one.taken_by)
                for one in row.readings
            ],
            unreadable=row.unreadable,
            doubtful=row.doubtful,
            on_pattern=row.on_pattern,
            state=row.state,
        )  # fmt: skip


class SettlingView(BaseModel):
    """What would settle an undecided rule."""

    rule: str
    where: str
    readings: int | None
    gauges: list[str]

    @classmethod
    def of(cls, one: Settling) -> "SettlingView":
        """Show what would settle a rule."""
        return cls(rule=one.rule, where=one.where, readings=one.readings, gauges=list(one.gauges))


class DerivedView(BaseModel):
    """One value worked out from the readings, with its ±. [m], [deg]"""

    kind: DerivedKind
    where: str
    what: str = Field(description="Under which name its budget is found.")
    value_m: float
    expanded_m: float
    bias_m: float = Field(description="What scatter alone shows where there is nothing to be found. [m]")
    direction_deg: float | None = Field(description="Null where scatter alone would show as much.")
    within_deg: float | None
    per_side_m: float | None = Field(description="Half of it, where a diameter is told per side too. [m]")

    @classmethod
    def of(cls, one: Derived) -> "DerivedView":
        """Show a derived value."""
        return cls(
            kind=one.kind,
            where=one.where,
            what=one.stated.budget.what,
            value_m=one.stated.value_m,
            expanded_m=one.stated.expanded_m,
            bias_m=one.stated.budget.bias_m,
            direction_deg=one.direction_deg,
            within_deg=one.within_deg,
            per_side_m=one.per_side_m,
        )


class WarmthView(BaseModel):
    """How warm things are. [°C]"""

    part_c: Decimal | None
    readings_c: Decimal | None = Field(description="What counts for the readings that stand. [°C]")
    gauge_c: Decimal | None
    master_c: Decimal | None
    room_c: Decimal | None
    effect_m: float | None = Field(description="How much larger the part reads than at 20 °C. [m]")
    part_temperature_event: int | None = Field(description="What to strike where the part's was taken wrongly.")
    soak_s: float | None = Field(description="Until the part is as warm as the room; null where it cannot be told.")

    @classmethod
    def of(cls, warmth: Warmth) -> "WarmthView":
        """Show how warm things are."""
        return cls(
            part_c=warmth.part_c,
            readings_c=warmth.readings_c,
            gauge_c=warmth.gauge_c,
            master_c=warmth.master_c,
            room_c=warmth.room_c,
            effect_m=warmth.effect_m,
            part_temperature_event=warmth.taken[-1].event if warmth.taken else None,
            soak_s=None if warmth.soak is None else warmth.soak.seconds_left,
        )


class InterferenceLevelView(BaseModel):
    """Interference at a level, diametral, positive for a press. [m]"""

    name: str
    depth_m: float
    interference_m: float
    expanded_m: float


class InterferenceView(BaseModel):
    """A liner against this bore. [m]"""

    liner_mark: str
    levels: list[InterferenceLevelView]
    left_out: list[str] = Field(description="Levels of the bore at which the liner was not read.")
    doubtful: bool = Field(description="Some of its readings stand on a zero that was found moved.")

    @classmethod
    def of(cls, one: InterferenceToCome) -> "InterferenceView":
        """Show a liner against a bore."""
        levels = [
            InterferenceLevelView(name=at.level, depth_m=at.depth_m, interference_m=at.stated.value_m,
                                  expanded_m=at.stated.expanded_m)
            for at in one.levels
        ]  # fmt: skip
        return cls(liner_mark=one.liner_mark, levels=levels, left_out=list(one.left_out), doubtful=one.doubtful)


class SurveyFormView(BaseModel):
    """What was read of one feature on one part, its form and its rules. Lengths in m."""

    quantity: Quantity
    is_size: bool
    is_diameter: bool
    part: PartView
    pattern: PatternView
    places: list[PlaceReadView]
    at_20c: bool
    relative: bool
    nominal_m: float | None
    least_m: float | None
    greatest_m: float | None
    out_of_round_m: float | None
    taper_m: float | None
    form: FormView | None
    expanded_m: float | None
    told: list[DerivedView] = Field(description="What its form is told by: the greatest of each kind.")
    rules: list[RuleView]
    interference: list[InterferenceView]


class SurveyView(SurveyFormView):
    """One feature on one part, as it stands now. Lengths in m."""

    pattern_kind: PatternKind
    setup: SetupView | None
    set_id: UUID | None
    flatness_m: float | None
    off_plane_m: list[float]
    with_thermometer_m: float | None = Field(
        description="± of one reading, had temperatures been taken; null where they were, or do not matter. [m]"
    )
    derived: list[DerivedView]
    settling: list[SettlingView]
    doubts: list[DoubtView]
    warmth: WarmthView
    stamp: str
    gauge_has_zero: bool = Field(description="The gauge in use is set to a zero that can move; a blade is not.")
    gauge_is_rocked: bool = Field(description="Its size is taken at the turning point of a rock.")
    has_own_temperature: bool = Field(description="A loose part; else the block's temperature counts.")
    zero_is_looked_at: bool = Field(description="Somebody looked at the zero after the newest reading.")
    suited_gauges: list[UUID] = Field(description="Gauges of the cabinet made for this feature, the finest first.")
    cross_checks: list[PhraseView]
    event: int


def feature_view(facts: JobFacts, now: FeatureNow) -> FeatureView:
    """Show a feature."""
    setup = facts.present_setup(now.feature.quantity)
    return FeatureView(
        quantity=now.feature.quantity,
        part_kind=now.feature.part,
        pattern_kind=now.feature.pattern,
        is_size=now.feature.is_size,
        pattern=PatternView.of(now.pattern, now.pattern_on_card, blind_spots(now.feature, now.pattern)),
        setup=None if setup is None else setup_view(facts, setup, date.today()),
        parts=[part_view(survey) for survey in now.surveys],
    )


def part_view(survey: Survey) -> PartView:
    """Show how a feature stands on a part."""
    form = survey.form
    values = [row.value_m for row in survey.places if row.value_m is not None]
    return PartView(
        key=survey.part.key,
        title=survey.part.title,
        hole=survey.part.hole,
        can_read=survey.part.target is not None,
        state=survey.state,
        reason=survey.reason,
        read=sum(1 for row in survey.places if row.readings or row.unreadable),
        of=len(survey.places),
        greatest_m=max(values, default=None),
        least_m=min(values, default=None),
        out_of_round_m=None if form is None else form.worst_out_of_round_m,
        taper_m=None if form is None else form.taper_m,
    )


def survey_form_view(facts: JobFacts, survey: Survey, interference: tuple[InterferenceToCome, ...]) -> SurveyFormView:
    """Show what was read of one feature on one part, and its form."""
    quantity = survey.feature.quantity
    sheet = sheet_of(facts.card, quantity)
    past = {row.place: row.value_m for row in survey.past}
    return SurveyFormView(
        quantity=quantity,
        is_size=survey.feature.is_size,
        is_diameter=survey.feature.is_diameter,
        part=part_view(survey),
        pattern=PatternView.of(survey.pattern, survey.pattern_on_card, blind_spots(survey.feature, survey.pattern)),
        places=[PlaceReadView.of(row, past.get(row.place)) for row in survey.places],
        at_20c=survey.at_20c,
        relative=survey.relative,
        nominal_m=None if sheet is None else sheet.nominal.metres,
        least_m=None if sheet is None else sheet.least.metres,
        greatest_m=None if sheet is None else sheet.greatest.metres,
        out_of_round_m=None if sheet is None else sheet.out_of_round.metres,
        taper_m=None if sheet is None else sheet.taper.metres,
        form=None if survey.form is None else form_view(survey, survey.form),
        expanded_m=None if survey.budget is None else survey.budget.expanded_m,
        told=[DerivedView.of(one) for one in worst_of_each(survey.derived)],
        rules=[RuleView.of(rule) for rule in survey.rules],
        interference=[InterferenceView.of(one) for one in interference],
    )


def survey_view(now: SurveyNow) -> SurveyView:
    """Show a survey."""
    survey, facts = now.survey, now.facts
    setup = facts.present_setup(survey.feature.quantity)
    return SurveyView(
        **dict(survey_form_view(facts, survey, now.interference)),
        pattern_kind=survey.feature.pattern,
        setup=None if setup is None else setup_view(facts, setup, date.today()),
        set_id=None if survey.reading_set is None else survey.reading_set.reading_set_id,
        flatness_m=None if survey.flatness is None else survey.flatness.flatness_m,
        off_plane_m=[] if survey.flatness is None else list(survey.flatness.off_plane_m),
        with_thermometer_m=None if survey.thermometer is None else survey.thermometer.expanded_m,
        derived=[DerivedView.of(one) for one in survey.derived],
        settling=[SettlingView.of(one) for one in now.settling],
        doubts=[DoubtView.of(doubt) for doubt in now.doubts],
        warmth=WarmthView.of(now.warmth),
        stamp=now.stamp,
        gauge_has_zero=now.gauge_has_zero,
        gauge_is_rocked=now.gauge_is_rocked,
        has_own_temperature=temperature_key(survey.feature.quantity, survey.part.key) != "",
        zero_is_looked_at=now.zero_is_looked_at,
        suited_gauges=list(now.suited),
        cross_checks=[PhraseView.of(phrase) for phrase in now.cross_checks],
        event=newest_event(facts),
    )
