"""A pull as it goes: what is counted, what is called, what its force says, and what the bore says after.

Curves are made from a hidden cause, each with the force that the cause makes of a pull: common practice, no published
source.
"""

from dataclasses import replace
from datetime import timedelta
from decimal import Decimal
from uuid import UUID, uuid4

import numpy as np
import pytest

from tests.core.card import limit
from tests.core.facts import WHEN, Story, level
from tests.core.test_fits import AXES, LEVELS, OUTSIDE, TERMS, told
from vallostasis.core.fits.after import after_of, press_by_force
from vallostasis.core.fits.effects import FitWalls, walls_of
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.fits.going_in import GoingIn, expected_way_in
from vallostasis.core.fits.pull import PullNow, PullState, expected_at, next_call, next_stiffer, pulls_of
from vallostasis.core.fits.pull_curve import CurveSays, ForceRead, against_band, curve_of
from vallostasis.core.fits.thick_walled import pressed
from vallostasis.core.records.fit_terms import FitTerms, StopRule
from vallostasis.core.records.pulls import FIRST, Pull, PullMark, PullMarkKind, Slides
from vallostasis.core.records.rows import Quantity

K = PullMarkKind


class Puller:
    """A pull told mark by mark."""

    def __init__(self, story: Story, liner: UUID) -> None:
        self.story = story
        self.pull = Pull(uuid4(), story.hole_rows[0].hole_id, liner, "Screw puller", Decimal(15), Decimal(2000),
                         Decimal(150_000), Slides.OILED, StopRule.AT_CONTACT, "Wren", "Tobiah", WHEN, "Wren",
                         story._next())  # fmt: skip
        story._add("pulls", self.pull)

    def note(self, kind: PullMarkKind, to_go_mm: float | None = None, kn: float | None = None) -> None:
        event = self.story._next()
        to_go = None if to_go_mm is None else Decimal(str(to_go_mm)) * 1000
        self.story._add("pull_marks", PullMark(uuid4(), self.pull.pull_id, kind, to_go,
                                               None if kn is None else Decimal(str(round(kn, 4))), "", "",
                                               WHEN + timedelta(seconds=event), "Wren", event))  # fmt: skip

    def looked(self) -> "Puller":
        for kind in FIRST:
            self.note(kind)
        return self

    @property
    def now(self) -> PullNow:
        facts = self.story.facts()
        return pulls_of(facts, facts.holes[0])[-1]


@pytest.fixture
def puller() -> Puller:
    story, _, liner = told()
    return Puller(story, liner)


def test_looks_come_first_then_turns_then_contact(puller: Puller) -> None:
    assert puller.now.state is PullState.FIRST
    assert puller.now.unchecked == FIRST
    puller.looked()
    assert puller.now.state is PullState.PULLING
    for _ in range(3):
        puller.note(K.TURN)
    assert (puller.now.turns, puller.now.to_go_um) == (3, Decimal(144_000))
    puller.note(K.DEPTH, 140.5)
    puller.note(K.TURN)
    assert puller.now.to_go_um == Decimal(138_500), "turns count on from the newest measurement"
    puller.note(K.STOPPED)
    assert puller.now.state is PullState.STOPPED
    puller.note(K.FREED)
    assert puller.now.state is PullState.PULLING
    puller.note(K.TOUCHES, 0.4)
    assert puller.now.state is PullState.TOUCHED
    puller.note(K.HOME)
    assert puller.now.state is PullState.HOME
    assert not puller.now.goes_on
    assert puller.now.to_go_um == 0


def test_a_pull_that_was_drawn_out_is_over(puller: Puller) -> None:
    puller.looked().note(K.DRAWN)
    assert puller.now.state is PullState.OUT
    assert not puller.now.goes_on


def test_calls_come_in_their_order() -> None:
    found = [next_call(Decimal(at * 1000)) for at in (100, 50, 40, 20, 10, 5, 0)]
    assert [one and one[0] for one in found] == ["fifty", "slow", "quarters", "ten", "five", "stop", None]


def _way_in(story: Story) -> GoingIn:
    facts = story.facts()
    going = expected_way_in(facts, facts.holes[0], "A")
    assert going is not None
    return going


def test_what_is_expected_is_read_off_the_way_in(puller: Puller) -> None:
    going = _way_in(puller.story)
    home, half = expected_at(going, 0.0), expected_at(going, 0.075)
    assert home.middle_n == pytest.approx(going.middle_n[-1])
    assert home.low_n < home.middle_n < home.high_n
    assert half.middle_n == pytest.approx(np.interp(0.075, going.depths_m, going.middle_n))
    for at in going.stiffens_m:
        assert next_stiffer(going, 0.15) == pytest.approx(0.15 - going.stiffens_m[0])
        assert at < 0.15


DEPTHS_M = np.linspace(0.12, 0.001, 9)


def _says(going: GoingIn, force_n: np.ndarray) -> set[CurveSays]:
    forces = [ForceRead(float(at), float(force)) for at, force in zip(DEPTHS_M, force_n, strict=True)]
    return {one.says for one in against_band(forces, [expected_at(going, float(at)) for at in DEPTHS_M])}


