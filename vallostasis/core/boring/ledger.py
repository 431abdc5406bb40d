"""The passes of a bore as they add up: dial and diameter, what the tool springs, what is to go, the next cuts.

References
----------
.. [1] Least squares through the origin: measured change over twice the dial, with its standard error.
.. [2] JCGM 100:2008 (GUM), G.3.2: Student's t for the few passes behind it.
"""

from dataclasses import dataclass
from decimal import Decimal
from math import sqrt

from scipy import special

from vallostasis.core.bores.wall import part_of_bore
from vallostasis.core.boring.passes import PassPlan, plan_passes
from vallostasis.core.notation.lengths import micrometres
from vallostasis.core.records.boring_passes import BoringPass, PassKind
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.surveys.loads import running_bore
from vallostasis.core.surveys.places import PlaceRead, places_of, sets_of_part
from vallostasis.core.surveys.survey import Survey, bore_table, survey_of
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Stated, mean_of, stated

# A diameter read at the machine repeats within this where no gauge of the bore is known. [m] House rule.
READ_WITHIN_M = 2.5e-6
# So much of the last cut is taken in one. [1] House rule.
NO_HAIR = Decimal("1.5")
# What a tool is taken to spring before it was learned, either way. [1] Common practice.
SPRING_WITHIN = 0.15
# Cuts where nobody says otherwise: the deepest a side, and the last on the diameter. [µm] Common practice.
DEEPEST_UM, LAST_UM = Decimal(200), Decimal(50)
# A dial read on the diameter takes half of what it says, one that counts double twice. [1]
HALF, DOUBLE = (0.4, 0.62), (1.7, 2.4)
_COVERS = 0.9545


@dataclass(frozen=True, slots=True)
class LedgerRow:
    """One pass in its place. [m]

    ``before_m`` is the diameter that it began at, ``expected_m`` what dial and spring say of it, ``off_m`` measured
    less expected; None where nobody read.
    """

    made: BoringPass
    before_m: float | None
    expected_m: float | None
    measured_m: float | None
    off_m: float | None


@dataclass(frozen=True, slots=True)
class Spring:
    """What a tool makes of its dial: change of the diameter over twice the dial, its ±, and from how many. [1]"""

    ratio: float
    within: float
    passes: int


@dataclass(frozen=True, slots=True)
class Ledger:
    """The passes of one hole. [m], [min]

    ``start`` is the least diameter as it was read before the first pass, at ``start_at``; ``present_m`` what it has
    now, ``is_read`` whether somebody read that; ``next`` the cuts that are left.
    """

    hole: Hole
    start: Stated | None
    start_at: str
    rows: tuple[LedgerRow, ...]
    spring: Spring | None
    present_m: float | None
    within_m: float
    is_read: bool
    to_go_m: float | None
    next: PassPlan | None
    next_dial_m: float | None
    minutes: float | None
    asks: tuple[Phrase, ...]


def spring_of(dials_m: list[float], changes_m: list[float]) -> Spring | None:
    """Learn what a tool springs from passes that were read before and after.

    Parameters
    ----------
    dials_m, changes_m : list of float
        What the dial was advanced by, a side, and the change of the diameter. [m]

    Returns
    -------
    Spring or None
        None below two passes: one says nothing of its spread.

    Notes
    -----
    Least squares through the origin [1]_, Student's t for its few degrees of freedom [2]_ of the module.
    """
    pairs = [(2 * dial, change) for dial, change in zip(dials_m, changes_m, strict=True) if dial > 0]
    if len(pairs) < 2:
        return None
    xx = sum(x * x for x, _ in pairs)
    ratio = sum(x * y for x, y in pairs) / xx
    left = sum((y - ratio * x) ** 2 for x, y in pairs)
    freedom = len(pairs) - 1
    # What two readings scatter by is in it even where so few passes agree by luck.
    spread = max(sqrt(left / freedom), sqrt(2) * READ_WITHIN_M)
    return Spring(ratio, float(special.stdtrit(freedom, (1 + _COVERS) / 2)) * spread / sqrt(xx), len(pairs))


