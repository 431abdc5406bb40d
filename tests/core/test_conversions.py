"""A conversion as it stands: what decking takes, registers, inserts, fire ring, seals, compound, relief, order."""

from dataclasses import replace
from math import cos, radians
from uuid import UUID

import pytest

from tests.core.card import dry_card, length, limit
from tests.core.facts import FLAT, Story, level
from tests.core.test_fits import AXES, LEVELS, OUTSIDE, words
from tests.core.test_fits import TERMS as FITS
from vallostasis.core.conversions.conversion import Conversion, HoleConversion, conversion_of, is_converted
from vallostasis.core.conversions.decking import decking_of
from vallostasis.core.conversions.fire_ring import StudPull
from vallostasis.core.conversions.inserts import InsertFit
from vallostasis.core.conversions.stack import ReliefNow, RingNow
from vallostasis.core.operations import schools
from vallostasis.core.records.conversion_terms import ConversionTerms, GrooveIn, SealRing
from vallostasis.core.records.fit_terms import FitWindow, RunningState
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Place, Quantity
from vallostasis.core.records.spec_card import CardLevel, Construction, FeatureSheet
from vallostasis.core.trail import Phrase
from vallostasis.core.uncertainty.decision import State

HOURS = (12.0, 3.0, 6.0, 9.0)
SEAL = SealRing("lower", GrooveIn.LINER, length("96.4"), length("7.4"), length("94.1"), length("5.33"), "nitrile", -20,
                110, "rubber grease")  # fmt: skip
TERMS = ConversionTerms(
    proud_least=limit("0.18"), proud_greatest=limit("0.23"), clean_up=limit("0.10"), least_flange=limit("8.5"),
    upper_register=limit("15"), lower_register=limit("135"), register_length=limit("10"), off_line=limit("0.040"),
    insert_press=FitWindow(limit("0.020"), limit("0.040"), limit("0.060")), insert_inside=limit("106"),
    rod_length=limit("178"), rod_width=limit("28"), big_end=limit("79"), crank_depth=limit("230"),
    crank_offset=limit("5"), offset_hour=3.0, rod_clear=limit("1.5"), fire_ring=limit("1.40"),
    gasket_clamped=limit("1.20"), head_groove=limit("0.10"), crush_least=limit("0.05"), crush_greatest=limit("0.15"),
    studs=10, stud_kn=50.0, stud_diameter=limit("11"), stud_length=limit("140"), stud_clamped=limit("100"),
    stud_thread=limit("20"), compound_gap=limit("0.05"), compound_band=limit("12"), seals=(SEAL,),
)  # fmt: skip
POCKET = (CardLevel("upper edge", length("2")), CardLevel("lower edge", length("8")))


def told(terms: ConversionTerms = TERMS, outside: dict[float, float] = OUTSIDE, **fits: object) -> tuple[Story, UUID]:
    """A flanged twin with hole and liner read; gives the liner in hole 1 of two."""
    levels = tuple(CardLevel(name, length(f"{depth:g}")) for name, depth in LEVELS)
    card = dry_card(FeatureSheet(Quantity.BLOCK_BORE, limit("104"), levels=levels, axes_deg=AXES),
                    FeatureSheet(Quantity.LINER_OUTSIDE, limit("104"), levels=levels, axes_deg=AXES),
                    FeatureSheet(Quantity.LINER_BORE, limit("100"), levels=levels, axes_deg=AXES),
                    FeatureSheet(Quantity.REGISTER_LINE, hours=HOURS),
                    FeatureSheet(Quantity.INSERT_POCKET, limit("115"), levels=POCKET, axes_deg=AXES),
                    FeatureSheet(Quantity.INSERT_OUTSIDE, limit("115"), levels=POCKET, axes_deg=AXES),
                    FeatureSheet(Quantity.DECK_FLATNESS, greatest=limit("0.05")),
                    construction=Construction.DRY_FLANGED, conversion=terms, stroke=limit("108"),
                    fits=replace(FITS, **fits))  # type: ignore[arg-type] # fmt: skip
    story = Story(card=card, resolution_um=0.2, repeatability_um=0.2, holes=2)
    liner = story.liner("A")
    story.liner("B")
    for body in ("part", "room"):
        story.take_temperature(body, 20.0)
    hole = story.hole_rows[0].hole_id
    story.survey(Quantity.BLOCK_BORE, {level(d, a): (103_980.0,) for _, d in LEVELS for a in AXES}, hole_id=hole)
    story.survey(Quantity.LINER_OUTSIDE, {level(d, a): (outside[d],) for _, d in LEVELS for a in AXES}, liner_id=liner)
    return story, liner


