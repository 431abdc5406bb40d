"""After a liner went in: the bore read again, close-in predicted and found, and the press that this says was there.

References
----------
.. [1] JCGM 100:2008 (GUM), F.1.2.3: what the readings before and after share cancels.
"""

from dataclasses import dataclass, replace

from vallostasis.core.features.parts import part_with_key
from vallostasis.core.features.plan import pattern_of
from vallostasis.core.fits.effects import WALLS_WITHIN, FitWalls, close_in_of, press_estimate, walls_of
from vallostasis.core.fits.expected_bore import inside_before
from vallostasis.core.fits.fit import Fit, fit_of
from vallostasis.core.fits.going_in import GoingIn, expected_way_in
from vallostasis.core.fits.insertion import PULL_FRICTION
from vallostasis.core.fits.interference import between_levels
from vallostasis.core.fits.pull import PullNow, expected_at, pulls_of
from vallostasis.core.fits.pull_curve import forces_of
from vallostasis.core.fits.thick_walled import close_in_share
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.records.rows import Fitting, Hole, Quantity
from vallostasis.core.records.values import is_relative
from vallostasis.core.surveys.places import places_of, sets_of_part
from vallostasis.core.surveys.survey import bore_table
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import (
    Estimate,
    Source,
    Stated,
    difference_of,
    mean_of,
    stated,
    value_of,
    weighted,
)


@dataclass(frozen=True, slots=True)
class AfterLevel:
    """One level of a bore after its liner went in. [m]

    ``predicted`` is the close-in by the press that was read, ``found`` by the bore before less after; ``press`` what
    was read before, ``true_press`` what the close-in that was found says; ``agrees`` whether the two close-ins do.
    """

    name: str
    depth_m: float
    predicted: Stated
    found: Stated
    press: Stated
    true_press: Stated
    agrees: bool


@dataclass(frozen=True, slots=True)
class PressByForce:
    """Press that the force of a pull says, as a share of the one read [1], for the friction that was taken."""

    low: float
    middle: float
    high: float
    greatest_n: float


@dataclass(frozen=True, slots=True)
class After:
    """What is known of a fit since its liner is in.

    ``confirmed`` is whether the bore was read since: a prediction that nobody confirmed stays open.
    """

    hole: Hole
    fitting: Fitting
    levels: tuple[AfterLevel, ...]
    confirmed: bool
    inside_was_read: bool
    by_force: PressByForce | None
    says: tuple[Phrase, ...]


@once
def after_of(facts: JobFacts, hole: Hole) -> After | None:
    """Return what is known of a fit since its liner is in; None while none is, or its press was never read.

    Parameters
    ----------
    facts : JobFacts
        Everything recorded about the job.
    hole : Hole
        The hole.

    Returns
    -------
    After or None
        The first set of the bore that was read since counts: a later one may be bored or honed. [m]

    Notes
    -----
    Found = inside before less bore after, where nobody read the inside the one drawn; press by it = found over the
    share of Lamé, with what the roughness took; GUM F.1.2.3 [1]_ of the module.
    """
    fitting = facts.present_fitting(hole.hole_id)
    if fitting is None:
        return None
    mark = facts.liner(fitting.liner_id).mark
    fit = fit_of(facts, hole, mark)
    if not isinstance(fit, Fit):
        return None
    walls = walls_of(facts, fit)
    if not isinstance(walls, FitWalls):
        return None
    before, was_read = inside_before(facts, fit)
    levels = _levels(facts, hole, fit, walls, before)
    by_force = press_by_force(pulls_of(facts, hole), expected_way_in(facts, hole, mark))
    return After(hole, fitting, levels, bool(levels), was_read, by_force, _says(levels, by_force, was_read))


