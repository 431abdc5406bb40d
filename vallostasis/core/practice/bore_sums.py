"""Sums round a bore, and what a gauge can tell at all."""

from vallostasis.core.deck.volume import swept
from vallostasis.core.practice.draws import NM, Draws
from vallostasis.core.practice.exercise import Area, say, shown
from vallostasis.core.practice.pictures import Fact
from vallostasis.core.practice.slips import Asked, Slip, Slips, Wrong, slips_exercise
from vallostasis.core.trail import Phrase, Step, Term

THOU, PI = 25_400, 3.141592653589793


def draw_bores(of: Draws) -> Slips:
    """Draw six sums whose usual slip shows by more than three times what would still do. House rule."""
    return Slips((_mark(of), _wall(of), _feeler(of), _gap(of), _stock(of), _litres(of)))


def _mark(of: Draws) -> Slip:
    to_go = of.whole("to go", 2, 4) * THOU
    deep = to_go // 2 + of.whole("deeper", 8, 20) * 1_000
    wrong = Wrong("T35", "it cleans up", say("A mark {d} deep wants {n} on the diameter; {g} is left.", d=deep * NM,
                                             n=2 * deep * NM, g=to_go * NM))  # fmt: skip
    facts = (Fact("left to take on the diameter", shown(to_go * NM)), Fact("the mark is as deep as", shown(deep * NM)))
    return Slip(
        say("Does the mark clean up in what is left?"),
        facts,
        (Asked("marks left", "mark", "The mark", "it stays", choices=("it cleans up", "it stays"), wrong=(wrong,)),),
    )


def _wall(of: Draws) -> Slip:
    wall, least = of.whole("wall", 60, 70) * 100_000, of.whole("least", 45, 50) * 100_000
    over = of.whole("over", 30, 50) * THOU
    right = wall - over // 2
    step = Step("least wall after", "wall − oversize/2", (Term("wall", wall * NM, "size"), Term("oversize", over * NM)),
                Term("wall", right * NM, "size"), "by definition")  # fmt: skip
    wrong = Wrong("T21", (wall - over) * NM, say("An oversize stands on the diameter: half of it comes off the wall."))
    facts = (Fact("thinnest wall", shown(wall * NM, "size")), Fact("the next oversize", shown(over * NM)),
             Fact("it may be as thin as", shown(least * NM, "size")))  # fmt: skip
    return Slip(say("How thin is the wall after that, bored on its centre?"), facts, (
        Asked("wall and diameter", "wall", "Thinnest wall", right * NM, 2e-5, wrong=(wrong,), shown_as="size"),),
        steps=(step,))  # fmt: skip


def _feeler(of: Draws) -> Slip:
    bore = of.whole("bore", 85_000_000, 98_000_000, 250_000)
    skirt = bore - of.whole("clearance", 90, 130) * 1_000
    blade = (bore - skirt) // 2 + of.whole("blade", -6, 6) * 1_000
    facts = (Fact("bore", shown(bore * NM, "size")), Fact("skirt", shown(skirt * NM, "size")),
             Fact("blade that goes in, the piston standing free in the middle", shown(blade * NM)))  # fmt: skip
    wrong = Wrong("T16", blade * NM, say("Beside a piston in the middle a blade meets one side of the gap: bore less "
                                         "skirt is {c}.", c=(bore - skirt) * NM))  # fmt: skip
    return Slip(
        say("What is the clearance?"),
        facts,
        (Asked("feeler beside a skirt", "clearance", "Clearance", (bore - skirt) * NM, 6e-6, wrong=(wrong,)),),
    )


def _gap(of: Draws) -> Slip:
    gap, more = of.whole("gap", 300, 420) * 1_000, of.whole("more", 50, 70) * 1_000
    right = gap + PI * more
    step = Step("ring gap", "gap + π·more", (Term("gap", gap * NM), Term("more", more * NM)), Term("gap", right * NM),
                "by definition")  # fmt: skip
    wrong = Wrong("T45", gap * NM, say("Gapped before the bore was done: {m} more on the diameter opens it by {o}.",
                                       m=more * NM, o=PI * more * NM))  # fmt: skip
    facts = (
        Fact("gapped in this bore to", shown(gap * NM)),
        Fact("then honed further, on the diameter", shown(more * NM)),
    )
    return Slip(say("What is the gap now?"), facts, (
        Asked("ring gap", "gap", "Gap", right * NM, 1.5e-5, wrong=(wrong,)),), steps=(step,))  # fmt: skip