def first(story: Story) -> HoleConversion:
    return conversion_of(story.facts()).holes[0]


def proud_by(story: Story, hole: int, liner: UUID, *values_um: float) -> None:
    story.read(Quantity.PROTRUSION, story.fit(hole, liner), values_um)


def left_proud(terms: ConversionTerms = TERMS) -> tuple[Story, UUID]:
    story, liner = told(terms)
    story.choose(schools.HEIGHT, schools.LEFT_PROUD)
    return story, liner


def test_skim_is_the_highest_liner_and_what_cleans_the_deck_up() -> None:
    """A liner 20 thou proud and "a few off" is no sum: 0.215 + 0.100."""
    story, liner = left_proud()
    proud_by(story, 1, liner, 200, 205, 215, 210)
    story.read(Quantity.FLANGE_THICKNESS, liner, (8_900,))
    found = decking_of(story.facts())
    assert found.skim is not None
    assert found.skim.value_m == pytest.approx(315e-6)
    assert found.highest_hole == 1
    row = found.rows[0]
    assert (row.state, row.reason) == (State.IN, "proud as wanted all round")
    assert row.flange_left is not None
    # Of 8.900 the cut takes what stands proud there and what cleans up: 8.900 − 0.215 − 0.100.
    assert row.flange_left.value_m == pytest.approx(8.585e-3)
    assert row.flange_left.decision.state is State.IN
    assert words(found.says[0]).startswith("Feed down 315")
    assert "Hole 2 is not read yet" in found.says[0].text
    # The ± of the highest of four readings is wider than that of one.
    assert row.highest is not None
    assert found.skim.expanded_m > row.highest.expanded_m


@pytest.mark.parametrize(
    ("values", "state", "reason"),
    [
        ((170, 205, 210, 205), State.OUT, "not proud enough: the deck would not clean up round it"),
        ((200, 205, 240, 205), State.OUT, "stands higher than wanted"),
        ((180, 205, 210, 205), State.CANNOT_TELL, "too near to its window to tell"),
        ((200, 205, 210), State.NOT_MEASURED, "not read at every clock position"),
    ],
)
def test_a_liner_left_proud_is_held_against_its_window_all_round(
    values: tuple[float, ...], state: State, reason: str
) -> None:
    story, liner = left_proud()
    proud_by(story, 1, liner, *values)
    row = decking_of(story.facts()).rows[0]
    assert (row.state, row.reason) == (state, reason)


def test_a_flange_that_the_cut_leaves_too_thin_is_out() -> None:
    story, liner = left_proud()
    proud_by(story, 1, liner, 200, 205, 210, 205)
    story.read(Quantity.FLANGE_THICKNESS, liner, (8_750,))
    row = decking_of(story.facts()).rows[0]
    assert (row.state, row.reason) == (State.OUT, "the cut leaves too little of its flange")


def test_what_nobody_read_is_planned_and_without_the_card_nothing_is() -> None:
    story, liner = left_proud()
    assert words(decking_of(story.facts()).says[0]) == (
        "Fitted 180 to 230 proud, 280 to 330 will come off, 100 of it to clean the deck up."
    )
    bare, _ = left_proud(ConversionTerms())
    assert "never a few" in decking_of(bare.facts()).says[0].text
    no_clean_up, liner = left_proud(replace(TERMS, clean_up=limit(None)))
    proud_by(no_clean_up, 1, liner, 200, 205, 210, 205)
    found = decking_of(no_clean_up.facts())
    assert found.skim is None
    assert "write on the card what cleans the deck up" in found.says[0].text


