"""A bore whose piston is made to it: its decided step is its size, honed or bored; its start stays known."""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from uuid import uuid4

import pytest

from tests.core.card import dry_card, length, limit
from tests.core.facts import Story, level
from vallostasis.core.bores.plan_of_bores import plan_of_bores
from vallostasis.core.boring.ledger import ledger_of
from vallostasis.core.boring.made_to_bore import MadeToBore, bored_to, made_to_bore
from vallostasis.core.boring.target import target_of
from vallostasis.core.operations import schools
from vallostasis.core.pistons.order import order_sheet
from vallostasis.core.records.bore_decisions import BoreChoice, BoreDecision, BoreLook, LookOutcome, UseProfile
from vallostasis.core.records.boring_passes import BoringPass, PassKind
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import BoreTerms, CardLevel, Construction, FeatureSheet, LadderStep
from vallostasis.core.route.evidence import evidence_of_route
from vallostasis.core.route.hold_points import hold_points_of
from vallostasis.core.route.plan import plan_of

LEVELS = tuple(CardLevel(name, length(depth)) for name, depth in (("top", "15"), ("bottom", "135")))
AXES = (0.0, 90.0)


class Cylinder:
    """One slow cylinder of 200.000, worn to 200.300; 0.050 of stock where it is honed."""

    def __init__(self, *more: FeatureSheet) -> None:
        sheet = FeatureSheet(Quantity.BLOCK_BORE, limit("200"), levels=LEVELS, axes_deg=AXES)
        card = dry_card(sheet, *more, construction=Construction.PARENT_BORE,
                        bores=BoreTerms(hone_stock=limit("0.050"), ladder=(LadderStep(length("1.25")),)))  # fmt: skip
        card = replace(card, layout=replace(card.layout, holes=1, banks=((1,),), bore=length("200")))
        self.story = Story(holes=1, card=card, resolution_um=1, repeatability_um=1, pace=timedelta(seconds=1))
        self.hole = self.story.hole_rows[0].hole_id
        self.read(200_300)

    def read(self, size_um: float) -> None:
        self.story.survey(Quantity.BLOCK_BORE, {level(d, a): (size_um,) for d in (15, 135) for a in AXES},
                          hole_id=self.hole)  # fmt: skip

    def decide(self, over_um: str = "1250", choice: BoreChoice = BoreChoice.OVERSIZE) -> None:
        over = Decimal(over_um) if choice is BoreChoice.OVERSIZE else None
        made = BoreDecision(uuid4(), self.hole, choice, over, None, None, "told", "", UseProfile.LIGHT, "",
                            self.story.now, "Wren", self.story._next())  # fmt: skip
        self.story._add("bore_decisions", made)

    def cut(self, dial_um: int, diameter_um: float) -> None:
        made = BoringPass(uuid4(), self.hole, PassKind.CUT, Decimal(dial_um), "", Decimal(str(diameter_um)), "", None,
                          None, "", self.story.now, "Wren", self.story._next())  # fmt: skip
        self.story._add("boring_passes", made)

    def look(self) -> None:
        seen = BoreLook(uuid4(), self.hole, Decimal(1250), LookOutcome.CLEAN, "", None, None, self.story.now, "Wren",
                        self.story._next())  # fmt: skip
        self.story._add("bore_looks", seen)

    @property
    def made(self) -> MadeToBore | None:
        facts = self.story.facts()
        return made_to_bore(facts, facts.holes[0])


@pytest.fixture
def cylinder() -> Cylinder:
    return Cylinder()


def test_the_decided_step_is_the_size(cylinder: Cylinder) -> None:
    assert cylinder.made is None
    cylinder.decide()
    made = cylinder.made
    assert made is not None
    assert made.finished_m == pytest.approx(0.20125)
    assert made.bored_m == pytest.approx(0.20120)
    cylinder.decide(choice=BoreChoice.SLEEVE)
    assert cylinder.made is None


def test_a_bored_finish_leaves_nothing_for_the_hone(cylinder: Cylinder) -> None:
    """Both schools of a slow cylinder: common practice, no published source."""
    cylinder.decide()
    cylinder.story.choose(schools.FINISH, schools.BORED_FINISH)
    made = cylinder.made
    assert made is not None
    assert (made.bored_m, made.stock_m, made.is_honed) == (made.finished_m, 0, False)
    assert Operation.HONE not in {leg.operation for leg in plan_of(cylinder.story.facts())}


