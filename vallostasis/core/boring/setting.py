"""A bar as it was set: is it in the middle of what is not worn, where is it moved, does the next hole lie where drawn.

References
----------
.. [1] JCGM 100:2008 (GUM), 4.3.7: a blade of a feeler is good to a half width.
"""

from dataclasses import dataclass

from vallostasis.core.boring.centring import Centring, centring_of
from vallostasis.core.records.bar_settings import BarSetting, BoreDatum
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Hole
from vallostasis.core.shapes.clock import hour_of_angle
from vallostasis.core.trail import Phrase, Term
from vallostasis.core.uncertainty.budget import Estimate, Source, estimate

# A blade fits within this either way. [m] Half width; common practice.
BLADE_WITHIN_M = 10e-6
# Centred by a feeler is centred to this. [m] Common practice: half a thou.
CENTRED_M = 12.7e-6
# Centre distances agree with the drawing to this. [m] Common practice: two thou.
APART_WITHIN_M = 2 * 25.4e-6


@dataclass(frozen=True, slots=True)
class SettingNow:
    """The newest setting of a hole: the bar in it, the next hole, what is to be done. [m], [h]

    ``move_hour`` is towards which clock position the bar is moved, None where it stands in the middle.
    """

    setting: BarSetting
    centring: Centring | None
    move_hour: float | None
    apart_m: float | None
    off_drawing_m: float | None
    says: tuple[Phrase, ...]


def setting_now(facts: JobFacts, hole: Hole) -> SettingNow | None:
    """Return how the bar of a hole was set last; None where nobody wrote it down. [m]

    Four gaps seen from the bar, GUM 4.3.7 [1]_ of the module; the newest setting holds: house rule.
    """
    made = [one for one in facts.standing(facts.bar_settings) if one.hole_id == hole.hole_id]
    if not made:
        return None
    now = made[-1]
    centring = _centring(now, facts.card.coverage_factor)
    centred = centring is not None and centring.offset.value_m <= CENTRED_M
    towards = None if centring is None or centred or centring.move_deg is None else hour_of_angle(centring.move_deg)
    apart = None if now.apart_um is None else float(now.apart_um) / 1e6
    off = None
    if apart is not None and now.to_hole is not None:
        off = apart - abs(now.to_hole - hole.number) * facts.card.layout.bore_pitch.metres
    return SettingNow(now, centring, towards, apart, off, tuple(_says(now, centring, centred, towards, off)))


def _centring(now: BarSetting, k: float) -> Centring | None:
    gaps = (now.gap_9_um, now.gap_12_um, now.gap_3_um, now.gap_6_um)
    if any(one is None for one in gaps):
        return None
    blades = [_blade(at, float(one) / 1e6) for at, one in enumerate(gaps) if one is not None]
    return centring_of(blades, k)


def _blade(at: int, gap_m: float) -> Estimate:
    source = Source(
        "blade of the feeler", BLADE_WITHIN_M / 3**0.5, error=("blade", at), basis="half width, rectangular"
    )
    return estimate(gap_m, (source,))


def _says(
    now: BarSetting, centring: Centring | None, centred: bool, towards: float | None, off_m: float | None
) -> list[Phrase]:
    found = []
    off = () if centring is None else (Term("o", centring.offset.value_m),
                                       Term("u", centring.offset.expanded_m, "within"))  # fmt: skip
    if centring is None:
        found.append(Phrase("Feel the gap at four clock positions: over pits the four average out, a needle falls in."))
    elif centred:
        found.append(Phrase("The bar stands in the middle: {o} ±{u} off.", off))
    elif towards is None:
        found.append(Phrase("The bar stands {o} ±{u} off, and the feelers cannot tell which way: feel again.", off))
    else:
        found.append(Phrase(f"Move the bar {{o}} ±{{u}} towards {_hour(towards)}.", off))
    if centring is not None and not centring.is_round_enough:
        found.append(Phrase("The pairs of gaps differ by {e}: the hole is not round there. Is that end unworn?",
                            (Term("e", abs(centring.uneven.value_m)),)))  # fmt: skip
    if off_m is not None and abs(off_m) > APART_WITHIN_M:
        found.append(Phrase(f"Hole {now.to_hole} lies {{d}} {'farther' if off_m > 0 else 'nearer'} than drawn: look at "
                            "the table, the drawing, the datum before a cut.", (Term("d", abs(off_m)),)))  # fmt: skip
    if now.datum is not BoreDatum.MAINS and not now.level.strip():
        found.append(Phrase("Say what the block was levelled to: level across the deck is not square to the crank."))
    return found


def _hour(hour: float) -> str:
    rounded = round(hour * 2) / 2
    return f"{rounded + 12 if rounded < 1 else rounded:g} h"