def test_a_deck_that_is_farther_from_flat_than_the_clean_up_is_said() -> None:
    story, liner = left_proud()
    proud_by(story, 1, liner, 200, 205, 210, 205)
    grid = {(0, 0): 0.0, (300, 0): 0.0, (0, 200): 0.0, (300, 200): 0.0, (150, 100): -140.0}
    story.survey(Quantity.DECK_FLATNESS, {Place(along_um=x * 1000, across_um=y * 1000): (height,)  # type: ignore[arg-type]
                                          for (x, y), height in grid.items()}, part="deck")  # fmt: skip
    found = decking_of(story.facts())
    assert found.out_of_flat is not None
    assert found.out_of_flat.value_m > 100e-6
    assert "does not clean it up" in found.says[1].text


def sweep(story: Story, off_um: float, towards: float, hours: tuple[float, ...] = HOURS) -> None:
    """The lower register swept from the upper: what stands off towards an hour reads most there."""
    read = {Place(hour=hour): (round(off_um * cos(radians(30 * (hour - towards))), 4),) for hour in hours}
    story.survey(Quantity.REGISTER_LINE, read, hole_id=story.hole_rows[0].hole_id)


def test_registers_off_line_are_found_with_their_direction() -> None:
    story, _ = told()
    sweep(story, 60.0, 2.0)
    line = first(story).register
    assert line is not None and line.rule is not None and line.hour is not None
    assert line.rule.value_m == pytest.approx(60e-6, rel=1e-3)
    assert line.hour == pytest.approx(2.0, abs=0.01)
    assert line.state is State.OUT
    # Both ends press: nothing of it is free, all of it bends; more at the far end of its ±.
    assert line.slack_m == 0.0
    assert line.bent is not None and line.bent_most is not None
    assert line.bent.off_m == pytest.approx(60e-6, rel=1e-3)
    assert line.bent_most.off_m == pytest.approx(line.rule.value_m + line.rule.expanded_m)
    assert "is bent by 60" in words(line.says)


def test_clearance_at_the_registers_takes_up_half_of_itself() -> None:
    """Fits of −30 and −10 µm: (30 + 10)/2 = 20 µm of 35 are free."""
    story, _ = told(outside={15.0: 103_950.0, 75.0: 103_950.0, 135.0: 103_970.0})
    sweep(story, 35.0, 6.0)
    line = first(story).register
    assert line is not None and line.bent is not None
    assert line.slack_m == pytest.approx(20e-6)
    assert line.bent.off_m == pytest.approx(15e-6, rel=1e-3)
    assert line.state is State.IN
    loose, _ = told(outside=dict.fromkeys(OUTSIDE, 103_900.0))
    sweep(loose, 35.0, 6.0)
    free = first(loose).register
    assert free is not None
    assert "nothing is bent" in free.says.text


def test_a_sweep_that_is_not_whole_decides_nothing() -> None:
    story, _ = told()
    assert first(story).register.state is State.NOT_MEASURED  # type: ignore[union-attr]
    sweep(story, 60.0, 2.0, HOURS[:3])
    assert first(story).register.state is State.NOT_MEASURED  # type: ignore[union-attr]


def test_after_pressing_the_bore_says_what_became_of_it() -> None:
    story, liner = told()
    sweep(story, 60.0, 2.0)
    fitting = story.fit(1, liner)
    assert first(story).register.after is None  # type: ignore[union-attr]
    oval = {level(d, a): (99_990.0 + (12.0 if a else 0.0),) for _, d in LEVELS for a in AXES}
    story.survey(Quantity.LINER_BORE, oval, fitting_id=fitting)
    after = first(story).register.after  # type: ignore[union-attr]
    assert after is not None
    assert after.stated.value_m == pytest.approx(12e-6)


def insert(story: Story, over_um: float, of: str = "both") -> None:
    hole = story.hole_rows[0].hole_id
    at = [level(depth, axis) for depth in (2.0, 8.0) for axis in AXES]
    if of in ("both", "pocket"):
        story.survey(Quantity.INSERT_POCKET, {place: (115_000.0,) for place in at}, hole_id=hole)
    if of in ("both", "outside"):
        story.survey(Quantity.INSERT_OUTSIDE, {place: (115_000.0 + over_um,) for place in at}, hole_id=hole)


