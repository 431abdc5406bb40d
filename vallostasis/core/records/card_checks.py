"""What contradicts itself on a spec card, field by field."""

from collections.abc import Iterator
from dataclasses import fields
from itertools import pairwise

from vallostasis.core.records.conversion_terms import ConversionTerms, SealRing
from vallostasis.core.records.fit_terms import FitWindow, StopRule
from vallostasis.core.records.spec_card import (
    Arrangement,
    BoreTerms,
    FieldProblem,
    Layout,
    Limit,
    Limits,
    SourceStatus,
    SpecCard,
    hole_numbers,
)

NAME_THE_SOURCE = "A limit from the specification names its book, edition and page: type the source."


def check_card(card: SpecCard) -> tuple[FieldProblem, ...]:
    """Find what contradicts itself on a card, field by field; nothing found means it can be saved."""
    return (*_layout_problems(card.layout), *_limit_problems(card.limits), *_measuring_problems(card),
            *_bore_problems(card.bores), *_fit_problems(card), *_conversion_problems(card.conversion))  # fmt: skip


def _layout_problems(layout: Layout) -> Iterator[FieldProblem]:
    if not 1 <= layout.holes <= 16:
        yield FieldProblem("layout.holes", "A block has 1 to 16 holes: type the number of holes.")
        return
    grouped = [hole for head in layout.heads for hole in head]
    if sorted(grouped) != list(range(1, layout.holes + 1)):
        yield FieldProblem(
            "layout.heads", f"Every hole from 1 to {layout.holes} stands under exactly one head: list each once."
        )
    if layout.arrangement is Arrangement.V and layout.bank_angle_deg is None:
        yield FieldProblem("layout.bank_angle_deg", "A V block needs its bank angle: type it in degrees.")
    if layout.bank_angle_deg is not None and not 0 < layout.bank_angle_deg <= 180:
        yield FieldProblem("layout.bank_angle_deg", "Banks stand above 0 and up to 180 degrees apart.")
    numbered = sorted(hole for bank in layout.banks for hole in bank)
    if layout.arrangement is Arrangement.V and (len(layout.banks) != 2 or numbered != list(range(1, layout.holes + 1))):
        yield FieldProblem(
            "layout.banks",
            f"List the holes 1 to {layout.holes} of two banks from the front, such as 1 3 5 7 / 2 4 6 8.",
        )
    for name in ("bore_pitch", "bore"):
        if getattr(layout, name).um <= 0:
            yield FieldProblem(f"layout.{name}", "This drives the drawing: type a size above zero.")


def _limit_problems(limits: Limits) -> Iterator[FieldProblem]:
    pairs = (
        ("least_without_shim", "greatest_without_shim"),
        ("least_with_shim", "greatest_with_shim"),
        ("least_with_shim", "target_with_shim"),
        ("target_with_shim", "greatest_with_shim"),
        ("head_average_least", "head_average_greatest"),
    )
    for low_name, high_name in pairs:
        low, high = getattr(limits, low_name).metres, getattr(limits, high_name).metres
        if low is not None and high is not None and low >= high:
            yield FieldProblem(
                f"limits.{high_name}", f"This must be greater than the {low_name.replace('_', ' ')}: check both."
            )
    for name in ("variation_round", "neighbour_difference"):
        value = getattr(limits, name).metres
        if value is not None and value < 0:
            yield FieldProblem(f"limits.{name}", "A difference cannot be negative: type its size.")
    for field in fields(limits):
        limit: Limit = getattr(limits, field.name)
        if limit.length is not None and limit.status is SourceStatus.SPECIFICATION and not limit.source.strip():
            yield FieldProblem(
                f"limits.{field.name}",
                NAME_THE_SOURCE,
            )


def _running_problems(bores: BoreTerms) -> Iterator[FieldProblem]:
    for name in ("bore_runs_c", "piston_runs_c"):
        celsius = getattr(bores, name)
        if celsius is not None and not -60 <= celsius <= 900:
            yield FieldProblem(f"bores.{name}", "That runs between -60 and 900 °C: type how warm it is at work.")
        if celsius is None and bores.runs_with.metres is not None:
            yield FieldProblem(f"bores.{name}", "A clearance as it runs needs both temperatures: type this one too.")


