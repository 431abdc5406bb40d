"""Questions that shops answer differently: both sides with their reason, and what would settle it.

All of it is common practice, no published source. The first side of a question holds where nobody chose.
"""

from dataclasses import dataclass

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.spec_card import (
    CONSTRUCTIONS_WITH_LEDGE,
    CONSTRUCTIONS_WITH_PROTRUSION,
    UNLINED,
    Construction,
    SpecCard,
)

DRY = (Construction.DRY_FLANGED, Construction.DRY_PLAIN)
LINED = tuple(one for one in Construction if one not in UNLINED)


@dataclass(frozen=True, slots=True)
class Side:
    """One answer to a question, and why those who give it do."""

    name: str
    reason: str


@dataclass(frozen=True, slots=True)
class School:
    """A question in dispute, its two or more sides, what would settle it, and the constructions it arises for."""

    question: str
    title: str
    sides: tuple[Side, ...]
    settled_by: str
    constructions: tuple[Construction, ...]

    def side(self, name: str) -> Side | None:
        """Return the side of that name, or None."""
        return next((one for one in self.sides if one.name == name), None)


GETTING_IN, HEAT, COLD = "getting in", "heat and cold", "press cold"
DECK_ORDER, DECK_BEFORE, DECK_AFTER = "deck order", "deck before honing", "deck after honing"
MAINS, MAINS_LAST, MAINS_FIRST, MAINS_BOTH = "mains", "mains last", "mains first", "mains first and last"
SIZING, SIZE_BLOCK, SIZE_SLEEVE = "sizing", "size the block", "size the sleeve"
WHICH_HOLES, ONLY_OUTSIDE, ALL_HOLES = "which holes", "cut only those outside", "cut all to one depth"
PLATE, WITH_PLATE, NO_PLATE = "plate", "hone under a plate", "hone without"
CAPS, ALL_CAPS, FIXTURE_CAPS = "caps", "all caps torqued", "those the fixture needs"
SUNK, CUT_AND_SHIM, INSERT, DECK_IT = "sunk liner", "cut and shim", "repair insert", "deck the block"
HEIGHT, TO_HEIGHT, LEFT_PROUD = "liner height", "fitted to height", "left proud, decked after"
PRESS, LIGHT, FIRM = "press", "light press", "firm press"
SEAT_BORE, AS_FOUND, BORED = "sleeve seat", "bore kept as found", "block bored for sleeves"
SLEEVES, LEFT_SMALL, FINISHED = "sleeves", "left small, bored in place", "finished sleeves"
STONES, WET, DRY_STONES = "stones", "wet honing", "dry honing"
COMPOUND, NO_COMPOUND, WITH_COMPOUND = "compound", "fitted dry", "retaining compound"
FINISH, HONED, BORED_FINISH = "finish", "hone and cross-hatch", "bored finish is enough"
SECOND, ONE_PERSON, TWO_PERSONS = "irreversible steps", "one person", "a second person looks"