def test_an_insert_has_a_fit_of_its_own() -> None:
    story, _ = told()
    insert(story, 40.0)
    found = first(story).insert
    assert isinstance(found, InsertFit)
    assert [round(one.press.value_m * 1e6, 6) for one in found.levels] == [40.0, 40.0]
    assert found.state is State.IN
    # Lamé with its inside 106, pocket 115, block 125, both iron: worked with the formula of plane stress by hand.
    assert found.pressure_pa == pytest.approx(40e-6 / 0.11504 / (
        (1 / 110e9) * ((0.125**2 + 0.11504**2) / (0.125**2 - 0.11504**2) + 0.26)
        + (1 / 110e9) * ((0.11504**2 + 0.106**2) / (0.11504**2 - 0.106**2) - 0.26)), rel=1e-3)  # fmt: skip
    assert found.closes_in_m is not None and 0 < found.closes_in_m < 40e-6
    tight, _ = told()
    insert(tight, 70.0)
    assert first(tight).insert.state is State.OUT  # type: ignore[union-attr]


@pytest.mark.parametrize(("read", "missing"), [("outside", "pocket"), ("pocket", "outside")])
def test_an_insert_nobody_measured_is_not_guessed(read: str, missing: str) -> None:
    story, _ = told()
    insert(story, 40.0, read)
    found = first(story).insert
    assert isinstance(found, Phrase)
    assert f"Nobody measured the {missing} of the insert" in found.text


def test_a_fire_ring_is_crushed_flush_before_the_deck_is_cut_and_as_read_after() -> None:
    story, liner = left_proud()
    ring = first(story).ring
    assert isinstance(ring, RingNow)
    # Flush: 1.40 − (1.20 + 0.10).
    assert (ring.known_by, ring.crush.value_m) == ("flush, as it will be decked", pytest.approx(0.10e-3))
    fitting = story.fit(1, liner)
    story.mark(Operation.DECK)
    story.read(Quantity.PROTRUSION, fitting, (60, 60, 60, 60))
    ring = first(story).ring
    assert isinstance(ring, RingNow)
    assert ring.known_by == "protrusion as read"
    assert ring.crush.value_m == pytest.approx(0.16e-3)
    assert ring.crush.decision.state is State.OUT


def test_a_fire_ring_of_a_liner_fitted_to_height_waits_for_its_protrusion() -> None:
    story, _ = told()
    assert isinstance(first(story).ring, Phrase)
    without = told(replace(TERMS, gasket_clamped=limit(None)))[0]
    assert "gasket" in first(without).ring.text  # type: ignore[union-attr]
    assert first(told(replace(TERMS, fire_ring=limit(None)))[0]).ring is None


def test_studs_of_the_card() -> None:
    studs = conversion_of(told()[0].facts()).studs
    assert isinstance(studs, StudPull)
    # F·L/(E·A): 50 kN · 100 mm / (207 GPa · 95.03 mm²).
    assert studs.stretch_m == pytest.approx(50e3 * 0.1 / (207e9 * 95.033e-6), rel=1e-4)
    assert studs.in_block_m == pytest.approx(0.140 - 0.100 - 0.011)
    assert isinstance(conversion_of(told(replace(TERMS, stud_kn=None))[0].facts()).studs, Phrase)
    bare = replace(TERMS, stud_kn=None, stud_diameter=limit(None), stud_clamped=limit(None))
    assert conversion_of(told(bare)[0].facts()).studs is None


def test_seals_are_told_against_the_bore_as_read_and_what_speaks_against_them() -> None:
    seal = first(told()[0]).seals[0]
    assert seal.sealing is not None
    assert (seal.bore_m, seal.bore_known_by) == (pytest.approx(0.10398), "as read")
    assert seal.sealing.depth_m == pytest.approx((103.98e-3 - 96.4e-3) / 2)
    assert seal.against == ()
    hot = told(running=(RunningState("full load", 95, 130),))[0]
    assert first(hot).seals[0].against == ("bears 110 °C, runs at 130 °C",)
    unread = conversion_of(told()[0].facts()).holes[1].seals[0]
    assert unread.bore_known_by == "as drawn"
    dry = told(replace(TERMS, seals=(replace(SEAL, grease="", section=length("4.0")),)))[0]
    assert [one.split(":")[0][:12] for one in first(dry).seals[0].against] == ["squeezed 4% ", "the card nam"]
    thick = told(replace(TERMS, seals=(replace(SEAL, groove_width=length("5.5")),)))[0]
    assert any("no room to swell" in one for one in first(thick).seals[0].against)
    none = told(replace(TERMS, seals=(replace(SEAL, groove_diameter=length("104.5")),)))[0]
    assert "no depth" in first(none).seals[0].against[0]


