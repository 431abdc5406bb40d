"""What surveys say beside each other. Rules of the trade: common practice, no published source; sums by hand."""

from dataclasses import replace
from decimal import Decimal
from math import pi

import pytest

from tests.core.card import FLAT, LIP, twin_card
from tests.core.facts import Story, level
from vallostasis.core.bores.cross_checks import bore_change_from_ring_gap
from vallostasis.core.features.parts import part_with_key
from vallostasis.core.fits.hand_start import hand_start
from vallostasis.core.gauges.circumstances import cautions_of_tip
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Place, Quantity, ZeroedOn
from vallostasis.core.records.spec_card import Construction, Length
from vallostasis.core.subjects import cross_checks
from vallostasis.core.surveys.survey import survey_of


def _told(story: Story, quantity: Quantity, key: str) -> list[str]:
    facts: JobFacts = story.facts()
    part = part_with_key(facts, quantity, key)
    assert part is not None
    phrases = cross_checks(facts, survey_of(facts, quantity, part))
    # The words say which way: a sign beside "below" or "larger" would turn them round.
    assert all(term.value >= 0 for phrase in phrases for term in phrase.terms)
    return [phrase.text for phrase in phrases]


@pytest.fixture
def story() -> Story:
    return Story(card=twin_card())


def _spread(story: Story, key: str) -> float:
    facts = story.facts()
    part = part_with_key(facts, Quantity.BLOCK_BORE, key)
    assert part is not None
    phrases = cross_checks(facts, survey_of(facts, Quantity.BLOCK_BORE, part))
    return next(term.value for phrase in phrases for term in phrase.terms if term.symbol == "spread")


@pytest.mark.parametrize(
    ("quantity", "key"),
    [(Quantity.BLOCK_BORE, "hole-1"), (Quantity.LINER_BORE, "hole-1"), (Quantity.MAIN_BORE, "main-1"),
     (Quantity.PISTON_SKIRT, "piston-1"), (Quantity.PISTON_CROWN, "piston-1"), (Quantity.LINER_OUTSIDE, "liner-Q1"),
     (Quantity.RING_GAP, "hole-1"), (Quantity.PISTON_CLEARANCE, "piston-1")],
)  # fmt: skip
def test_of_what_was_not_read_nothing_is_said(story: Story, quantity: Quantity, key: str) -> None:
    story.fit(1, story.liner("Q1"))
    assert [words for words in _told(story, quantity, key) if "feeler" not in words] == []


def test_a_ring_gap_tells_the_taper_over_pi(story: Story) -> None:
    # 2.5 thou on the diameter open the gap by 7.85 thou: circumference.
    assert bore_change_from_ring_gap(7.854 * 25.4e-6) == pytest.approx(2.5 * 25.4e-6, rel=1e-4)
    assert bore_change_from_ring_gap(-pi) == -1
    fitting = story.fit(1, story.liner("Q1"))
    story.survey(Quantity.RING_GAP, {level(19): (480.0,), level(222): (400.0,)}, fitting_id=fitting)
    assert any("larger at top than at bottom" in words for words in _told(story, Quantity.RING_GAP, "hole-1"))
    other = story.fit(2, story.liner("Q2"))
    story.survey(Quantity.RING_GAP, {level(19): (400.0,), level(222): (480.0,)}, fitting_id=other)
    bore = {level(14, 0.0): (127_000.0,), level(227, 0.0): (127_025.0,)}
    story.survey(Quantity.LINER_BORE, bore, fitting_id=other)
    told = _told(story, Quantity.RING_GAP, "hole-2")
    assert any("larger at bottom than at top" in words for words in told)
    assert any("larger at the bottom" in words for words in told)


def test_a_crown_that_is_not_smaller_than_its_skirt_is_spoken_against(story: Story) -> None:
    story.survey(Quantity.PISTON_SKIRT, {level(63.5, 90.0): (120_510.0,)}, part="piston-1")
    story.survey(Quantity.PISTON_CROWN, {level(5, 90.0): (120_120.0,)}, part="piston-1")
    assert any(
        "smaller than the skirt, as it runs hotter" in one for one in _told(story, Quantity.PISTON_CROWN, "piston-1")
    )
    story.survey(Quantity.PISTON_SKIRT, {level(63.5, 90.0): (120_510.0,)}, part="piston-2")
    story.survey(Quantity.PISTON_CROWN, {level(5, 90.0): (120_520.0,)}, part="piston-2")
    assert any("would seize" in one for one in _told(story, Quantity.PISTON_CROWN, "piston-2"))


def test_a_squeezed_skirt_is_named(story: Story) -> None:
    skirt = {level(63.5, 90.0): (120_510.0,), level(104.14, 90.0): (120_480.0,)}
    story.survey(Quantity.PISTON_SKIRT, skirt, part="piston-1")
    assert any("collapsed" in one for one in _told(story, Quantity.PISTON_SKIRT, "piston-1"))
    story.survey(Quantity.PISTON_SKIRT, {**skirt, level(104.14, 90.0): (120_505.0,)}, part="piston-2")
    assert _told(story, Quantity.PISTON_SKIRT, "piston-2") == [], "five micrometres are no squeeze"


