"""The block as it goes over the wire: every hole, the card, the route, the liners, the tape."""

from datetime import date

from pydantic import BaseModel, Field

from vallostasis.api.hole_models import HoleView, RuleView, hole_view
from vallostasis.api.layout_models import LayoutView, layout_fields
from vallostasis.api.leg_models import LegView, leg_views
from vallostasis.api.setup_models import DoubtView, SetupView, setup_view
from vallostasis.api.tape_models import (
    NoteRow,
    ReadingRow,
    TapeLine,
    UndoView,
    note_rows,
    reading_rows,
    tape_lines,
    undo_views,
)
from vallostasis.api.trail import PhraseView
from vallostasis.core.block_needs import needs_of_block
from vallostasis.core.counterbore.shim_order import ShimNeed, shim_needs
from vallostasis.core.gauges.zero_checks import open_doubts
from vallostasis.core.hole_now import hole_now
from vallostasis.core.lenses import LensNow, lenses_now
from vallostasis.core.operations.catalogue import operation_of
from vallostasis.core.protrusion.measured import flange_part
from vallostasis.core.protrusion.rules import HeadAverage
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import CardVersion, Job, Liner, Quantity
from vallostasis.core.records.spec_card import CardUnit
from vallostasis.core.subjects import LensName
from vallostasis.core.surveys.places import protrusion_limits
from vallostasis.core.tape.fact_kinds import newest_event
from vallostasis.core.uncertainty.decision import State
from vallostasis.services.block import BlockNow


class HeadView(BaseModel):
    """One head: its holes, and the average under it where the card asks for one."""

    holes: list[int]
    rule: RuleView | None


class CardView(LayoutView):
    """What the block view needs of the spec card."""

    version: CardVersion
    newest_version: int
    name: str
    engine: str
    unit: CardUnit
    construction: str
    required_hours: list[float]
    land: str
    lands: list[tuple[str, float, str]]
    between: list[tuple[str, float]]
    variation_m: float | None
    neighbour_m: float | None
    least_without_m: float | None
    greatest_without_m: float | None
    least_with_m: float | None
    greatest_with_m: float | None
    coverage_factor: float


class ReadSoFarView(BaseModel):
    """How many parts of a feature are read in full."""

    quantity: Quantity
    read: int
    of: int


class LensView(BaseModel):
    """A way to look at the block: the features it shows, or what it waits for."""

    name: LensName
    quantities: list[Quantity]
    waits_for: list[ReadSoFarView]

    @classmethod
    def of(cls, lens: LensNow) -> "LensView":
        """Show a lens."""
        waits = [ReadSoFarView(quantity=one.quantity, read=one.read, of=one.of) for one in lens.waits_for]
        return cls(name=lens.name, quantities=list(lens.quantities), waits_for=waits)


class HoleNeedView(BaseModel):
    """What one hole needs, in a sentence."""

    hole: int
    state: State
    sentence: PhraseView


class BlockNeedView(BaseModel):
    """An operation that is due, and the holes it is due for."""

    operation: str
    holes: list[HoleNeedView]


def block_need_views(facts: JobFacts) -> list[BlockNeedView]:
    """Show what a block needs, in the order of the work."""
    states = {hole.number: hole_now(facts, hole).state for hole in facts.holes}
    return [
        BlockNeedView(
            operation=operation_of(due.operation).title,
            holes=[
                HoleNeedView(hole=one.hole, state=states[one.hole], sentence=PhraseView.of(one.need.sentence))
                for one in due.holes
            ],
        )
        for due in needs_of_block(facts)
    ]


class BlockView(BaseModel):
    """A job's block with everything the screen shows of it."""

    job: Job
    card: CardView
    route: list[LegView] = Field(description="Its operations in order, in short.")
    lenses: list[LensView] = Field(description="Those of its construction, the one it opens with first.")
    holes: list[HoleView]
    needs: list[BlockNeedView] = Field(description="What is due, operation after operation.")
    heads: list[HeadView]
    liners: list["LinerView"]
    shims: list[ShimNeed]
    setups: list[SetupView]
    readings: list[ReadingRow]
    tape: list[TapeLine]
    undo: list[UndoView]
    notes: list[NoteRow]
    doubts: list[DoubtView]
    event: int = Field(description="The newest thing recorded; grows with every change.")


class LandThickness(BaseModel):
    """Flange thickness of a liner at one land: mean of its newest set. [m]"""

    land: str
    thickness_m: float | None
    expanded_m: float | None


class LinerView(BaseModel):
    """A liner of the job: where it is, and its flange thickness at each land."""

    liner: Liner
    hole: int | None
    flange: list[LandThickness]


def block_view(now: BlockNow, newest_card_version: int) -> BlockView:
    """Show a block."""
    facts = now.facts
    return BlockView(
        job=facts.job,
        card=card_view(facts, newest_card_version),
        route=leg_views(facts),
        lenses=[LensView.of(one) for one in lenses_now(facts)],
        holes=[hole_view(facts, hole) for hole in facts.holes],
        needs=block_need_views(facts),
        heads=[_head_view(head) for head in now.judgement.heads],
        liners=[liner_view(facts, liner) for liner in facts.liners],
        shims=list(shim_needs(facts, now.judgement)),
        setups=[
            setup_view(facts, setup, date.today())
            for quantity in Quantity
            if (setup := facts.present_setup(quantity)) is not None
        ],
        readings=reading_rows(facts),
        tape=tape_lines(facts),
        undo=undo_views(facts),
        notes=note_rows(facts),
        doubts=[DoubtView.of(doubt) for doubt in open_doubts(facts)],
        event=newest_event(facts),
    )


def card_view(facts: JobFacts, newest_version: int) -> CardView:
    """Show what the block needs of its card."""
    card = facts.card
    without, with_shim = protrusion_limits(card, False), protrusion_limits(card, True)
    return CardView(
        **layout_fields(card.layout),
        version=facts.card_version,
        newest_version=newest_version,
        name=card.name,
        engine=card.engine,
        unit=card.unit,
        construction=card.construction.value,
        required_hours=list(card.measuring.required_hours),
        land=card.measuring.land,
        lands=[(land.name, land.raised.metres, land.note) for land in card.lands],
        between=[(part.name, part.thickness.metres) for part in card.measuring.between],
        variation_m=without.variation_m,
        neighbour_m=card.limits.neighbour_difference.metres,
        least_without_m=without.least_m,
        greatest_without_m=without.greatest_m,
        least_with_m=with_shim.least_m,
        greatest_with_m=with_shim.greatest_m,
        coverage_factor=card.coverage_factor,
    )


def _head_view(head: HeadAverage) -> HeadView:
    return HeadView(holes=list(head.holes), rule=None if head.result is None else RuleView.of(head.result))


def liner_view(facts: JobFacts, liner: Liner) -> LinerView:
    """Show a liner."""
    hole = facts.hole_of_liner(liner.liner_id)
    flange = []
    for land in facts.card.lands:
        part = flange_part(facts, liner, land.name)
        flange.append(
            LandThickness(
                land=land.name,
                thickness_m=None if part is None else part.size_m,
                expanded_m=None if part is None else part.stated(facts.card.coverage_factor).expanded_m,
            )
        )
    return LinerView(liner=liner, hole=None if hole is None else hole.number, flange=flange)