def ledger_of(
    facts: JobFacts, hole: Hole, bored_m: float | None, deepest_um: Decimal = DEEPEST_UM, last_um: Decimal = LAST_UM
) -> Ledger:
    """Add up the passes of a hole.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.
    bored_m : float or None
        The size that it is bored to, None where its target is not known. [m]
    deepest_um, last_um : Decimal
        The deepest cut a side, and the last on the diameter. [µm]

    Returns
    -------
    Ledger
        The newest diameter that was read holds; passes since add twice their dial times the spring. [m]

    Notes
    -----
    What does not add up beyond the joint ± is asked about: a pass that is missing, a dial read on the diameter:
    house rule.
    """
    passes = [one for one in facts.standing(facts.boring_passes) if one.hole_id == hole.hole_id]
    read, read_at, read_event = _read(facts, hole)
    # What was read after the first pass is no start, and after the last one it is what the bore has now.
    start, start_at = (read, read_at)
    if passes and read_event > passes[0].event:
        start, start_at = _read_before(facts, hole, passes[0].event)
    spring = _learned(passes)
    ratio = 1.0 if spring is None else spring.ratio
    rows, size, within, is_read = _added_up(passes, start, spring)
    if passes and read is not None and read_event > passes[-1].event:
        size, within, is_read = read.value_m, read.expanded_m, True
    to_go = None if bored_m is None or size is None else bored_m - size
    # What is left within the ± of a reading is no cut any more: the next one would be a guess.
    at_its_size = is_read and to_go is not None and to_go <= within
    plan = None
    if size is not None and bored_m is not None and to_go is not None and to_go > 0 and not at_its_size:
        plan = _plan_between(size, bored_m, deepest_um, last_um)
    dial = None if plan is None or not plan.dials_um else float(plan.dials_um[0]) / 1e6 / max(ratio, 0.2)
    timed = [float(one.minutes) for one in passes if one.minutes is not None]
    return Ledger(hole, start, start_at, tuple(rows), spring, size, within, is_read, to_go, plan, dial,
                  sum(timed) / len(timed) if timed else None, tuple(_asks(rows, spring, to_go)))  # fmt: skip


def _added_up(
    passes: list[BoringPass], start: Stated | None, spring: Spring | None
) -> tuple[list[LedgerRow], float | None, float, bool]:
    """Rows of all passes, the size after the last with its ±, and whether it was read."""
    ratio = 1.0 if spring is None else spring.ratio
    rows, is_read = list[LedgerRow](), start is not None
    size, within = (None, 0.0) if start is None else (start.value_m, start.expanded_m)
    for made in passes:
        before = size
        cut = 2 * float(made.dial_um) / 1e6
        # A trial cut finds out where the tool stands: its dial begins anywhere, and says nothing before it was read.
        expected = None if before is None or made.kind is PassKind.TRIAL else before + cut * ratio
        measured = None if made.diameter_um is None else float(made.diameter_um) / 1e6
        off = None if measured is None or expected is None else measured - expected
        rows.append(LedgerRow(made, before, expected, measured, off))
        if measured is not None:
            size, within, is_read = measured, 2 * READ_WITHIN_M, True
        elif expected is not None:
            size, is_read = expected, False
            within = sqrt(within**2 + (cut * (SPRING_WITHIN if spring is None else spring.within)) ** 2)
    return rows, size, within, is_read


def _plan_between(size: float, bored_m: float, deepest_um: Decimal, last_um: Decimal) -> PassPlan:
    left_um = micrometres(bored_m) - micrometres(size)
    # A hair before the last cut corrects nothing: what is little more than the last cut is the last cut.
    last = left_um if left_um <= NO_HAIR * last_um else last_um
    return plan_passes(micrometres(size), micrometres(bored_m), deepest_um, last)


def _read(facts: JobFacts, hole: Hole) -> tuple[Stated | None, str, int]:
    """Least mean diameter of a level as it was read last, where that is, and the event of its set. [m] GUM 4.2.3.

    What a pass disturbed counts here as it stood before it.
    """
    quantity = running_bore(facts.card)
    survey = survey_of(facts, quantity, part_of_bore(facts, hole, quantity))
    return _least_level(facts, survey, survey.places if survey.disturbed is None else survey.past)