@pytest.mark.parametrize(
    ("feeler_um", "says"),
    [
        # Bore 127.100 across, skirt 127.000: 100 µm in all.
        (100, "they agree"),
        # A piston that hangs in the middle leaves half on either side.
        (50, "{off} ±{U} less than there is. Press the piston"),
        (160, "{off} ±{U} more than there is. Read bore and skirt again"),
    ],
)
def test_a_feeler_beside_a_piston_is_held_against_bore_less_skirt(story: Story, feeler_um: float, says: str) -> None:
    fitting = story.fit(1, story.liner("Q1"))
    bore = {level(14, 0.0): (127_060.0,), level(14, 90.0): (127_100.0,)}
    story.survey(Quantity.LINER_BORE, bore, fitting_id=fitting)
    # The widest of the skirt runs nearest to the wall.
    skirt = {level(63.5, 90.0): (127_000.0,), level(104.14, 90.0): (126_940.0,)}
    story.survey(Quantity.PISTON_SKIRT, skirt, part="piston-1")
    story.survey(Quantity.PISTON_CLEARANCE, {Place(): (feeler_um,)}, part="piston-1")
    (told,) = _told(story, Quantity.PISTON_CLEARANCE, "piston-1")
    assert says in told


def test_without_a_liner_a_piston_runs_in_the_block_only_where_it_has_none(story: Story) -> None:
    hole = story.hole_rows[0].hole_id
    story.survey(Quantity.BLOCK_BORE, {level(15.24, 90.0): (127_100.0,)}, hole_id=hole)
    story.survey(Quantity.PISTON_SKIRT, {level(63.5, 90.0): (127_000.0,)}, part="piston-1")
    story.survey(Quantity.PISTON_CLEARANCE, {Place(): (100,)}, part="piston-1")
    assert _told(story, Quantity.PISTON_CLEARANCE, "piston-1") == [], "the liner that belongs there is not in"
    story.card = replace(story.card, construction=Construction.PARENT_BORE)
    (told,) = _told(story, Quantity.PISTON_CLEARANCE, "piston-1")
    assert "they agree" in told


def test_a_feeler_beside_a_hanging_piston_is_warned_of(story: Story) -> None:
    story.rows["setups"] = [
        replace(s, method="feeler, piston hanging free") if s.quantity is Quantity.PISTON_CLEARANCE else s
        for s in story.rows["setups"]
    ]
    story.survey(Quantity.PISTON_CLEARANCE, {Place(): (50.0,)}, part="piston-1")
    (told,) = _told(story, Quantity.PISTON_CLEARANCE, "piston-1")
    assert "hangs free" in told


def test_main_bores_are_told_against_the_low_limit(story: Story) -> None:
    low = 2.6250 * 25_400
    story.survey(Quantity.MAIN_BORE, {level(0, 90.0): (low + 12.7,)}, part="main-1")
    story.survey(Quantity.MAIN_BORE, {level(0, 90.0): (low - 5,)}, part="main-2")
    assert any("above the low limit" in one for one in _told(story, Quantity.MAIN_BORE, "main-1"))
    assert any("eats the oil clearance" in one for one in _told(story, Quantity.MAIN_BORE, "main-2"))


def test_without_a_low_limit_main_bores_are_held_against_none() -> None:
    story = Story(card=replace(twin_card(), features=()))
    story.survey(Quantity.MAIN_BORE, {level(0, 90.0): (66_700.0,)}, part="main-1")
    assert _told(story, Quantity.MAIN_BORE, "main-1") == []


def test_what_is_to_go_is_told_for_each_depth(story: Story) -> None:
    """Nominal 127.000; worn to a cone: 300 µm to go at the bottom, 100 at the top, where it is told from matters."""
    hole = story.hole_rows[0].hole_id
    cone = {level(15.24, 0.0): (126_900.0,), level(226.06, 0.0): (126_700.0,)}
    story.survey(Quantity.BLOCK_BORE, cone, hole_id=hole)
    (told,) = _told(story, Quantity.BLOCK_BORE, "hole-1")
    assert told.startswith("To go to {target}, on the diameter: {at top} at top, {at bottom} at bottom; each within")
    assert "from which depth" in told
    straight = {level(15.24, 0.0): (126_900.0,), level(226.06, 0.0): (126_900.0,)}
    story.survey(Quantity.BLOCK_BORE, straight, hole_id=story.hole_rows[1].hole_id)
    (told,) = _told(story, Quantity.BLOCK_BORE, "hole-2")
    assert "from which depth" not in told


def test_a_gauge_zeroed_on_the_target_tells_what_is_to_go_to_it(story: Story) -> None:
    story.rows["setups"] = [
        replace(s, zeroed_on=ZeroedOn.TARGET, zero_um=Decimal(127_500)) if s.quantity is Quantity.BLOCK_BORE else s
        for s in story.rows["setups"]
    ]
    story.survey(Quantity.BLOCK_BORE, {level(15.24, 0.0): (-300.0,)}, hole_id=story.hole_rows[0].hole_id)
    facts = story.facts()
    part = part_with_key(facts, Quantity.BLOCK_BORE, "hole-1")
    assert part is not None
    (phrase,) = cross_checks(facts, survey_of(facts, Quantity.BLOCK_BORE, part))
    # 12 thou, as it would be said: 300 µm, and the size it goes to.
    assert [round(term.value * 1e6, 6) for term in phrase.terms[:-1]] == [127_500, 300]
    assert phrase.terms[-1].kind == "within"


