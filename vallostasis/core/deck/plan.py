"""What a surfacer would take for each aim, and everything that moves with it, aim by aim beside each other.

A skim cannot be undone: protrusion, piston, injector, valve, compression and the height that is left of the block are
told before it. Common practice, no published source.

References
----------
.. [1] JCGM 100:2008 (GUM), 5.1.2: a height after the cut is what was read and what comes off.
"""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.boring.faces_kept import faces_kept
from vallostasis.core.counterbore.dependents import DependentAfter, compression_after, dependents_of
from vallostasis.core.deck.face import DeckFace, faces_of
from vallostasis.core.deck.surface import off_at
from vallostasis.core.fits.fit import worst_state
from vallostasis.core.operations import schools
from vallostasis.core.operations.schools import side_of
from vallostasis.core.protrusion.measured import protrusion_of
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole, Quantity
from vallostasis.core.records.spec_card import CONSTRUCTIONS_WITH_PROTRUSION, sheet_of
from vallostasis.core.surveys.places import protrusion_limits
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, Stated, exactly, stated, value_of, weighted
from vallostasis.core.uncertainty.decision import RuleKind, RuleResult, State, judge

# What a surfacer's feed repeats within, as a standard deviation. [m] House rule.
FEED_M = 5e-6
# Sums of floats differ by less. [m]
ROUNDING_M = 1e-9


class Aim(StrEnum):
    """What a face is cut for."""

    LEAVE = "leave it"
    LAND = "clean the sealing land"
    WHOLE = "clean the whole face"
    LOWEST = "bring the lowest liner up"
    PROUD = "cut liners and deck to one face"
    HALVES = "make both halves alike"
    ASKED = "take what is typed"


@dataclass(frozen=True, slots=True)
class HoleAfter:
    """One hole after the cut: what comes off round it, and how high its liner stands, judged. [m]

    ``lowest`` and ``highest`` are None where no liner stands on a ledge there, or nobody read it; ``unsure`` is what
    keeps a liner from being called in: not read all round, or in doubt.
    """

    hole: int
    off_m: float
    lowest: RuleResult | None
    highest: RuleResult | None
    unsure: State | None = None

    @property
    def state(self) -> State | None:
        """The worst of both ends and of what keeps them from counting; None where none is judged. By their order."""
        ends = [one.decision.state for one in (self.lowest, self.highest) if one is not None]
        if self.unsure is not None:
            ends.append(self.unsure)
        return worst_state(ends) if ends else None


@dataclass(frozen=True, slots=True)
class FaceAfter:
    """One face after the cut: taken off its highest point, and what is left of the block there. [m]

    ``is_clean`` says that its land is clean for sure, ``is_old`` that old face is left for sure; neither within the ±.
    """

    face: DeckFace
    depth_m: float
    height: Stated | None
    height_rule: RuleResult | None
    is_clean: bool | None
    is_old: bool | None


@dataclass(frozen=True, slots=True)
class DeckOption:
    """One aim, and everything that moves with it. [m], [1]

    ``compression`` is before and after; ``why_not`` says why the aim names no cut, empty where it does.
    """

    aim: Aim
    faces: tuple[FaceAfter, ...]
    holes: tuple[HoleAfter, ...]
    heights: tuple[DependentAfter, ...]
    compression: tuple[float, float] | None
    state: State
    says: tuple[Phrase, ...]
    why_not: str = ""

    @property
    def deepest_m(self) -> float:
        """The deepest of its cuts. [m] Greatest."""
        return max((one.depth_m for one in self.faces), default=0.0)


@dataclass(frozen=True, slots=True)
class DeckPlan:
    """Every aim beside each other, and the one that takes least of those that come out in; None where none does.

    ``kept`` says which faces stay as they are; where the card says that of the deck, ``is_kept``, nothing but
    leaving it is recommended.
    """

    faces: tuple[DeckFace, ...]
    options: tuple[DeckOption, ...]
    least: DeckOption | None
    kept: tuple[str, ...] = ()
    is_kept: bool = False


def deck_plan(facts: JobFacts, asked_m: float | None = None, land_m: float | None = None) -> DeckPlan:
    """Plan the cut of a deck for every aim.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    asked_m : float or None
        A cut that somebody would try, off the highest point. [m]
    land_m : float or None
        Width of the sealing land round each bore; None for the card's. [m]

    Returns
    -------
    DeckPlan
        Depths count from the highest point of each face. [m]

    Raises
    ------
    OutOfDomain
        If a number is below nought.

    Notes
    -----
    House rules on common practice: what each aim takes stands with its function.
    """
    faces = faces_of(facts, land_m)
    found = [_option(facts, aim, faces, cut) for aim, cut in _cuts(facts, faces, asked_m)]
    is_kept = bool(facts.card.deck_kept.strip())
    good = [one for one in found if one.state is State.IN and not one.why_not]
    if is_kept:
        good = [one for one in good if one.aim is Aim.LEAVE]
    least = min(good, key=lambda one: one.deepest_m, default=None)
    return DeckPlan(faces, tuple(found), least, faces_kept(facts), is_kept)


