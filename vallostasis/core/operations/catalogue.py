"""The catalogue of operations: everything about an operation that is a fact of its kind stands in its row here.

Hours, cautions and risks are common practice, no published source, until a shop's own log replaces them.
"""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.records.calendar import Machine
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Quantity


class Scope(StrEnum):
    """Whether an operation is of the block or of each hole."""

    BLOCK = "block"
    HOLE = "hole"


@dataclass(frozen=True, slots=True)
class Disturbance:
    """What an operation does to results read before it: those of its own hole, or wherever they are on the block.

    ``spares`` is a word in the load of a set that was read as the operation leaves things: it stays what it was.
    """

    quantities: tuple[Quantity, ...]
    own_hole: bool = False
    spares: str = ""


@dataclass(frozen=True, slots=True)
class OperationKind:
    """One operation.

    Parameters
    ----------
    operation : Operation
        Its name in records and addresses.
    title, short : str
        How it is called, and how it is called on the rule.
    scope : Scope
        Of the block or of each hole.
    hours : float
        Planned, of each hole where that is its scope. [h]
    after : tuple of Operation
        What has to be done first, where the route has it.
    disturbs : tuple of Disturbance
        Results that it makes to be read again.
    proves : tuple of Quantity
        Features that show that it is done.
    by_hand : bool
        It leaves no trace of its own, or none that is enough, and is marked by hand.
    irreversible : bool
        It cannot be undone: what is predicted stands beside it before it is done.
    asks : str
        What is to be written beside the mark.
    counts : str
        What is counted with the mark; empty where nothing is.
    caution, risks : tuple of str
        What can hurt at this step, and what goes wrong most often.
    machine : Machine or None
        What it is done on, where only so many blocks can stand at one.
    setup_h : float
        What of its hours is setting up, which the next block of its kind is spared. [h]
    """

    operation: Operation
    title: str
    short: str
    scope: Scope
    hours: float
    after: tuple[Operation, ...] = ()
    disturbs: tuple[Disturbance, ...] = ()
    proves: tuple[Quantity, ...] = ()
    by_hand: bool = False
    irreversible: bool = False
    asks: str = ""
    counts: str = ""
    caution: tuple[str, ...] = ()
    risks: tuple[str, ...] = ()
    machine: Machine | None = None
    setup_h: float = 0.0


_O, _Q = Operation, Quantity
_BORES = (_Q.BLOCK_BORE, _Q.LINER_BORE)
_MAINS = (_Q.MAIN_BORE, _Q.MAIN_LINE)
_WALLS = (_Q.WEAR_STEP, _Q.WALL_THICKNESS)
LIFTING = "Block and liners are heavy: lift with tested gear, nobody under the load."
AIR = "Compressed air drives chips into eyes and skin: glasses on, low pressure, nobody in front of it."
SWARF = "Swarf cuts and iron dust harms lungs and bearings: brush and vacuum, never by hand or mouth."
SOLVENT = "Solvent: air the room, gloves on, no flame or hot oven near it."
GASKETS = (
    "Old gaskets may hold asbestos: wet, by hand, no wheel, and bagged. Local rules and licensed practice come first."
)