def test_compound_fills_the_gap_or_is_only_a_film() -> None:
    film = first(told(compound="anaerobic", compound_cure_h=24.0)[0]).compound
    assert film is not None and film.gap is not None
    assert film.fills_m3 is None
    assert "a thin film" in film.says.text
    loose = told(outside=dict.fromkeys(OUTSIDE, 103_940.0), compound="anaerobic")[0]
    found = first(loose).compound
    assert found is not None and found.gap is not None
    # 40 µm on the diameter over a band of 12 mm: π·103.98·12·0.02 mm³.
    assert found.fills_m3 == pytest.approx(3.14159265 * 0.10398 * 0.012 * 20e-6, rel=1e-6)
    assert found.gap.decision.state is State.IN
    wide = told(outside=dict.fromkeys(OUTSIDE, 103_900.0), compound="anaerobic")[0]
    assert first(wide).compound.gap.decision.state is State.OUT  # type: ignore[union-attr]
    assert first(told(compound="none: fitted dry")[0]).compound is None


def test_relief_follows_from_where_the_foot_stands() -> None:
    story, liner = left_proud()
    found = first(story).relief
    assert isinstance(found, ReliefNow)
    # Deck to crank 230, liner 150: its foot stands 80 above the crank.
    assert found.foot_m == pytest.approx(0.080)
    assert found.towards.is_needed and not found.away.is_needed
    assert found.towards_hour == 3.0
    proud_by(story, 1, liner, 200, 200, 200, 200)
    lifted = first(story).relief
    assert isinstance(lifted, ReliefNow)
    assert lifted.foot_m == pytest.approx(0.0802)
    assert lifted.towards.deep_m < found.towards.deep_m
    short = told(replace(TERMS, rod_length=limit("50")))[0]
    assert "cannot be told" in first(short).relief.text  # type: ignore[union-attr]
    assert isinstance(first(told(replace(TERMS, rod_width=limit(None)))[0]).relief, Phrase)
    assert first(told(replace(TERMS, rod_length=limit(None), crank_depth=limit(None)))[0]).relief is None


def test_what_comes_before_what() -> None:
    story, liner = left_proud()

    def order(now: Conversion) -> list[str]:
        return [words(one) for one in now.order]

    assert order(conversion_of(story.facts())) == [
        "Sweep the registers: holes 1, 2 to come",
        "Press the inserts in: holes 1, 2 to come",
        "Relieve the liners’ feet before they go in: chips of it end in the crankcase else",
        "Fit the liners, seals greased, in their order: holes 1, 2 to come",
        "Read how proud they stand: holes 1, 2 to come",
        "Deck them all in one setting",
        "Read the protrusion again before the fire rings go on",
    ]
    sweep(story, 5.0, 2.0)
    insert(story, 40.0)
    proud_by(story, 1, liner, 200, 205, 210, 205)
    lines = order(conversion_of(story.facts()))
    assert lines[0] == "Sweep the registers: hole 2 to come"
    assert lines[1] == "Press the inserts in: hole 2 to come"
    assert lines[3].endswith("hole 2 to come")
    story.mark(Operation.DECK)
    assert "Deck: it is marked as done" in order(conversion_of(story.facts()))


def test_a_job_has_a_conversion_where_card_or_school_says_so() -> None:
    assert is_converted(told()[0].facts())
    bare, _ = told(ConversionTerms())
    assert not is_converted(bare.facts())
    bare.choose(schools.HEIGHT, schools.LEFT_PROUD)
    facts = bare.facts()
    assert is_converted(facts)
    one = conversion_of(facts).holes[0]
    assert (one.register, one.insert, one.ring, one.relief, one.seals, one.compound) == (None,) * 4 + ((), None)
    assert facts.card.measuring.land == FLAT