Cuts = tuple[float, ...] | str


def _cuts(facts: JobFacts, faces: tuple[DeckFace, ...], asked_m: float | None) -> list[tuple[Aim, Cuts]]:
    """Name the depth of every aim on every face, or why there is none."""
    cuts: list[tuple[Aim, Cuts]] = [(Aim.LEAVE, tuple(0.0 for _ in faces))]
    unread = "the face was not read on a grid"
    for aim in (Aim.LAND, Aim.WHOLE):
        depths = [one.land_cut if aim is Aim.LAND else one.whole_cut for one in faces]
        # As sure as the face was read: what is cut to the bare figure leaves old face half of the time.
        named = [
            one.depth_m + (face.within_m or 0.0) for one, face in zip(depths, faces, strict=True) if one is not None
        ]
        cuts.append((aim, tuple(named) if len(named) == len(faces) else unread))
    if facts.card.construction in CONSTRUCTIONS_WITH_PROTRUSION:
        proud = side_of(facts, schools.HEIGHT) == schools.LEFT_PROUD
        cuts.append((Aim.PROUD, _proud(facts, faces)) if proud else (Aim.LOWEST, _lowest(facts, faces)))
    if len(faces) == 2:
        cuts.append((Aim.HALVES, _halves(faces)))
    if asked_m is not None:
        cuts.append((Aim.ASKED, tuple(asked_m for _ in faces)))
    return cuts


def _lowest(facts: JobFacts, faces: tuple[DeckFace, ...]) -> Cuts:
    """As much as the lowest liner of a face lacks of its least height, its ± with it."""
    depths = []
    for face in faces:
        lacks = []
        for bore in face.numbers:
            hole = _hole(facts, bore)
            ends = _ends(facts, hole)
            least = _limits(facts, hole)[0]
            if ends is None or least is None:
                continue
            # What comes off has a ± of its own: the lowest liner has to be in by both.
            low = stated("lowest", weighted(((1.0, ends[0]), (1.0, _feed()))), facts.card.coverage_factor)
            lacks.append(least + low.expanded_m - low.value_m + _low_of(face, bore))
        if not lacks:
            return "nobody read how high its liners stand"
        depths.append(max(0.0, *lacks))
    return tuple(depths)


def _proud(facts: JobFacts, faces: tuple[DeckFace, ...]) -> Cuts:
    """The highest liner, and what cleans the deck up beside it; off the deck itself the clean-up alone."""
    clean_up = facts.card.conversion.clean_up.metres
    if clean_up is None:
        return "the card does not say what cleans the deck up"
    return tuple(clean_up if face.whole_cut is None else max(clean_up, face.whole_cut.depth_m) for face in faces)


def _halves(faces: tuple[DeckFace, ...]) -> Cuts:
    """Both faces to the height that the lower one has once its land is clean."""
    heights = [one.height.value_m for one in faces if one.height is not None]
    lands = [0.0 if one.land_cut is None else one.land_cut.depth_m + (one.within_m or 0.0) for one in faces]
    if len(heights) < len(faces):
        return "the height of each half over the line of the mains was not read"
    final = min(height - land for height, land in zip(heights, lands, strict=True))
    return tuple(height - final for height in heights)


def _hole(facts: JobFacts, number: int) -> Hole:
    return next(hole for hole in facts.holes if hole.number == number)


def _low_of(face: DeckFace, number: int) -> float:
    """How much less than off the highest point comes off round a bore. [m]"""
    bore = next((one for one in face.bores if one.number == number), None)
    if face.surface is None or bore is None or face.land_cut is None:
        return 0.0
    return -off_at(face.surface, bore, face.land_cut, 0.0)


def _ends(facts: JobFacts, hole: Hole) -> tuple[Estimate, Estimate] | None:
    survey = protrusion_of(facts, hole)
    if not survey.estimates:
        return None
    return min(survey.estimates, key=value_of), max(survey.estimates, key=value_of)


def _limits(facts: JobFacts, hole: Hole) -> tuple[float | None, float | None]:
    fitting = facts.present_fitting(hole.hole_id)
    limits = protrusion_limits(facts.card, fitting is not None and bool(facts.shims_of(fitting.fitting_id)))
    return limits.least_m, limits.greatest_m


def _option(facts: JobFacts, aim: Aim, faces: tuple[DeckFace, ...], cuts: Cuts) -> DeckOption:
    if isinstance(cuts, str):
        return DeckOption(aim, (), (), (), None, State.NOT_MEASURED, (), cuts)
    after = tuple(_face_after(facts, face, depth) for face, depth in zip(faces, cuts, strict=True))
    holes = tuple(
        _hole_after(facts, _hole(facts, number), one.depth_m - _low_of(one.face, number), aim)
        for one in after
        for number in one.face.numbers
    )
    offs = [max(0.0, one.off_m) for one in holes] or [0.0]
    most, fewest = max(offs), min(offs)
    heights = dependents_of(facts.card, most)[1:]
    keeps = [one.keeps for skim in (most, fewest) for one in dependents_of(facts.card, skim)[1:]]
    states = [State.OUT for one in keeps if one is False]
    states += [one.state for one in holes if one.state is not None]
    states += [one.height_rule.decision.state for one in after if one.height_rule is not None]
    states += [_face_state(one) for one in after]
    return DeckOption(aim, after, holes, heights, compression_after(facts.card, most), worst_state(states),
                      tuple(_says(after, holes, heights)))  # fmt: skip