def _bore_problems(bores: BoreTerms) -> Iterator[FieldProblem]:
    top, bottom = bores.ring_top.metres, bores.ring_bottom.metres
    if top is not None and bottom is not None and top >= bottom:
        yield FieldProblem("bores.ring_bottom", "The lowest ring turns below the top one: check both.")
    wall, least = bores.wall.metres, bores.least_wall.metres
    if wall is not None and least is not None and least >= wall:
        yield FieldProblem("bores.least_wall", "This must be less than the wall by the drawing: check both.")
    for name in ("hone_stock", "centre_move", "rebore", "runs_with"):
        value = getattr(bores, name).metres
        if value is not None and value < 0:
            yield FieldProblem(f"bores.{name}", "This cannot be negative: type its size.")
    for name in ("ring_top", "ring_bottom", "hone_stock", "centre_move", "wall", "least_wall", "rebore", "runs_with"):
        limit: Limit = getattr(bores, name)
        if limit.length is not None and limit.status is SourceStatus.SPECIFICATION and not limit.source.strip():
            yield FieldProblem(f"bores.{name}", NAME_THE_SOURCE)
    if bores.thrust_hour is not None and not 0 < bores.thrust_hour <= 12:
        yield FieldProblem("bores.thrust_hour", "Say on which clock position the thrust side lies, 1 to 12.")
    if bores.plate_torque_nm is not None and not 0 < bores.plate_torque_nm <= 5000:
        yield FieldProblem("bores.plate_torque_nm", "A torque is above nought: type it in N·m.")
    yield from _running_problems(bores)
    seen = set()
    for index, step in enumerate(bores.ladder):
        if step.oversize.um <= 0 or step.oversize.um in seen:
            yield FieldProblem(f"bores.ladder.{index}.oversize", "Each step is above nought, and there once.")
        seen.add(step.oversize.um)
        if step.weeks is not None and not 0 <= step.weeks <= 520:
            yield FieldProblem(f"bores.ladder.{index}.weeks", "Weeks to wait are nought or more.")


def _fit_problems(card: SpecCard) -> Iterator[FieldProblem]:
    fits = card.fits
    for school in ("light", "firm"):
        window: FitWindow = getattr(fits, school)
        named = [(name, getattr(window, name)) for name in ("least", "aim", "greatest")]
        set_ones = [(name, limit) for name, limit in named if limit.metres is not None]
        for (_, low), (name, high) in pairwise(set_ones):
            if low.metres > high.metres:
                yield FieldProblem(f"fits.{school}.{name}", "Least, aim and greatest press rise: check them.")
        for name, limit in set_ones:
            if limit.status is SourceStatus.SPECIFICATION and not limit.source.strip():
                yield FieldProblem(f"fits.{school}.{name}", NAME_THE_SOURCE)
    for name in FIT_LENGTHS:
        one: Limit = getattr(fits, name)
        if one.metres is not None and one.metres < 0:
            yield FieldProblem(f"fits.{name}", "This cannot be negative: type its size.")
        if one.length is not None and one.status is SourceStatus.SPECIFICATION and not one.source.strip():
            yield FieldProblem(f"fits.{name}", NAME_THE_SOURCE)
    inside, boss = fits.liner_inside.metres, fits.boss_outside.metres
    if inside is not None and boss is not None and inside >= boss:
        yield FieldProblem("fits.boss_outside", "The wall of the block lies outside the liner's bore: check both.")
    for name, most in (("dwell_kn", 2000), ("dwell_min", 1440), ("clamp_kn", 5000), ("clamp_loss_kn", 1000),
                       ("drag_kn", 1000), ("compound_cure_h", 720)):  # fmt: skip
        value = getattr(fits, name)
        if value is not None and not 0 <= value <= most:
            yield FieldProblem(f"fits.{name}", f"Type a figure from 0 to {most}.")
    if fits.stop is StopRule.DWELL and not fits.dwell_kn:
        yield FieldProblem("fits.dwell_kn", "Say with what load the liner is held home, in kN.")
    for index, state in enumerate(fits.running):
        for name in ("block_c", "liner_c"):
            if not -60 <= getattr(state, name) <= 500:
                yield FieldProblem(f"fits.running.{index}.{name}", "Type a temperature from -60 to 500 °C.")
        if not state.name.strip():
            yield FieldProblem(f"fits.running.{index}.name", "Say when that is, such as full load.")


# Lengths of a fit that are never below nought.
FIT_LENGTHS = ("boss_outside", "liner_length", "liner_inside", "bore_rz", "liner_rz", "lead_in", "least_liner_wall",
               "least_boss_wall", "seat_depth", "neighbour_gap")  # fmt: skip