SCHOOLS: tuple[School, ...] = (
    School(
        GETTING_IN, "Getting the liner in",
        (Side(COLD, "Nothing shrinks back: what is home is home, and compound sets as it should."),
         Side(HEAT, "No force, no scored bore: the liner drops in. It must be held until all is at room temperature.")),
        "Heights read cold right after and a day later, on both ways: do they differ?", LINED,
    ),
    School(
        DECK_ORDER, "Deck and hone",
        (Side(DECK_BEFORE, "The plate sits on the face that the head will sit on."),
         Side(DECK_AFTER, "The plate pulls liners that stand proud down evenly; the face is cut last of all.")),
        "One bore read under the plate before and after decking.", LINED,
    ),
    School(
        MAINS, "Main bores",
        (Side(MAINS_LAST, "Pressing and boring move the block: what is checked before is not what runs."),
         Side(MAINS_FIRST, "Everything else is set up from the crank line: it has to be right first."),
         Side(MAINS_BOTH, "Read before and after, the difference shows what the work did.")),
        "Main bores read before and after the liners went in.", tuple(Construction),
    ),
    School(
        SIZING, "Dry sleeve and block",
        (Side(SIZE_BLOCK, "The sleeve comes ground; the block bore is honed to it, level by level."),
         Side(SIZE_SLEEVE, "The block is left alone: sleeves are exchanged until one fits, or reground.")),
        "Outsides and bores read level by level: does any pairing fit?", DRY,
    ),
    School(
        PRESS, "Press of a dry sleeve",
        (Side(LIGHT, "It starts by hand, closes the bore little, and comes out again without a scored hole."),
         Side(FIRM, "More of the wall touches, so heat goes out; it closes the bore more and wants a press.")),
        "The bore read before and after fitting, and what the pull took.", DRY,
    ),
    School(
        SEAT_BORE, "Bore for the sleeve",
        (Side(AS_FOUND, "The bore was made for a sleeve: boring it again wants a thicker one."),
         Side(BORED, "Only a fresh bore is round and square to the crank.")),
        "Out of round and taper of the bore as found against what a sleeve bears.", DRY,
    ),
    School(
        SLEEVES, "Sleeve bores",
        (Side(LEFT_SMALL, "What pressing does to the bore is bored and honed out in place."),
         Side(FINISHED, "Nothing is cut that need not be: the bore is only honed where it closed in.")),
        "The bore read before and after fitting.", DRY,
    ),
    School(
        SUNK, "A liner that stands too low",
        (Side(CUT_AND_SHIM, "Only the hole that is low is touched."),
         Side(INSERT, "The ledge is made anew: for one that has little left."),
         Side(DECK_IT, "Last resort: every hole, injectors and pistons change with it.")),
        "Ledge left after the cut against the least of the card.", CONSTRUCTIONS_WITH_LEDGE,
    ),
    School(
        WHICH_HOLES, "Which holes are cut",
        (Side(ONLY_OUTSIDE, "What is in is left alone."),
         Side(ALL_HOLES, "One set-up, one depth, one shim: all alike under one head.")),
        "Differences between neighbours, before and predicted after.", CONSTRUCTIONS_WITH_LEDGE,
    ),
    School(
        HEIGHT, "Liner height",
        (Side(TO_HEIGHT, "Protrusion comes from ledge, flange and shim."),
         Side(LEFT_PROUD, "Fitted high on purpose, then decked to one face.")),
        "The height the card asks for against what the parts give.", CONSTRUCTIONS_WITH_PROTRUSION,
    ),
    School(
        CAPS, "Main caps while boring and honing",
        (Side(ALL_CAPS, "Some blocks distort with the caps off."),
         Side(FIXTURE_CAPS, "Only what holds the fixture: quicker, and enough in a stiff block.")),
        "One bore read with all caps torqued and with few.", tuple(Construction),
    ),
    School(
        PLATE, "Torque plate",
        (Side(WITH_PLATE, "What counts is the shape under the head."),
         Side(NO_PLATE, "A stiff old block hardly moves, and there is no plate for it.")),
        "One bore read free and under a plate with the real gasket and fasteners.", tuple(Construction),
    ),
    School(
        STONES, "Honing",
        (Side(WET, "Cool, clean stones, no dust."),
         Side(DRY_STONES, "Quicker to set up; a dust mask is a must, and the bore runs warm.")),
        "Stock taken per stroke, from the log of each.", tuple(Construction),
    ),
    School(
        FINISH, "Finish of a slow cylinder",
        (Side(HONED, "Rings bed on a cross-hatch."),
         Side(BORED_FINISH, "At low pressure a bored finish wears in by itself.")),
        "What the card or the maker's book asks for.", (Construction.PARENT_BORE,),
    ),
    School(
        COMPOUND, "Retaining compound",
        (Side(NO_COMPOUND, "Press alone holds it, and it comes out again."),
         Side(WITH_COMPOUND, "On the liner above the seat, never in the hole; cured before it is loaded.")),
        "Press by level against what holds it when hot.", LINED,
    ),
    School(
        SECOND, "Steps that cannot be undone",
        (Side(ONE_PERSON, "Who does the work answers for it."),
         Side(TWO_PERSONS, "A second pair of eyes looks over figures and set-up before it is done.")),
        "What slips in this shop were found, and by whom.", tuple(Construction),
    ),
)  # fmt: skip


def schools_of(card: SpecCard) -> tuple[School, ...]:
    """Return the questions that arise for a construction. House rule."""
    return tuple(one for one in SCHOOLS if card.construction in one.constructions)


def school_of(question: str) -> School | None:
    """Return the question of that name, or None."""
    return next((one for one in SCHOOLS if one.question == question), None)


def side_of(facts: JobFacts, question: str) -> str:
    """Return the side that a job follows: its own choice, else the first. House rule."""
    school = school_of(question)
    assert school is not None
    chosen = facts.schools.get(question)
    known = None if chosen is None else school.side(chosen.side)
    return school.sides[0].name if known is None else known.name