def _face_after(facts: JobFacts, face: DeckFace, depth_m: float) -> FaceAfter:
    clean = old = None
    if face.land_cut is not None:
        within = face.within_m or 0.0
        clean = depth_m >= face.land_cut.depth_m + within - ROUNDING_M
        old = depth_m < face.land_cut.depth_m - within
    if face.height is None or face.height_estimate is None:
        return FaceAfter(face, depth_m, None, None, clean, old)
    k, sheet = facts.card.coverage_factor, sheet_of(facts.card, Quantity.DECK_HEIGHT)
    left = stated("deck height", weighted(((1.0, face.height_estimate), (-1.0, _taken(depth_m)))), k)
    limits = (None, None) if sheet is None else (sheet.least.metres, sheet.greatest.metres)
    rule = None if limits == (None, None) else judge(RuleKind.READING, face.part.title, left, limits,
                                                     facts.card.acceptance)  # fmt: skip
    return FaceAfter(face, depth_m, left, rule, clean, old)


def _taken(depth_m: float) -> Estimate:
    """What comes off, with what a surfacer repeats; nothing is taken for sure."""
    return _feed(depth_m) if depth_m > 0 else exactly(depth_m)


def _feed(depth_m: float = 0.0) -> Estimate:
    return exactly(depth_m, FEED_M, "feed of the surfacer", "feed")


def _face_state(one: FaceAfter) -> State:
    """A face that was cut clean is flat; one that was not is what it was read as."""
    if one.is_clean and one.depth_m > 0:
        return State.IN
    if one.face.flat is None:
        return State.NOT_MEASURED
    if one.depth_m > 0 and one.is_clean is False:
        return State.OUT if one.is_old else State.CANNOT_TELL
    return one.face.flat


def _hole_after(facts: JobFacts, hole: Hole, off_m: float, aim: Aim) -> HoleAfter:
    """Liners on a ledge stand higher by what comes off; where they are cut with the deck they end in its face."""
    card = facts.card
    if card.construction not in CONSTRUCTIONS_WITH_PROTRUSION or aim is Aim.PROUD:
        return HoleAfter(hole.number, off_m, None, None)
    ends, survey = _ends(facts, hole), protrusion_of(facts, hole)
    unsure = State.NOT_MEASURED if survey.missing else State.CANNOT_TELL if survey.doubt else None
    if ends is None:
        return HoleAfter(hole.number, off_m, None, None, State.NOT_MEASURED)
    off, limits = max(0.0, off_m), _limits(facts, hole)
    lowest, highest = (
        judge(RuleKind.READING, f"hole {hole.number}",
              stated("after", weighted(((1.0, end), (1.0, _taken(off)))), card.coverage_factor), limits,
              card.acceptance)
        for end in ends
    )  # fmt: skip
    return HoleAfter(hole.number, off_m, lowest, highest, unsure)


def _says(
    after: tuple[FaceAfter, ...], holes: tuple[HoleAfter, ...], heights: tuple[DependentAfter, ...]
) -> list[Phrase]:
    """Name what does not come out in."""
    said = []
    for one in after:
        if one.depth_m > 0 and one.is_old and one.face.land_cut is not None:
            said.append(Phrase("Old face is left on the sealing land: it takes {c}.",
                               (Term("c", one.face.land_cut.depth_m),)))  # fmt: skip
        if one.height_rule is not None and one.height_rule.decision.state is State.OUT:
            said.append(Phrase(f"The block is {{h}} high then, {one.height_rule.words}.",
                               (Term("h", one.height_rule.value_m, "size"),)))  # fmt: skip
    ends = [(hole.hole, end) for hole in holes for end in (hole.lowest, hole.highest) if end is not None]
    named = set[int]()
    for state in (State.OUT, State.CANNOT_TELL):
        for number, end in ends:
            if end.decision.state is state and number not in named:
                named.add(number)
                said.append(Phrase(f"Hole {{n}} stands {{p}} ±{{u}} then, {end.words}.",
                                   (Term("n", number, "count"), Term("p", end.value_m),
                                    Term("u", end.expanded_m, "within"))))  # fmt: skip
    for height in heights:
        if height.keeps is False and height.after_m is not None:
            said.append(Phrase(f"{height.name[0].upper()}{height.name[1:]} is {{h}} then, outside its limits.",
                               (Term("h", height.after_m),)))  # fmt: skip
    return said