def _read_before(facts: JobFacts, hole: Hole, event: int) -> tuple[Stated | None, str]:
    """The same of what was read before an event, whatever was read since. [m] GUM 4.2.3."""
    quantity = running_bore(facts.card)
    part = part_of_bore(facts, hole, quantity)
    sets = [one for one in sets_of_part(facts, quantity, part) if one.event < event and facts.standing_readings(one)]
    if not sets:
        return None, ""
    survey = survey_of(facts, quantity, part)
    return _least_level(facts, survey, places_of(facts, quantity, part, survey.pattern, sets[-1]))[:2]


def _least_level(facts: JobFacts, survey: Survey, places: tuple[PlaceRead, ...]) -> tuple[Stated | None, str, int]:
    """The level that is least, since that is where metal begins, and the newest event of them all. [m] Least."""
    table = None if survey.relative else bore_table(survey.pattern, places)
    events = [one.event for row in places for one in row.readings]
    if table is None or not events:
        return None, "", 0
    levels = [(stated(f"bore, {name}", mean_of(there), facts.card.coverage_factor), name)
              for name, row in zip(table.names, table.cells, strict=True)
              if (there := [one for one in row if one is not None])]  # fmt: skip
    least, name = min(levels, key=lambda one: one[0].value_m)
    return least, name, max(events)


def _learned(passes: list[BoringPass]) -> Spring | None:
    """What was read right before and right after a pass teaches; a trial cut in worn metal does not."""
    dials, changes = [], []
    before: Decimal | None = None
    for made in passes:
        if before is not None and made.diameter_um is not None:
            dials.append(float(made.dial_um) / 1e6)
            changes.append(float(made.diameter_um - before) / 1e6)
        before = made.diameter_um
    return spring_of(dials, changes)


def _asks(rows: list[LedgerRow], spring: Spring | None, to_go_m: float | None) -> list[Phrase]:
    asks = []
    for at, row in enumerate(rows, 1):
        cut = 2 * float(row.made.dial_um) / 1e6
        if row.measured_m is None or row.before_m is None or cut <= 0:
            continue
        share = (row.measured_m - row.before_m) / cut
        terms = (Term("m", row.measured_m - row.before_m), Term("c", cut), Term("n", at, "count"))
        if row.measured_m < row.before_m - 4 * READ_WITHIN_M:
            asks.append(Phrase("After pass {n} the bore reads smaller than before it: a slip of the gauge, or another "
                               "depth?", terms))  # fmt: skip
        elif at > 1 and HALF[0] <= share <= HALF[1]:
            asks.append(Phrase("Pass {n} took {m} where {c} was to come: is the dial read on the diameter? A side "
                               "counts twice.", terms))  # fmt: skip
        elif at > 1 and DOUBLE[0] <= share <= DOUBLE[1]:
            asks.append(Phrase("Pass {n} took {m} where {c} was to come: does this dial count a side twice, or is a "
                               "pass missing?", terms))  # fmt: skip
        elif at > 1 and row.off_m is not None and abs(row.off_m) > _joint(cut, spring):
            asks.append(Phrase("Pass {n} does not add up by {o}: is one missing, or was the dial moved?",
                               (*terms, Term("o", abs(row.off_m)))))  # fmt: skip
    if to_go_m is not None and to_go_m < -2 * READ_WITHIN_M:
        asks.append(Phrase("It is larger than it was to be bored by {o}: the hone has that much less.",
                           (Term("o", -to_go_m),)))  # fmt: skip
    return asks


def _joint(cut_m: float, spring: Spring | None) -> float:
    """How far a pass may lie off what is expected of it: two readings and the spring. [m] GUM 5.1.2."""
    share = SPRING_WITHIN if spring is None else spring.within
    return sqrt(2 * (2 * READ_WITHIN_M) ** 2 + (cut_m * share) ** 2) + (0.0 if spring is None else 2 * READ_WITHIN_M)
