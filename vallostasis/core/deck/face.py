"""Each face of a block as it was read: its grid, its height over the mains, and the cuts that would clean it."""

from dataclasses import dataclass

from vallostasis.core.deck.surface import Bore, Cut, Surface, bores_of_row, least_cut, near_bores, surface_of
from vallostasis.core.errors import OutOfDomain, require_not_negative
from vallostasis.core.features.parts import Part, part_with_key, parts_of
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import bank_rows, sheet_of
from vallostasis.core.surveys.derived import DerivedKind, worst
from vallostasis.core.surveys.survey import Survey, survey_of
from vallostasis.core.uncertainty.budget import Estimate, Stated
from vallostasis.core.uncertainty.decision import State

# Width of the sealing land where neither card nor user names one. [m] House rule.
LAND_M = 0.010
# How a deck was held where its readings lie as the machine will cut it: the block is set from the mains already.
ON_THE_MACHINE = "block level on the machine"


@dataclass(frozen=True)
class DeckFace:
    """One face. [m]

    ``whole_cut`` and ``land_cut`` are the least that clean all of it, or the sealing land; ``within_m`` the ± of both.
    ``may_tilt`` says that the block may still be set to suit the face. ``flat`` is what the card's limit decides, None
    where it has none or nobody read the face.
    """

    part: Part
    numbers: tuple[int, ...]
    survey: Survey
    surface: Surface | None
    bores: tuple[Bore, ...]
    land_m: float
    whole_cut: Cut | None
    land_cut: Cut | None
    within_m: float | None
    may_tilt: bool
    flat: State | None
    height: Stated | None
    height_estimate: Estimate | None


def faces_of(facts: JobFacts, land_m: float | None = None) -> tuple[DeckFace, ...]:
    """Return every face of a block.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    land_m : float or None
        Width of the sealing land, None for the card's. [m]

    Returns
    -------
    tuple of DeckFace
        One for each bank. [m]

    Raises
    ------
    OutOfDomain
        If the land is below nought.

    Notes
    -----
    Where the block stood on the machine as it is cut, its readings lie as the cutter goes; else it may be set to suit
    the face, and what that tilts against the crank is told. Common practice, no published source.
    """
    of_card = facts.card.seat.sealing_land.metres
    land = land_m if land_m is not None else LAND_M if of_card is None else of_card
    require_not_negative(land_m=land)
    rows = bank_rows(facts.card.layout)
    parts = parts_of(facts, Quantity.DECK_FLATNESS)
    return tuple(_face(facts, part, rows[at] if at < len(rows) else (), land) for at, part in enumerate(parts))


def _face(facts: JobFacts, part: Part, numbers: tuple[int, ...], land_m: float) -> DeckFace:
    survey = survey_of(facts, Quantity.DECK_FLATNESS, part)
    surface = _surface(survey)
    load = "" if survey.reading_set is None else facts.setup(survey.reading_set.setup_id).load
    tilts = load != ON_THE_MACHINE
    layout, bores, whole, land = facts.card.layout, tuple[Bore, ...](), None, None
    if surface is not None:
        bores = bores_of_row(numbers, layout.bore_pitch.metres, layout.bore.metres, surface.along_m, surface.across_m)
        whole = least_cut(surface, None, tilts)
        land = least_cut(surface, near_bores(surface, bores, land_m), tilts) if bores else whole
    flatness = worst(survey.derived, DerivedKind.FLATNESS)
    has_limit = sheet_of(facts.card, Quantity.DECK_FLATNESS) is not None
    height = _height(facts, part)
    return DeckFace(part, numbers, survey, surface, bores, land_m, whole, land,
                    None if flatness is None else flatness.stated.expanded_m, tilts,
                    survey.state if has_limit and flatness is not None else None, *height)  # fmt: skip


def _surface(survey: Survey) -> Surface | None:
    """The grid of a face that was read whole; None before, or where a straightedge read it."""
    if survey.flatness is None:
        return None
    points = {
        (metres(row.place.along_um), metres(row.place.across_um)): row.value_m
        for row in survey.places
        if row.value_m is not None and row.place.along_um is not None and row.place.across_um is not None
    }
    try:
        return surface_of(points)
    except OutOfDomain:
        return None


def _height(facts: JobFacts, deck: Part) -> tuple[Stated | None, Estimate | None]:
    part = part_with_key(facts, Quantity.DECK_HEIGHT, deck.key)
    assert part is not None
    survey = survey_of(facts, Quantity.DECK_HEIGHT, part)
    row = next((one for one in survey.places if one.estimate is not None), None)
    return (None, None) if row is None else (row.stated, row.estimate)