def _levels(
    facts: JobFacts, hole: Hole, fit: Fit, walls: FitWalls, before: tuple[list[float], list[Estimate]]
) -> tuple[AfterLevel, ...]:
    part = part_with_key(facts, Quantity.LINER_BORE, f"hole-{hole.number}")
    sets = [] if part is None else [one for one in sets_of_part(facts, Quantity.LINER_BORE, part)
                                    if facts.standing_readings(one)]  # fmt: skip
    if part is None or not sets:
        return ()
    # What is bored or honed later disturbs this set: its values stay what the press made of the bore.
    pattern = pattern_of(facts.card, Quantity.LINER_BORE)[0]
    table = bore_table(pattern, places_of(facts, Quantity.LINER_BORE, part, pattern, sets[0]))
    if table is None or is_relative(facts, sets[0]):
        return ()
    k = facts.card.coverage_factor
    depths = [level.depth_m for level in fit.levels]
    presses = [press_estimate(level) for level in fit.levels]
    found = []
    for depth, name, row in zip(table.depths_m, table.names, table.cells, strict=True):
        cells = [one for one in row if one is not None]
        if cells:
            press = between_levels(depth, depths, presses)
            closed = difference_of(between_levels(depth, *before), mean_of(cells))
            found.append(_after(walls, name, depth, press, closed, k))
    return tuple(found)


def _after(walls: FitWalls, name: str, depth: float, press: Estimate, closed: Estimate, k: float) -> AfterLevel:
    predicted = close_in_of(walls, f"close-in predicted, {name}", press, k)
    found = stated(f"close-in found, {name}", closed, k)
    share = close_in_share(walls.rings)
    net = weighted(((1 / share, closed),))
    own = Source("block taken as a ring", WALLS_WITHIN, "1", abs(value_of(net)), shared=True, error="block as a ring",
                 basis="half of what plane stress and plane strain differ by")  # fmt: skip
    true = replace(net, value_m=net.value_m + walls.lost_m, errors=dict(net.errors) | {own.error: (own, 1.0)})
    difference = abs(found.value_m - predicted.value_m)
    return AfterLevel(
        name, depth, predicted, found, stated(f"press read, {name}", press, k),
        stated(f"press by the close-in, {name}", true, k),
        bool(difference <= (found.expanded_m**2 + predicted.expanded_m**2) ** 0.5),
    )  # fmt: skip


def press_by_force(pulls: tuple[PullNow, ...], going: GoingIn | None) -> PressByForce | None:
    """Return what the force of the last pull says of the press; None where no force was read.

    Force grows as the press does, place by place; friction is known only as a range, and the share carries it. Coulomb
    and Lamé: closed form.
    """
    forces = forces_of(pulls[-1]) if pulls else ()
    if going is None or not forces:
        return None
    greatest = max(forces, key=lambda one: one.force_n)
    expected = expected_at(going, greatest.to_go_m)
    if expected.middle_n <= 0 or greatest.force_n <= 0:
        return None
    least, most = PULL_FRICTION
    middle = greatest.force_n / expected.middle_n
    mean = (least + most) / 2
    return PressByForce(middle * mean / most, middle, middle * mean / least, greatest.force_n)


def _says(levels: tuple[AfterLevel, ...], by_force: PressByForce | None, was_read: bool) -> tuple[Phrase, ...]:
    said = []
    if not levels:
        said.append(Phrase("Nobody read the bore since: what the press did is predicted, not confirmed. Read it."))
    off = [one for one in levels if not one.agrees]
    for one in off:
        less = one.found.value_m < one.predicted.value_m
        why = ("metal was shaved off, or the press was less than it was read" if less
               else "the press was more than it was read, or something squeezes the block")  # fmt: skip
        said.append(Phrase(
            f"At {one.name} the bore closed in by {{found}} where {{predicted}} was expected: {why}.",
            (Term("found", one.found.value_m), Term("predicted", one.predicted.value_m)),
        ))  # fmt: skip
    if levels and not off:
        said.append(Phrase("The close-in that was found is the one that was predicted, within what both can tell."))
    if levels and not was_read:
        said.append(Phrase("The inside was not read before it went in: its drawing stands in for it."))
    if by_force is not None and (by_force.low > 1 or by_force.high < 1):
        said.append(Phrase("The force does not fit the press that was read with any usual friction."))
    return tuple(said)