OPERATIONS: dict[Operation, OperationKind] = {
    kind.operation: kind
    for kind in (
        OperationKind(_O.TAKE_IN, "Take in", "Take in", Scope.BLOCK, 0.5, caution=(LIFTING,),
                      risks=("the complaint is written down in fewer words than the customer used",)),
        OperationKind(
            _O.STRIP, "Strip and look", "Strip", Scope.BLOCK, 1.5, (_O.TAKE_IN,), by_hand=True,
            asks="what was found that has no line of its own", caution=(GASKETS, LIFTING),
            risks=("a gasket thrown away unread tells nothing any more", "parts leave their holes unmarked"),
        ),
        OperationKind(
            _O.CAPS, "Main caps on and torqued", "Caps on", Scope.BLOCK, 0.5, (_O.STRIP,),
            (Disturbance((*_BORES, *_MAINS), spares="caps torqued"),), by_hand=True, asks="torque and bolts used",
            caution=("Torque reaction: block held, bar clear of fingers.",),
            risks=("bores read with the caps off are not the bores that will run",),
        ),
        OperationKind(
            _O.MEASURE, "Measure as found", "As found", Scope.BLOCK, 2.5, (_O.STRIP,),
            risks=("read on another land than the card's", "a zero that moved is found after the liner is drawn",
                   "warm parts read large"),
        ),
        OperationKind(
            _O.DECIDE, "Decide and agree", "Decide", Scope.BLOCK, 1, (_O.MEASURE,), by_hand=True,
            asks="what was agreed, and with whom", risks=("work begins on a price nobody agreed to",),
        ),
        OperationKind(_O.ORDER, "Order parts, wait", "Parts", Scope.BLOCK, 0, (_O.DECIDE,),
                      risks=("parts are taken as marked, not as measured",)),
        OperationKind(
            _O.CLEAN, "Clean and prepare the deck", "Clean deck", Scope.BLOCK, 3, (_O.DECIDE,), by_hand=True,
            asks="bolt holes chased, dowels drawn", caution=(GASKETS, SOLVENT, AIR),
            risks=("a disc takes the deck hollow between the bolts", "stud holes that end in water are not sealed"),
        ),
        OperationKind(
            _O.PLUG, "Plug openings", "Plug", Scope.BLOCK, 0.3, (_O.CLEAN, _O.DECIDE), by_hand=True,
            asks="what is plugged", counts="plugs in", caution=(SWARF,),
            risks=("a plug that is not counted stays in the oil gallery",),
        ),
        OperationKind(
            _O.BORE_BLOCK, "Bore the block for sleeves", "Bore block", Scope.HOLE, 1, (_O.DECIDE, _O.CAPS, _O.PLUG),
            (Disturbance((_Q.BLOCK_BORE, _Q.TRIAL_FIT, *_WALLS), own_hole=True),
             Disturbance((*_MAINS, _Q.DECK_FLATNESS))),
            (_Q.BLOCK_BORE,), True, True, "tool and cuts taken", caution=(SWARF, "Spinning tool: sleeves rolled up."),
            risks=("the sleeve was not measured before its bore was cut", "the bar follows the old bore"),
            machine=Machine.MILL, setup_h=0.5,
        ),
        OperationKind(
            _O.HONE_BLOCK, "Hone the block bore to its sleeve", "Hone block", Scope.HOLE, 1,
            (_O.DECIDE, _O.CAPS, _O.BORE_BLOCK), (Disturbance((_Q.BLOCK_BORE, _Q.TRIAL_FIT), own_hole=True),),
            (_Q.BLOCK_BORE, _Q.TRIAL_FIT), True, True, "stones and strokes",
            caution=(SWARF, "A hone driven by a drill grabs: two hands, a stop below."),
            risks=("one number for the whole length hides a fat middle",),
            machine=Machine.HONE, setup_h=0.25,
        ),
        OperationKind(
            _O.CUT, "Cut counterbores", "Cut", Scope.HOLE, 1, (_O.CLEAN, _O.PLUG),
            proves=(_Q.COUNTERBORE_DEPTH,), irreversible=True,
            caution=(SWARF, "Spinning cutter: fingers off while it turns, lock the collar first."),
            risks=("the count of passes is lost", "the depth is counted from a worn ledge",
                   "a burr makes it read shallow"),
            machine=Machine.CUTTER, setup_h=0.5,
        ),
        OperationKind(
            _O.FIT_PREP, "Ready to fit", "Ready to fit", Scope.HOLE, 0.3, (_O.CUT, _O.HONE_BLOCK), by_hand=True,
            asks="clean, dry, lead-in, seals, marks, orientation", caution=(SOLVENT, AIR),
            risks=("dirt under the flange is protrusion that goes away",),
        ),
        OperationKind(
            _O.HEAT, "Bring to temperature", "Heat", Scope.BLOCK, 0.5, (_O.FIT_PREP,), by_hand=True,
            asks="oven, freezer, how long",
            caution=("Liquid nitrogen and dry ice choke and burn: open air, gloves, never in a pit or a closed van.",
                     "Ovens and solvent vapour do not go together; hot aluminium looks cold."),
            risks=("which end is the front is asked with a hot block in hand: mark it before heating",),
            machine=Machine.OVEN,
        ),
        OperationKind(
            _O.FIT, "Fit the liner", "Fit", Scope.HOLE, 0.5, (_O.FIT_PREP, _O.HEAT),
            (Disturbance(_MAINS),
             Disturbance((_Q.NEIGHBOUR_GAP, _Q.NEIGHBOUR_STEP, *_WALLS), own_hole=True)),
            irreversible=True, caution=(LIFTING, "Press and puller loads: stand aside, guard the parts that can fly."),
            risks=("compound in the hole makes a false bottom", "a pull that pops is a liner that cocked"),
        ),
        OperationKind(
            _O.SOAK, "Down to room temperature, held", "Soak", Scope.BLOCK, 0, (_O.FIT,), by_hand=True,
            asks="how the liners are held down", risks=("heights read warm are heights of another day",),
        ),
        OperationKind(
            _O.SEAT, "Seat proved", "Seat proved", Scope.HOLE, 0.3, (_O.FIT, _O.SOAK), proves=(_Q.PROTRUSION,),
            risks=("the tip rides on the fire-ring lip", "held down otherwise than the card asks"),
        ),
        OperationKind(
            _O.DECK, "Deck the block", "Deck", Scope.BLOCK, 2, (_O.SEAT,),
            (Disturbance((_Q.PROTRUSION, _Q.DECK_FLATNESS, _Q.DECK_HEIGHT)),), (_Q.DECK_FLATNESS,), True, True,
            "how much came off",
            caution=(SWARF, LIFTING),
            risks=("what comes off the deck goes from every hole, and from timing and compression",),
            machine=Machine.SURFACER, setup_h=0.5,
        ),
        OperationKind(
            _O.BORE, "Bore to size less stock", "Bore", Scope.HOLE, 1.5, (_O.CAPS, _O.SEAT, _O.DECIDE, _O.PLUG),
            (Disturbance((*_BORES, *_WALLS, _Q.PISTON_CLEARANCE, _Q.RING_GAP), own_hole=True),), _BORES, True, True,
            "cuts taken, stock left",
            caution=(SWARF, "Spinning tool: sleeves rolled up."),
            risks=("a round oversize instead of the measured piston", "the worst hole is bored last"),
            machine=Machine.MILL, setup_h=0.5,
        ),
        OperationKind(
            _O.PLATE, "Torque plate on", "Plate on", Scope.BLOCK, 0.5, (_O.BORE, _O.SEAT), by_hand=True,
            asks="fasteners, gasket and torque, as in the build",
            caution=("Torque reaction: block held, bar clear of fingers.",),
            risks=("fasteners, gasket or torque differ from the build, and so does the bore",),
        ),
        OperationKind(
            _O.HONE, "Hone to the piston", "Hone", Scope.HOLE, 0.75, (_O.PLATE, _O.BORE, _O.SEAT),
            (Disturbance((*_BORES, _Q.WEAR_STEP, _Q.PISTON_CLEARANCE, _Q.RING_GAP), own_hole=True),), _BORES, True,
            True, "stones, strokes, finish",
            caution=(SWARF, "A hone driven by a drill grabs: two hands, a stop below."),
            risks=("read warm, the bore is large", "too much overrun bells the ends"),
            machine=Machine.HONE, setup_h=0.25,
        ),
        OperationKind(_O.FREE, "Plate off, shape recorded", "Plate off", Scope.HOLE, 0.3, (_O.HONE,),
                      risks=("the shape that counts is the clamped one",)),
        OperationKind(
            _O.MAINS, "Mains checked again", "Mains", Scope.BLOCK, 1, (_O.FIT, _O.DECK, _O.BORE, _O.BORE_BLOCK),
            proves=(_Q.MAIN_BORE,), risks=("pressing liners moved the mains, and nobody looked",),
        ),
        OperationKind(
            _O.ALIGN, "Align-hone mains", "Align-hone", Scope.BLOCK, 3, (_O.MAINS,),
            (Disturbance(_MAINS),), (_Q.MAIN_BORE,), True, True, "what came off the caps", caution=(SWARF,),
            risks=("the crank comes nearer to the deck, and compression with it",),
            machine=Machine.HONE, setup_h=0.25,
        ),
        OperationKind(
            _O.WASH, "Final wash", "Wash", Scope.BLOCK, 2, (_O.HONE, _O.BORE, _O.CUT, _O.DECK, _O.ALIGN, _O.FREE),
            by_hand=True, asks="how it was washed and oiled", counts="plugs out",
            caution=(SOLVENT, AIR, "Pressure washing: face shield, aim away from people."),
            risks=("washed before the last grit was made", "a plug left in"),
        ),
        OperationKind(
            _O.PISTONS, "Pistons matched and marked", "Pistons", Scope.HOLE, 0.3, (_O.HONE, _O.WASH),
            proves=(_Q.PISTON_CLEARANCE, _Q.RING_GAP), by_hand=True, asks="mark on the piston, which way it faces",
            risks=("a fitted piston goes to another hole",),
        ),
        OperationKind(_O.PROVE, "Final survey and proof", "Prove", Scope.BLOCK, 1,
                      (_O.SEAT, _O.MAINS, _O.PISTONS, _O.WASH, _O.ALIGN),
                      risks=("something that was not read is called in",)),
        OperationKind(_O.RELEASE, "Release", "Release", Scope.BLOCK, 0.5, (_O.PROVE,), by_hand=True,
                      asks="to whom the sheet was handed", caution=(LIFTING,)),
    )
}  # fmt: skip


# Hours to read a feature of one part once more. Common practice, no published source.
HOURS_TO_READ: dict[Quantity, float] = {
    _Q.PROTRUSION: 0.15,
    _Q.DECK_FLATNESS: 0.4,
    _Q.DECK_HEIGHT: 0.2,
    _Q.MAIN_BORE: 0.15,
    _Q.MAIN_LINE: 0.1,
    _Q.BLOCK_BORE: 0.25,
    _Q.LINER_INSIDE: 0.2,
    _Q.LINER_BORE: 0.25,
    _Q.WEAR_STEP: 0.3,
    _Q.WALL_THICKNESS: 0.3,
    _Q.TRIAL_FIT: 0.1,
    _Q.NEIGHBOUR_GAP: 0.1,
    _Q.NEIGHBOUR_STEP: 0.05,
    _Q.PISTON_CLEARANCE: 0.1,
    _Q.RING_GAP: 0.1,
}


def operation_of(operation: Operation) -> OperationKind:
    """Return what is known of an operation."""
    return OPERATIONS[operation]
