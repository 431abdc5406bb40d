"""The fit from cold start to full load: what is left of a press, where the liner stands, how the gap goes.

The player may set both temperatures, the press and the height as often as he likes and look, then answers for one case.
"""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from vallostasis.core.fits.hot import Grows, gap_change, height_change, press_at, vanishes_at
from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import (
    Area,
    Exercise,
    Judged,
    Move,
    Offer,
    Position,
    TrapMet,
    choice,
    length,
    number,
    say,
    scored_length,
    scored_number,
    scored_word,
    shown,
)
from vallostasis.core.practice.pictures import Fact, FactsPicture, Line, PlotPicture, Spot
from vallostasis.core.practice.pictures import Level as PlotLevel
from vallostasis.core.records.temperatures import REFERENCE_C
from vallostasis.core.trail import Phrase, Step, Term

# Expansions used throughout. Common handbook values, from memory. [1/K]
PER_K = {"aluminium": 23.0e-6, "cast iron": 11.0e-6}
WITHIN_M, WITHIN_C = 5e-6, 3.0
TEMPERATURES = tuple(float(celsius) for celsius in range(-10, 141, 5))
OPENS, CLOSES = "opens", "closes"


@dataclass(frozen=True, slots=True)
class HotTruth:
    """A sleeve in an aluminium block, its neighbour, its piston; how warm they run. [nm], [°C]"""

    fit_nm: int
    press_nm: int
    stands_nm: int
    pitch_nm: int
    piston_nm: int
    block_c: int
    liner_c: int
    piston_c: int
    cold_clearance_nm: int

    @property
    def grows(self) -> Grows:
        """Iron in aluminium."""
        return Grows(PER_K["cast iron"], PER_K["aluminium"])

    @property
    def press_hot_m(self) -> float:
        """Press at running temperatures, below nought where none is left. [m] ISO 1."""
        return press_at(self.press_nm * NM, self.fit_nm * NM, self.grows, self.liner_c, self.block_c)

    @property
    def gone_at_c(self) -> float:
        """Block temperature at which the press is gone, both alike warm. [°C] ISO 1."""
        found = vanishes_at(self.press_nm * NM, self.fit_nm * NM, self.grows)
        return REFERENCE_C if found is None else found

    @property
    def sinks_m(self) -> float:
        """How far it stands hot that was skimmed flush cold. [m] ISO 1."""
        return height_change(self.stands_nm * NM, self.grows, self.liner_c, self.block_c)

    @property
    def gap_m(self) -> float:
        """How much the gap to the neighbour opens. [m] ISO 1."""
        return gap_change(self.pitch_nm * NM, self.fit_nm * NM, self.grows, self.liner_c, self.block_c)

    @property
    def clearance_m(self) -> float:
        """Clearance of an aluminium piston in the iron bore, running. [m] ISO 1."""
        bore = (self.piston_nm + self.cold_clearance_nm) * NM * (1 + PER_K["cast iron"] * (self.liner_c - REFERENCE_C))
        return bore - self.piston_nm * NM * (1 + PER_K["aluminium"] * (self.piston_c - REFERENCE_C))


def draw(of: Draws) -> HotTruth:
    """Draw a fit whose press goes, whose flush liner sinks and whose gap opens, all well beyond what would still do."""
    fit = of.whole("fit", 85_000_000, 100_000_000, 100_000)
    return HotTruth(fit, of.nm("press", 20, 45), of.whole("stands", 110_000_000, 140_000_000, 1_000_000),
                    fit + of.whole("land", 800_000, 1_600_000, 100_000),
                    fit - of.whole("wall", 6_000_000, 9_000_000, 500_000), of.whole("block", 85, 105),
                    of.whole("liner", 85, 105), of.whole("piston", 150, 190),
                    of.whole("cold", 60, 90) * 1000)  # fmt: skip


def _facts(truth: HotTruth) -> FactsPicture:
    return FactsPicture("The case", (
        Fact("iron sleeve in an aluminium block, outside", shown(truth.fit_nm * NM, "size")),
        Fact("press cold, at 20 °C", shown(truth.press_nm * NM)),
        Fact("it stands on a seat below the deck by", shown(truth.stands_nm * NM, "size")),
        Fact("to the middle of its neighbour", shown(truth.pitch_nm * NM, "size")),
        Fact("aluminium piston", shown(truth.piston_nm * NM, "size")),
        Fact("its clearance cold", shown(truth.cold_clearance_nm * NM)),
        Fact("running: block, sleeve, piston",
             say(f"{truth.block_c} °C, {truth.liner_c} °C, {truth.piston_c} °C"), "truth"),
    ))  # fmt: skip


def position(truth: HotTruth, moves: Sequence[Move]) -> Position:
    """Show the fit by temperature as it was set last. [m] House rule."""
    if moves and moves[-1].name == "answer":
        return Position(say("Answered."), (), (), ())
    looks = [move for move in moves if move.name == "look"]
    return Position(say("What of this is left when it runs?"), tuple(_said(looks)), (*_plots(looks), _facts(truth)),
                    (LOOK, ANSWER))  # fmt: skip


LOOK = Offer("look", "Look at that", (
    number("block", "Block", -10, 140, "°C", "90"), number("liner", "Sleeve", -10, 220, "°C", "90"),
    length("fit", "Outside", 0.3), length("press", "Press cold", 2e-4), length("stands", "Stands on its seat at", 0.5)),
    "Set what you like, as often as you like.")  # fmt: skip
ANSWER = Offer("answer", "That is what is left", (
    length("press", "Press running, below nought if none", 1e-3),
    number("gone", "Press gone at, block and sleeve alike", 0, 200, "°C"),
    length("flush", "Skimmed flush cold, stands hot at", 1e-3),
    choice("gap", "The gap to its neighbour, hot", (CLOSES, OPENS)),
    length("piston", "Clearance of the piston, running", 1e-3)), last=True)  # fmt: skip


