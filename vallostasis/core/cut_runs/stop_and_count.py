"""Where count and stop of a run do not say the same: which of them, and what either would mean."""

from dataclasses import dataclass

from vallostasis.core.cut_runs.run import RunNow
from vallostasis.core.notation.lengths import metres
from vallostasis.core.trail import Phrase, Term


@dataclass(frozen=True, slots=True)
class StopAndCount:
    """Whether count and stop agree, and each thing that may be behind it where they do not. [m]"""

    agree: bool
    says: Phrase
    may_be: tuple[Phrase, ...]


def stop_and_count(now: RunNow, stop_reached: bool) -> StopAndCount:
    """Hold the stop of the cutter against the count of passes.

    Parameters
    ----------
    now : RunNow
        The run. [µm]
    stop_reached : bool
        Whether the cutter stands on its stop.

    Returns
    -------
    StopAndCount
        With what it would mean for the depth. [m]

    Notes
    -----
    A pass not tapped, a stop set shallow or a collar that slipped reach the stop too soon; a tap too many or a stop set
    deep do not reach it: common practice, no published source.
    """
    left = Term("d", metres(now.to_go_um))
    if stop_reached and now.passes_left > 0:
        return StopAndCount(
            agree=False,
            says=Phrase(
                f"The stop is reached after {now.count} of {now.of} passes: {{d}} too soon by the count.", (left,)
            ),
            may_be=(
                Phrase(f"{now.passes_left} passes were not tapped: the depth is right, read it."),
                Phrase("The stop was set shallow, or the collar slipped up: the ledge is {d} short.", (left,)),
            ),
        )
    if not stop_reached and now.passes_left == 0:
        step = Term("g", metres(now.run.graduation_um))
        return StopAndCount(
            agree=False,
            says=Phrase(f"All {now.count} passes are counted, and the stop is not reached."),
            may_be=(
                Phrase("A pass was tapped that was not cut: {g} or more are still to go.", (step,)),
                Phrase("The stop was set deep, or the collar slipped down: do not turn on, read the depth first."),
            ),
        )
    return StopAndCount(True, Phrase("Count and stop say the same."), ())
