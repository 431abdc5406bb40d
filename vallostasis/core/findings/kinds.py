"""What can be written down of an engine that is stripped: words to choose from, figures that can be read.

All of it is common practice, no published source.
"""

from dataclasses import dataclass
from decimal import Decimal

from vallostasis.core.errors import NotationError, Suggestion
from vallostasis.core.notation.lengths import Unit
from vallostasis.core.notation.numbers_said import refuse_vague, take_number
from vallostasis.core.notation.typed_lengths import ExpectedRange, parse_length
from vallostasis.core.records.route_marks import FindingKind

PERCENT = "%"


@dataclass(frozen=True, slots=True)
class FindingForm:
    """How a kind of finding is written down.

    ``parts`` and ``words`` are offered, others can be typed; ``unit`` is that of its figure, empty where it has none, a
    length in µm where it is "mm"; ``sound`` is the word that says nothing is wrong. One that ``lies`` somewhere has a
    clock position, and may have a distance from the edge of the counterbore, an end and a width.
    """

    kind: FindingKind
    parts: tuple[str, ...]
    words: tuple[str, ...]
    unit: str = ""
    usual: ExpectedRange | None = None
    figure: str = ""
    of_hole: bool = True
    sound: str = ""
    lies: bool = False


FORMS: dict[FindingKind, FindingForm] = {
    form.kind: form
    for form in (
        FindingForm(
            FindingKind.CONDITION, ("liner", "bore", "piston", "ledge", "deck", "main bearing", "seal land"),
            ("sound", "score that catches a nail", "pitted", "cavitation", "scuffed", "cracked", "worn one-sided",
             "corroded", "stands low", "loose"), sound="sound",
        ),
        FindingForm(
            FindingKind.GASKET, ("head gasket", "fire ring", "lower seals", "spacer"),
            ("sound", "carbon passing", "burnt through", "coolant passing", "hardened", "torn in taking off"),
            sound="sound",
        ),
        FindingForm(
            FindingKind.SYMPTOM, ("coolant", "oil", "power", "smoke", "noise", "heat"),
            ("lost between head and block", "in the oil", "low on one hole", "blue under load", "knock when cold",
             "runs hot", "scuffed piston", "burnt fire ring"), of_hole=False,
        ),
        FindingForm(
            FindingKind.PRIOR_WORK, ("liner", "block", "deck", "mains", "pistons"),
            ("sleeved before", "bonded or with compound", "decked before", "shimmed before", "seized before",
             "oversize stamped", "welded"), of_hole=False,
        ),
        FindingForm(FindingKind.LEAK_DOWN, ("cylinder",), ("past the rings", "past a valve", "into the coolant"),
                    PERCENT, ExpectedRange(Decimal(0), Decimal(100)), "leak-down"),
        FindingForm(
            FindingKind.RING, ("top ring", "second ring", "oil ring", "bronze-band ring"),
            ("springy", "weak", "broken", "stuck"), "mm", ExpectedRange(Decimal(500), Decimal(60_000)),
            "free gap", sound="springy",
        ),
        FindingForm(
            FindingKind.STUD_HOLE, ("stud hole",),
            ("blind", "through to water, sealed", "through to water, not sealed", "pulled thread"), "mm",
            ExpectedRange(Decimal(2_000), Decimal(300_000)), "depth", sound="blind",
        ),
        FindingForm(
            FindingKind.MARK, ("deck", "ledge"), ("pit", "score", "fire-ring mark"), "mm",
            ExpectedRange(Decimal(5), Decimal(3_000)), "depth", lies=True,
        ),
        FindingForm(
            FindingKind.WEAR, ("ledge", "under the flange", "liner below the flange"),
            ("worn ring", "worn under the flange", "cavitation line", "fretted"), "mm",
            ExpectedRange(Decimal(5), Decimal(3_000)), "depth", lies=True,
        ),
        FindingForm(
            FindingKind.WALL, ("bore",),
            ("score", "pitted area", "scuffed downwards", "scuffed upwards", "cavitation line", "water mark",
             "stripe left", "dark area", "bright area"), "mm",
            ExpectedRange(Decimal(1), Decimal(3_000)), "depth", lies=True,
        ),
        FindingForm(
            FindingKind.FEEL, ("bore",),
            ("nail glides over it", "needle dances", "needle hangs", "sounds dull", "sounds rough",
             "pushes evenly", "pushes tight, then free"), lies=True,
        ),
    )
}  # fmt: skip


def read_figure(kind: FindingKind, text: str, bare_unit: Unit, confirmed: bool) -> Decimal | None:
    """Read the figure of a finding: percent of a leak-down, a length in µm; None where nothing was typed.

    Raises
    ------
    NotationError
        If it is not understood, or no such thing measures so much. By the unit of the kind.
    """
    form = FORMS[kind]
    if not text.strip():
        return None
    if not form.unit:
        raise NotationError(f"A {kind.value} has no figure: write it as words.", text)
    if form.unit != PERCENT:
        return parse_length(text, bare_unit, form.usual, confirmed).value_um
    number = text.strip().casefold().removesuffix("%").removesuffix("percent").strip()
    refuse_vague(number)
    value, rest = take_number(number, text)
    if rest.strip():
        raise NotationError(f"“{rest.strip()}” is not understood: type percent, such as 12 %.", rest)
    assert form.usual is not None
    if not form.usual.least_um <= value <= form.usual.greatest_um:
        raise NotationError("A leak-down lies between 0 and 100 %: type what the gauge showed.", text,
                            (Suggestion("100 %", "100"),) if value > 100 else ())  # fmt: skip
    return value