@pytest.mark.parametrize("sheet", [
    FeatureSheet(Quantity.PISTON_CLEARANCE, least=limit("0.1"), greatest=limit("0.2")),
    FeatureSheet(Quantity.PISTON_SKIRT, limit("199.9"), levels=(CardLevel("", length("25")),), axes_deg=AXES),
])  # fmt: skip
def test_where_the_card_knows_a_piston_it_decides(sheet: FeatureSheet) -> None:
    cylinder = Cylinder(sheet)
    cylinder.decide()
    assert cylinder.made is None
    facts = cylinder.story.facts()
    assert bored_to(target_of(facts, facts.holes[0])) is None


def test_no_piston_is_waited_for_before_it_is_bored(cylinder: Cylinder) -> None:
    def missing() -> list[str]:
        facts = cylinder.story.facts()
        return [one.missing for one in hold_points_of(facts, evidence_of_route(facts)) if "piston" in one.missing]

    assert missing()
    cylinder.decide()
    assert missing() == []


def test_one_cylinder_without_mains_has_no_caps(cylinder: Cylinder) -> None:
    assert Operation.CAPS not in {leg.operation for leg in plan_of(cylinder.story.facts())}


def test_what_it_stood_at_before_the_first_pass_stays_known(cylinder: Cylinder) -> None:
    cylinder.decide()
    for dial, size in ((200, 200_700), (250, 201_200)):
        cylinder.cut(dial, size)
    cylinder.read(201_200)
    facts = cylinder.story.facts()
    made = cylinder.made
    ledger = ledger_of(facts, facts.holes[0], bored_to(made) if made else None)
    assert ledger.start is not None
    assert ledger.start.value_m == pytest.approx(0.2003)
    assert [row.expected_m for row in ledger.rows] == [pytest.approx(0.2007), pytest.approx(0.2012)]
    assert ledger.present_m == pytest.approx(0.2012)


def test_within_its_uncertainty_no_further_cut_is_named(cylinder: Cylinder) -> None:
    cylinder.decide()
    cylinder.cut(400, 201_150)
    facts = cylinder.story.facts()
    assert ledger_of(facts, facts.holes[0], 0.2012).next_dial_m == pytest.approx(25e-6)
    cylinder.cut(23, 201_197)
    facts = cylinder.story.facts()
    ledger = ledger_of(facts, facts.holes[0], 0.2012)
    assert ledger.to_go_m == pytest.approx(3e-6)
    assert ledger.next_dial_m is None


def test_no_hair_is_cut_before_the_last_cut(cylinder: Cylinder) -> None:
    """Whoever follows the screen with a tool that takes nine tenths is there after few passes."""
    cylinder.decide()
    size, dials = 200_300.0, list[float]()
    for _ in range(12):
        facts = cylinder.story.facts()
        ledger = ledger_of(facts, facts.holes[0], 0.2012)
        if ledger.next_dial_m is None:
            break
        dials.append(ledger.next_dial_m)
        size += 2 * 0.9 * dials[-1] * 1e6
        cylinder.cut(round(dials[-1] * 1e6), size)
    assert size == pytest.approx(201_200, abs=5)
    assert len(dials) <= 6
    assert min(dials) >= 5e-6


def test_a_block_at_its_step_needs_no_further_bore(cylinder: Cylinder) -> None:
    cylinder.decide()
    assert plan_of_bores(cylinder.story.facts()).headline != "Bored to its step, bright all round"
    cylinder.look()
    plan = plan_of_bores(cylinder.story.facts())
    assert plan.headline == "Bored to its step, bright all round"
    assert "Bore 1 at +1250" in plan.words[0]


def test_a_piston_to_a_decided_step_is_ordered_to_it_before_it_is_bored(cylinder: Cylinder) -> None:
    """It has no clearance on its card: the rings are ordered for the step, the piston waits for that."""
    cylinder.decide()
    facts, made = cylinder.story.facts(), cylinder.made
    assert made is not None
    piston, rings = order_sheet(facts, facts.holes[0]).ordered
    assert (rings.least_m, rings.greatest_m) == (made.finished_m, made.finished_m)
    assert piston.least_m is None
    assert piston.why_not is not None and "no clearance" in piston.why_not.text