def _stock(of: Draws) -> Slip:
    size = of.whole("size", 100_000_000, 105_000_000, 250_000)
    reads = (of.nm("first", 50, 60), of.nm("second", 90, 100))
    facts = (
        Fact("finished size of both", shown(size * NM, "size")),
        Fact("bore 1 is under it by", shown(reads[0] * NM)),
        Fact("bore 2 is under it by", shown(reads[1] * NM)),
        Fact("bore 1 took", say("{s} strokes".replace("{s}", str(reads[0] // 500)))),
    )
    right = round(reads[1] / 500)
    wrong = Wrong("T57", float(reads[0] // 500), say("Equal targets are not equal stock: bore 2 has {m} more to go.",
                                                    m=(reads[1] - reads[0]) * NM))  # fmt: skip
    return Slip(say("How many strokes for bore 2, with the same stones?"), facts, (
        Asked("stock of each bore", "strokes", "Strokes", float(right), 6.0, "strokes", wrong=(wrong,)),))  # fmt: skip


def _litres(of: Draws) -> Slip:
    bore, stroke, cylinders = of.whole("b", 88, 104), of.whole("s", 90, 110), of.pick("c", (4, 6))
    volume = swept(cylinders, bore / 1000, stroke / 1000)
    card = round(volume.cm3 / 1000 * of.pick("off", (1.09, 0.91)), 2)
    facts = (Fact("bore and stroke", say(f"{bore} mm by {stroke} mm, {cylinders} cylinders")),
             Fact("the sheet says", say(f"{card:.2f} litres")))  # fmt: skip
    wrong = Wrong("T12", round(card * 61.0237, 1), say(f"Bore and stroke make {volume.cm3 / 1000:.2f} litres, not "
                                                       f"{card:.2f}: one of the two is another engine's."))  # fmt: skip
    step = Step("swept", "n·π/4·d²·s", (Term("n", cylinders, "count"),), Term("in³", volume.cubic_inches, "count"),
                "by definition")  # fmt: skip
    return Slip(say("How many cubic inches is it?"), facts, (
        Asked("litres and inches", "volume", "Swept", volume.cubic_inches, 1.5, "in³", wrong=(wrong,)),),
        steps=(step,))  # fmt: skip


BORE_SUMS = slips_exercise(
    "bore-sums", Area.BORE, "Sums round a bore",
    "Six short sums that go wrong by half, by twice or by π: a mark that is left, a wall, a feeler beside a skirt, a "
    "ring gap, stock, litres.", 5, draw_bores,
)  # fmt: skip


def draw_gauges(of: Draws) -> Slips:
    """Draw four questions of what a gauge can tell. House rule."""
    return Slips((_capable(of), _warm(of), _two_shops(of), _stripes_of_size(of)))


def _capable(of: Draws) -> Slip:
    window = of.whole("window", 5, 7) * THOU // 2
    coarse, fine = THOU, 2_540
    facts = (
        Fact("the card allows from least to greatest", shown(window * NM)),
        Fact("gauge A", say("divisions of {d}", d=coarse * NM)),
        Fact("gauge B", say("divisions of {d}", d=fine * NM)),
    )
    wrong = Wrong("T26", "gauge A", say("Divisions of {d} on a window of {w} leave next to nothing that is surely in.",
                                        d=coarse * NM, w=window * NM))  # fmt: skip
    return Slip(say("With which do you judge it?"), facts, (
        Asked("the gauge for the window", "gauge", "Judge with", "gauge B", choices=("gauge A", "gauge B"),
              wrong=(wrong,)),))  # fmt: skip


def _warm(of: Draws) -> Slip:
    size, warm = of.whole("size", 95_000_000, 115_000_000, 500_000), of.whole("warm", 14, 24)
    reads, per_k = of.nm("reads", 20, 40), 11.0e-6
    grows = size * NM * per_k * warm
    right = reads * NM - grows
    step = Step("cold", "read − size·α·ΔT", (Term("read", reads * NM), Term("ΔT", warm, "count", "K")),
                Term("cold", right), "free expansion, ISO 1")  # fmt: skip
    wrong = Wrong("T39", reads * NM, say("Warm by {t} K it reads {g} large.".replace("{t}", str(warm)), g=grows))
    facts = (Fact("iron bore, set size", shown(size * NM, "size")),
             Fact("it reads over the set size", shown(reads * NM)),
             Fact("the bore is warmer than the ring by", say(f"{warm} K")))  # fmt: skip
    return Slip(
        say("What is it over the set size when cold?"),
        facts,
        (Asked("warm bores", "cold", "Cold, over the set size", right, 3e-6, wrong=(wrong,)),),
        steps=(step,),
    )


def _two_shops(of: Draws) -> Slip:
    off, ours = of.nm("off", 14, 22), of.nm("ours", 30, 60)
    theirs = ours + off
    facts = (
        Fact("our gauge, on our ring, says of the liner", shown(ours * NM)),
        Fact("the other shop, on its own ring", shown(theirs * NM)),
        Fact("the ring that travelled: ours reads it at, theirs at", say("{a} and {b}", a=0.0, b=off * NM)),
    )
    wrong = Wrong("T58", off * NM, say("The rings differ by {o}: brought to one master the two agree.", o=off * NM))
    return Slip(say("By how much do the two shops differ about this liner, on one master?"), facts, (
        Asked("one master", "differ", "Differ by", 0.0, 4e-6, wrong=(wrong,)),))  # fmt: skip


def _stripes_of_size(of: Draws) -> Slip:
    low, wide = of.whole("low", 50, 60), of.whole("wide", 12, 16)
    size_mm = low + wide / 1000
    read = of.nm("read", 12, 20)
    facts = (Fact("main bore, low limit", Phrase("{l}", (Term("l", low / 1000, "size"),))),
             Fact("the gauge was set on the middle of the limits, above the low by", shown(wide * 500 * NM)),
             Fact("it reads", shown(read * NM)))  # fmt: skip
    right = read * NM + wide * 500 * NM
    wrong = Wrong("T18", read * NM, say("So much over the middle of the limits, not over the low one."))
    return Slip(say("How far over the low limit is it?"), facts, (
        Asked("over which size", "over", "Over the low limit", right, 1.8e-6, wrong=(wrong,)),),
        title=f"Main bore {size_mm:.3f} mm at the most")  # fmt: skip


GAUGE_SUMS = slips_exercise(
    "what-a-gauge-tells",
    Area.MEASURE,
    "What a gauge can tell",
    "Four short questions: the gauge for a window, a bore that is warm, two shops without a common ring, and over "
    "which size.",
    3,
    draw_gauges,
)
