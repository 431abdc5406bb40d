"""Worth it or not: what an option costs with the days it stands still, against what the engine is worth."""

from dataclasses import dataclass

# From that share of its worth on, it is said plainly before anything is begun. Common practice, no published source.
DOUBTFUL_SHARE, TOO_MUCH_SHARE = 0.5, 1.0
HOURS_A_DAY = 8.0


@dataclass(frozen=True, slots=True)
class Worth:
    """What an option costs the owner with the days of standing still, its share of the worth, and how to say it."""

    total: float
    share: float | None
    words: str


def worth_of(money: float, hours: float, days: float, worth: float | None, day_cost: float, currency: str) -> Worth:
    """Hold what an option costs against what the engine is worth.

    Parameters
    ----------
    money : float
        Work and parts.
    hours, days : float
        Of work and of waiting. [h], [d]
    worth : float or None
        What the engine is worth running; None where nobody said.
    day_cost : float
        What a day of standing still costs.
    currency : str
        How money is written.

    Returns
    -------
    Worth
        Money and days times their cost, a day of work of eight hours; common practice, no published source.
    """
    total = money + day_cost * (days + hours / HOURS_A_DAY)
    if worth is None or worth <= 0:
        return Worth(total, None, "")
    share = total / worth
    said = f"{total:,.0f} {currency} of an engine worth {worth:,.0f} {currency}".replace("  ", " ")
    if share >= TOO_MUCH_SHARE:
        words = f"Not worth it: {said}. Say so before anything is cut; what was measured is the owner's to keep."
    elif share >= DOUBTFUL_SHARE:
        words = f"{said}: more than half. Ask the owner before anything is begun, with the other options beside it."
    else:
        words = f"{said}: {100 * share:.0f} %."
    return Worth(total, share, words)
