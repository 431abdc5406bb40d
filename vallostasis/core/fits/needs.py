"""What a fit needs before it goes in: one sentence, and which other liner would suit the hole better."""

from dataclasses import dataclass

from vallostasis.core.features.pattern import axis_words
from vallostasis.core.fits.fit import Fit, FitLevel, fit_of, liners_for
from vallostasis.core.fits.wanted import Sizing
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.decision import State

# Another liner is named where it takes so much less metal, or leaves fewer places outside. [m] House rule.
WORTH_M = 2e-6
# So many levels are named in the sentence.
NAMED = 3


@dataclass(frozen=True, slots=True)
class BetterLiner:
    """Another liner that suits a hole better: how many places it leaves outside, what it takes off at the most. [m]"""

    mark: str
    outside: int
    takes_off_m: float


def to_take_off(fit: Fit) -> tuple[FitLevel, ...]:
    """Return the levels that have to be sized, the one with most to come off first.

    A level that is proven in is left alone, and so is one whose stock its ± swallows. House rule.
    """
    return tuple(sorted((one for one in fit.levels if is_to_be_sized(one)), key=lambda one: -_stock(one)))


def is_to_be_sized(level: FitLevel) -> bool:
    """Whether something is to come off at a level: it is not proven in, and its stock is half its ± at the least.

    House rule.
    """
    stock = level.stock
    return level.state is not State.IN and stock is not None and stock.value_m > stock.expanded_m / 2


def too_loose(fit: Fit) -> tuple[FitLevel, ...]:
    """Return the levels whose press is proven below the least. By its card."""
    return tuple(one for one in fit.levels if one.rule.decision.guarded is State.OUT and _is_below(one))


def _is_below(level: FitLevel) -> bool:
    least = level.rule.least_m
    return least is not None and level.press.value_m < least


def _stock(level: FitLevel) -> float:
    return 0.0 if level.stock is None else level.stock.value_m


def need_of_fit(facts: JobFacts, fit: Fit) -> Phrase:
    """Say what a fit needs next. [m] House rule."""
    mark, number = fit.liner.mark, fit.hole.number
    if facts.present_fitting(fit.hole.hole_id) is not None:
        return Phrase(f"Nothing: {mark} is home in hole {number}")
    if fit.state is State.READ_AGAIN:
        what = "bore" if fit.bore.disturbed is not None else "outside of the liner"
        return Phrase(f"Read the {what} again: something was done to it since")
    if fit.wanted is None:
        return Phrase("Write the press that is wanted on the card: nothing decides this fit")
    if fit.doubtful:
        return Phrase("Look at the zero that moved first: nothing is sized on readings in doubt")
    if fit.state is State.NOT_MEASURED:
        return Phrase("Read the places left of hole and liner: this fit is not known all over")
    loose = too_loose(fit)
    if loose:
        worst = min(loose, key=lambda one: one.press.value_m)
        short = (worst.rule.least_m or 0.0) - worst.press.value_m
        return Phrase(f"Try another liner: {mark} is too loose by {{short}} at {worst.name}", (Term("short", short),))
    rows = to_take_off(fit)
    if not rows and fit.state is State.CANNOT_TELL:
        within = max(level.press.expanded_m for level in fit.levels)
        return Phrase(
            f"Pull {mark} in, or settle it first: {{within}} either way leaves it open",
            (Term("within", within, "within"),),
        )
    if not rows:
        return Phrase(f"Nothing: pull {mark} in")
    verb = "Hone" if fit.sizing is Sizing.BLOCK else f"Take off liner {mark}:"
    named = rows[:NAMED]
    parts = [f"{{s{at}}} at {one.name}" if at else f"{{s{at}}} off at {one.name}" for at, one in enumerate(named)]
    less = f", less at {len(rows) - NAMED} more" if len(rows) > NAMED else ""
    terms = tuple(Term(f"s{at}", _stock(one)) for at, one in enumerate(named))
    return Phrase(f"{verb} {', '.join(parts)}{less}", terms)


def better_liner(facts: JobFacts, fit: Fit) -> BetterLiner | None:
    """Name the liner that would suit a hole better than this one; None where none does.

    Fewest places outside, then least to come off at the most; the assignment of all of them is another question.
    House rule.
    """
    own = _score(fit)
    best: tuple[tuple[int, float], str] | None = None
    for liner in liners_for(facts, fit.hole):
        if liner.mark == fit.liner.mark or facts.present_fitting(fit.hole.hole_id) is not None:
            continue
        other = fit_of(facts, fit.hole, liner.mark, None if fit.wanted is None else fit.wanted.school)
        if isinstance(other, Fit) and not other.doubtful and (best is None or _score(other) < best[0]):
            best = (_score(other), liner.mark)
    if best is None or not (best[0][0] < own[0] or (best[0][0] == own[0] and best[0][1] < own[1] - WORTH_M)):
        return None
    return BetterLiner(best[1], best[0][0], best[0][1])


def _score(fit: Fit) -> tuple[int, float]:
    places = [place for level in fit.levels for place in level.places]
    out = sum(one.rule.decision.state is State.OUT for one in places)
    stocks = [abs(one.stock.value_m) for one in places if one.stock is not None]
    return out, max(stocks, default=max(abs(one.press.value_m) for one in places))


def stripes_to_leave(fit: Fit) -> Phrase:
    """Say where sizing to the aim leaves the old stripes: places that are large enough already. [m]

    A hone opens the hole to the aim; where it is that large already its stones pass without touching. By definition.
    """
    left = [(level.name, place.axis_deg) for level in fit.levels for place in level.places
            if place.stock is not None and place.stock.value_m <= 0]  # fmt: skip
    if not left:
        return Phrase("Honed to the aim, the old stripes vanish all over.")
    by_level: dict[str, list[float]] = {}
    for name, axis in left:
        by_level.setdefault(name, []).append(axis)
    whole = {level.name: len(level.places) for level in fit.levels}
    words = [name if len(axes) == whole[name] else f"{name} ({', '.join(axis_words(axis) for axis in axes)})"
             for name, axes in by_level.items()]  # fmt: skip
    return Phrase(f"Honed to the aim, old stripes stay at {', '.join(words)}: the hole is that large already.")