def test_a_finished_bore_has_nothing_to_go(story: Story) -> None:
    story.survey(Quantity.BLOCK_BORE, {level(15.24, 0.0): (127_001.0,)}, hole_id=story.hole_rows[0].hole_id)
    assert _told(story, Quantity.BLOCK_BORE, "hole-1") == []


@pytest.mark.parametrize(
    ("inserted_mm", "fit"),
    # A liner of 240 mm: a quarter is 60, a third 80. Common practice, no published source.
    [(0, "tight"), (59.9, "tight"), (60, "right"), (70, "right"), (79.9, "right"), (80.1, "loose"), (240, "loose")],
)
def test_a_hand_start_of_a_quarter_to_a_third_is_right(inserted_mm: float, fit: str) -> None:
    start = hand_start(inserted_mm / 1000, 0.240)
    assert start.fit == fit
    assert start.share == pytest.approx(inserted_mm / 240)


def test_a_trial_fit_is_told_as_a_share_with_how_it_was_held(story: Story) -> None:
    setups = story.rows["setups"]
    story.rows["setups"] = [replace(s, load="oiled") if s.quantity is Quantity.TRIAL_FIT else s for s in setups]
    # 9.50 inch long on the card.
    story.survey(Quantity.TRIAL_FIT, {Place(): (1.9 * 25_400,)}, hole_id=story.hole_rows[0].hole_id)
    assert _told(story, Quantity.TRIAL_FIT, "hole-1") == [
        "By hand it goes in {share} of its length, oiled: less than a quarter is tight."
    ]


def test_a_material_that_nobody_knows_is_said_where_sizes_are_brought_to_20c(story: Story) -> None:
    setups = story.rows["setups"]
    story.rows["setups"] = [
        replace(s, gauge_temp_c=Decimal(21)) if s.quantity is Quantity.BLOCK_BORE else s for s in setups
    ]
    nominal = {level(15.24, 0.0): (127_000.0,)}
    story.survey(Quantity.BLOCK_BORE, nominal, hole_id=story.hole_rows[0].hole_id, part_temp_c=Decimal(24))
    assert not any("expands" in words for words in _told(story, Quantity.BLOCK_BORE, "hole-1"))
    story.card = replace(story.card, block_material="gunmetal")
    told = [words for words in _told(story, Quantity.BLOCK_BORE, "hole-1") if "expands" in words]
    assert told == [
        "How gunmetal expands is not known: it is taken to be as iron. Write it down under Masters and service."
    ]
    # As read, no expansion enters.
    story.survey(Quantity.BLOCK_BORE, nominal, hole_id=story.hole_rows[1].hole_id)
    assert not any("expands" in words for words in _told(story, Quantity.BLOCK_BORE, "hole-2"))


def test_repeats_that_spread_wider_than_the_gauge_says_are_noticed(story: Story) -> None:
    place = level(15.24, 0.0)
    hole = story.hole_rows[0].hole_id
    story.survey(Quantity.BLOCK_BORE, {place: (127_000.0, 127_008.0, 126_995.0, 127_012.0)}, hole_id=hole)
    (told,) = (one for one in _told(story, Quantity.BLOCK_BORE, "hole-1") if "Repeats" in one)
    assert "wider than it should" in told
    # By hand: mean 3.75, squares 14.06 + 18.06 + 76.56 + 68.06 over three.
    assert _spread(story, "hole-1") == pytest.approx(7.676e-6, rel=1e-3)
    other = story.hole_rows[1].hole_id
    story.survey(Quantity.BLOCK_BORE, {place: (127_000.0, 127_002.0, 127_001.0)}, hole_id=other)
    (calm,) = (one for one in _told(story, Quantity.BLOCK_BORE, "hole-2") if "Repeats" in one)
    assert "wider" not in calm


def test_a_tip_too_wide_for_its_land_or_too_blunt_beside_a_lip_is_named() -> None:
    story = Story()
    setup = story.facts().present_setup(Quantity.PROTRUSION)
    assert setup is not None
    fine = replace(story.gauge, tip_radius_um=Decimal(400))
    blunt = replace(story.gauge, tip_radius_um=Decimal(3000))
    assert cautions_of_tip(story.card, setup, fine) == ()
    assert any(f"ride on the {LIP}" in words for words in cautions_of_tip(story.card, setup, blunt))
    narrow = replace(
        story.card, lands=tuple(replace(one, width=Length("0.5", Decimal(500))) for one in story.card.lands)
    )
    assert any(f"wider than the {FLAT}" in words for words in cautions_of_tip(narrow, setup, fine))
    assert cautions_of_tip(story.card, setup, replace(fine, tip_radius_um=None)) == ()