def _conversion_problems(terms: ConversionTerms) -> Iterator[FieldProblem]:
    for field in fields(terms):
        one = getattr(terms, field.name)
        if not isinstance(one, Limit) or one.metres is None:
            continue
        if one.metres < 0 and field.name != "crank_offset":
            yield FieldProblem(f"conversion.{field.name}", "This cannot be negative: type its size.")
        if one.status is SourceStatus.SPECIFICATION and not one.source.strip():
            yield FieldProblem(f"conversion.{field.name}", NAME_THE_SOURCE)
    for low_name, high_name in RISING:
        low, high = getattr(terms, low_name).metres, getattr(terms, high_name).metres
        if low is not None and high is not None and low >= high:
            low_words = low_name.replace("_", " ")
            yield FieldProblem(f"conversion.{high_name}", f"This must be more than the {low_words}: check both.")
    window = terms.insert_press
    rising = [one for one in (window.least, window.aim, window.greatest) if one.metres is not None]
    if any((low.metres or 0) > (high.metres or 0) for low, high in pairwise(rising)):
        yield FieldProblem("conversion.insert_press.greatest", "Least, aim and greatest press rise: check them.")
    if terms.offset_hour is not None and not 0 < terms.offset_hour <= 12:
        yield FieldProblem("conversion.offset_hour", "Say the clock position, 1 to 12.")
    if terms.studs is not None and not 1 <= terms.studs <= 60:
        yield FieldProblem("conversion.studs", "Type how many studs clamp a head, 1 to 60.")
    if terms.stud_kn is not None and not 0 < terms.stud_kn <= 2000:
        yield FieldProblem("conversion.stud_kn", "Type what one stud pulls, above 0 and up to 2000 kN.")
    for index, ring in enumerate(terms.seals):
        yield from _seal_problems(f"conversion.seals.{index}", ring)


def _seal_problems(path: str, ring: SealRing) -> Iterator[FieldProblem]:
    if not ring.name.strip():
        yield FieldProblem(f"{path}.name", "Name the ring, such as the lower one.")
    for name in ("groove_diameter", "groove_width", "inside", "section"):
        if getattr(ring, name).um <= 0:
            yield FieldProblem(f"{path}.{name}", "A size above nought is needed to tell how the ring is squeezed.")
    for name in ("coldest_c", "warmest_c"):
        value = getattr(ring, name)
        if value is not None and not -100 <= value <= 500:
            yield FieldProblem(f"{path}.{name}", "Type a temperature from -100 to 500 °C.")


# Pairs of lengths of a conversion of which the second is the greater.
RISING = (("proud_least", "proud_greatest"), ("upper_register", "lower_register"), ("crush_least", "crush_greatest"),
          ("stud_clamped", "stud_length"), ("rod_width", "rod_length"))  # fmt: skip


def _measuring_problems(card: SpecCard) -> Iterator[FieldProblem]:
    hours = card.measuring.required_hours
    if not hours or len(set(hours)) != len(hours) or not all(0 < hour <= 12 for hour in hours):
        yield FieldProblem(
            "measuring.required_hours", "List each clock position once, from 1 to 12, for example 12, 3, 6, 9."
        )
    if card.measuring.land not in [land.name for land in card.lands]:
        yield FieldProblem("measuring.land", "Protrusion is read on a named land: choose one of the card's lands.")
    for index, shim in enumerate(card.shims):
        if shim.thickness.um <= 0:
            yield FieldProblem(f"shims.{index}.thickness", "A shim is thicker than nothing: type its thickness.")
        if shim.stock < 0:
            yield FieldProblem(f"shims.{index}.stock", "Stock cannot be negative: type how many lie on the shelf.")
    for index, one in enumerate(card.obstructions):
        if one.hole not in hole_numbers(card):
            yield FieldProblem(f"obstructions.{index}.hole", f"This block has no hole {one.hole}: type one it has.")
        if not (0 < one.from_hour <= 12 and 0 < one.until_hour <= 12):
            yield FieldProblem(f"obstructions.{index}.from_hour", "Say from which clock position to which, 1 to 12.")
    if card.clearance_volume_cm3 is not None and not 0 < card.clearance_volume_cm3 < 100_000:
        yield FieldProblem("clearance_volume_cm3", "A clearance volume is above nought: type it in cm³.")
    for name in ("graduation", "stop_accuracy"):
        if getattr(card.cutter, name).um <= 0:
            yield FieldProblem(f"cutter.{name}", "This is needed to plan a cut: type a value above zero.")
    if not 1 <= card.coverage_factor <= 4:
        yield FieldProblem("coverage_factor", "The coverage factor k is between 1 and 4, usually 2.")