def _grows() -> Grows:
    return Grows(PER_K["cast iron"], PER_K["aluminium"])


def _said(looks: Sequence[Move]) -> Iterator[Phrase]:
    for look in looks:
        fit, press = look.number("fit"), look.number("press")
        left = press_at(press, fit, _grows(), look.number("liner"), look.number("block"))
        height = height_change(look.number("stands"), _grows(), look.number("liner"), look.number("block"))
        yield say(f"block {look.number('block'):.0f} °C, sleeve {look.number('liner'):.0f} °C: {{p}} of press, "
                  "{h} of height", p=left, h=height)  # fmt: skip


def _plots(looks: Sequence[Move]) -> Iterator[PlotPicture]:
    if not looks:
        return
    look = looks[-1]
    more = look.number("liner") - look.number("block")
    fit, press, stands = look.number("fit"), look.number("press"), look.number("stands")
    left = tuple(press_at(press, fit, _grows(), celsius + more, celsius) for celsius in TEMPERATURES)
    high = tuple(height_change(stands, _grows(), celsius + more, celsius) for celsius in TEMPERATURES)
    at = look.number("block")
    yield PlotPicture("From cold start to full load", "celsius", "small", "block", "", (
        Line("press", "yours", TEMPERATURES, left), Line("height against cold", "truth", TEMPERATURES, high)),
        (Spot(at, press_at(press, fit, _grows(), at + more, at), "as set", "yours"),),
        (PlotLevel(0.0, "nothing left", "limit"),))  # fmt: skip


def judged(truth: HotTruth, moves: Sequence[Move]) -> Judged:
    """Hold what was answered against the fit at its temperatures. [m], [°C] House rule for tolerances."""
    answer = moves[-1]
    gap = OPENS if truth.gap_m > 0 else CLOSES
    scored = (
        scored_length("press running", "press, running", answer.number("press"), truth.press_hot_m, WITHIN_M),
        scored_number(
            "press gone at", "press gone at", answer.number("gone"), round(truth.gone_at_c, 1), WITHIN_C, "°C"
        ),
        scored_length("flush when hot", "skimmed flush, hot", answer.number("flush"), truth.sinks_m, WITHIN_M),
        scored_word("gap when hot", "the gap, hot", answer.word("gap"), gap),
        scored_length(
            "piston running", "piston's clearance, running", answer.number("piston"), truth.clearance_m, WITHIN_M
        ),
    )
    missed = [one.name for one in scored if not one.is_full]
    head = say("All of it as it runs.") if not missed else say(f"Cold it looks otherwise: {missed[0]}.")
    left = tuple(press_at(truth.press_nm * NM, truth.fit_nm * NM, truth.grows, celsius, celsius)
                 for celsius in TEMPERATURES)  # fmt: skip
    plot = PlotPicture(
        "What is left of the press",
        "celsius",
        "small",
        "block and sleeve",
        "press",
        (Line("truth", "truth", TEMPERATURES, left),),
        (Spot(truth.gone_at_c, 0.0, "gone", "wrong"),),
        (PlotLevel(0.0, "nothing left", "limit"),),
    )
    steps = (
        Step("press running", "liner·(1 + α·ΔT) − hole·(1 + α·ΔT)", (Term("press", truth.press_nm * NM),),
             Term("left", truth.press_hot_m), "free expansion, ISO 1"),
        Step("flush, hot", "seat·(α_liner·ΔT − α_block·ΔT)", (Term("seat", truth.stands_nm * NM, "size"),),
             Term("stands", truth.sinks_m), "free expansion, ISO 1"),
        Step("gap", "pitch·α_block·ΔT − outside·α_liner·ΔT", (Term("pitch", truth.pitch_nm * NM, "size"),),
             Term("opens", truth.gap_m), "free expansion, ISO 1"),
    )  # fmt: skip
    return Judged(head, scored, tuple(_traps(truth, answer, len(moves) - 1)), (plot,), steps)


def _traps(truth: HotTruth, answer: Move, end: int) -> Iterator[TrapMet]:
    if abs(answer.number("press") - truth.press_nm * NM) <= WITHIN_M:
        yield TrapMet("T7", end, say("Cold it presses {c}; running {h}: something else must hold it then.",
                                     c=truth.press_nm * NM, h=truth.press_hot_m))  # fmt: skip
    if abs(answer.number("flush")) <= WITHIN_M:
        yield TrapMet("T9", end, say("Flush cold stands {h} hot: the block grows past it.", h=truth.sinks_m))
    if answer.word("gap") == CLOSES and truth.gap_m > 0:
        yield TrapMet(
            "T14",
            end,
            say(
                "The block carries the neighbour away: the gap opens by {g}. It closes only where "
                "the sleeves run far hotter than the block.",
                g=truth.gap_m,
            ),
        )
    if abs(answer.number("piston") - truth.cold_clearance_nm * NM) <= WITHIN_M:
        yield TrapMet("T47", end, say("Aluminium in iron loses clearance: {c} cold is {h} running.",
                                      c=truth.cold_clearance_nm * NM, h=truth.clearance_m))  # fmt: skip


HOT_FIT = Exercise(
    "hot-fit", Area.FIT, "Hot fit explorer",
    "A sleeve, its neighbour and its piston, from cold start to full load. Set temperatures and look as often as you "
    "like; then say for the case on the sheet what is left of press, height, gap and clearance.", 6,
    ("press running", "press gone at", "flush when hot", "gap when hot", "piston running"),
    ("T7", "T9", "T14", "T47"), draw, position, judged,
)  # fmt: skip