def test_every_cause_leaves_its_mark_on_the_force(puller: Puller) -> None:
    going = _way_in(puller.story)
    middle = np.array([expected_at(going, float(at)).middle_n for at in DEPTHS_M])
    rng = np.random.default_rng(5)
    for _ in range(40):
        friction, noise = rng.uniform(0.75, 1.3), 1 + rng.normal(0, 0.02, len(middle))
        assert _says(going, middle * friction * noise) == {CurveSays.AS_EXPECTED}
        # Skewed: one side grips at once, and less as it comes straight.
        skewed = middle * friction + 4000 * np.linspace(1, 0, len(middle)) ** 2
        assert CurveSays.TILTED in _says(going, skewed * noise)
        # Metal that went: from half-way on the force falls away.
        peeled = middle * 1.3 * np.where(np.arange(len(middle)) > 5, 0.35, 1.0)
        assert CurveSays.SHAVED in _says(going, peeled * noise)
        assert _says(going, middle * 0.1 * noise) == {CurveSays.LOOSE}
        # Tighter all along is not told from dry.
        assert CurveSays.NOT_TOLD in _says(going, middle * 4 * noise)


def test_contact_before_home_is_something_under_the_flange(puller: Puller) -> None:
    puller.looked().note(K.TOUCHES, 2.5)
    says = {one.says for one in curve_of(puller.now, _way_in(puller.story))}
    assert CurveSays.EARLY in says
    assert CurveSays.NOT_TOLD in says, "no force was read: tilt is not told from shaving"


def test_contact_at_home_is_a_seat_and_what_was_felt_is_said(puller: Puller) -> None:
    puller.looked()
    for kind in (K.POPS, K.TWISTS):
        puller.note(kind)
    puller.note(K.TOUCHES, 0.5)
    found = curve_of(puller.now, None)
    assert CurveSays.SEATED in {one.says for one in found}
    assert any("popped" in one.words.text for one in found)
    assert any("twisted" in one.words.text for one in found)
    assert any("walls are not on the card" in one.words.text for one in found)


def test_the_force_says_a_range_of_press_that_friction_leaves_open(puller: Puller) -> None:
    going = _way_in(puller.story)
    assert press_by_force((puller.now,), going) is None
    puller.looked()
    home = expected_at(going, 0.0).middle_n
    puller.note(K.DEPTH, 0.0, home * 1.5 / 1000)
    found = press_by_force((puller.now,), going)
    assert found is not None
    assert found.middle == pytest.approx(1.5, rel=1e-3)
    # From μ 0.08 to 0.2 with 0.14 in the middle: Coulomb's law.
    assert (found.low, found.high) == (
        pytest.approx(1.5 * 0.14 / 0.2, rel=1e-3),
        pytest.approx(1.5 * 0.14 / 0.08, rel=1e-3),
    )


def _pressed_in(true_share: float, read_inside: bool = True, terms: FitTerms = TERMS) -> Story:
    story, _, liner = told(terms)
    if read_inside:
        story.survey(Quantity.LINER_INSIDE, {level(d, a): (100_000.0,) for _, d in LEVELS for a in AXES},
                     liner_id=liner)  # fmt: skip
    fitting = story.fit(1, liner)
    facts = story.facts()
    fit = fit_of(facts, facts.holes[0], "A")
    assert isinstance(fit, Fit)
    walls = walls_of(facts, fit)
    assert isinstance(walls, FitWalls)
    after = {}
    for _, depth in LEVELS:
        press = (OUTSIDE[depth] - 103_980) * 1e-6 - walls.lost_m
        closed = true_share * 1e6 * float(pressed(walls.rings, press).close_in_m)
        after |= {level(depth, axis): (round(100_000.0 - closed, 3),) for axis in AXES}
    story.survey(Quantity.LINER_BORE, after, fitting_id=fitting)
    return story


def test_close_in_found_confirms_the_press_or_says_that_metal_went() -> None:
    """Worked backwards: the bore after is what Lamé makes of the press, or of a fifth of it."""
    story = _pressed_in(1.0)
    facts = story.facts()
    found = after_of(facts, facts.holes[0])
    assert found is not None
    assert found.confirmed
    assert [one.agrees for one in found.levels] == [True] * 3
    assert [round(one.true_press.value_m * 1e6, 1) for one in found.levels] == [13.0, 29.0, 13.0]
    shaved = _pressed_in(0.2).facts()
    less = after_of(shaved, shaved.holes[0])
    assert less is not None
    assert not any(one.agrees for one in less.levels)
    assert [round(one.true_press.value_m * 1e6, 1) for one in less.levels] == [2.6, 5.8, 2.6]
    assert any("shaved" in one.text for one in less.says)


def test_what_the_roughness_took_is_given_back_to_the_press() -> None:
    """DIN 7190-1, from memory: 6 µm of the 29 are flattened; the bore closes in by 23, the press was 29."""
    rough = _pressed_in(1.0, terms=replace(TERMS, bore_rz=limit("0.005"), liner_rz=limit("0.0025"))).facts()
    found = after_of(rough, rough.holes[0])
    assert found is not None
    assert round(found.levels[1].true_press.value_m * 1e6, 1) == 29.0
    assert found.levels[1].found.value_m == pytest.approx(23e-6 * 0.81, rel=0.02)


def test_a_prediction_that_nobody_confirmed_stays_open() -> None:
    story, _, liner = told()
    story.fit(1, liner)
    facts = story.facts()
    found = after_of(facts, facts.holes[0])
    assert found is not None
    assert not found.confirmed
    assert "not confirmed" in found.says[0].text
    assert after_of(facts, facts.holes[1]) is None


def test_an_inside_that_was_only_drawn_widens_the_plus_minus() -> None:
    drawn, read = _pressed_in(1.0, read_inside=False).facts(), _pressed_in(1.0).facts()
    one, other = after_of(drawn, drawn.holes[0]), after_of(read, read.holes[0])
    assert one is not None
    assert other is not None
    assert not one.inside_was_read
    assert one.levels[0].found.expanded_m > 2 * other.levels[0].found.expanded_m
    assert any("drawing" in phrase.text for phrase in one.says)
