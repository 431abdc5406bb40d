"""The traps of the trade by number: the mistake, and what catches it. Common practice, no published source."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Trap:
    """One mistake that is easily made, and the check that catches it."""

    number: str
    name: str
    check: str


_ROWS = (
    ("Counted from the wrong datum", "declare deck or ledge, measure the ledge before cutting, predict each hole"),
    ("Protrusion on one land, thickness on another", "read both on the same land"),
    ("Earlier verdicts kept after another land was found", "judge every hole again, against both limits"),
    ("A removal that misses its target", "add up: found plus removed is what there will be"),
    ("Round while stripes remain", "a value for each axis; stripes left are a fail"),
    ("A barrel liner pressed in and never measured after", "hold the bore's close-in against the press"),
    ("A cold press that is gone hot", "the fit at temperatures of block and liner"),
    ("It should have dropped and had to be driven", "temperatures at the moment it goes in"),
    ("Skimmed flush, sunk when hot", "the height hot, before a flush skim"),
    ("A skim of a few for a liner that stands proud by more", "skim is proud plus clean-up"),
    ("An earlier result that a later operation disturbs", "read again what was disturbed"),
    ("Litres and cubic inches that disagree", "one number in both units"),
    ("A gauge with an unknown zero", "differences are no sizes: look at a ring"),
    ("Neighbours blamed where an aluminium block opens the gap", "the gap at two temperatures"),
    ("To go, without saying from where", "a start size for each depth"),
    ("A feeler beside a piston that leans nowhere", "it measures the whole gap only against the other wall"),
    ("One-sided wear cleaned up on the old centre", "twice the deepest radial defect, plus hone stock"),
    ("So much big, against which size", "the reference beside each reading"),
    ("Cuts that do not add up to the start size", "a ledger of each bore"),
    ("Radius for diameter, inch for millimetre", "say per side or across, and the unit"),
    ("Wall and diameter mixed in a re-bore budget", "least wall, and half of the diameter comes off it"),
    ("A shrink fit with an unknown press", "measure both before heat"),
    ("A tolerance heard wrong", "repeat it with its unit"),
    ("A stop good to one in a window of two and a half", "the chance to land inside"),
    ("One cut for unequal starts", "a target for each hole"),
    ("A coarse gauge on a narrow window", "a finer gauge"),
    ("An estimate whose parts do not sum", "low and high, tax apart"),
    ("A burr that reads shallow", "knock it off before measuring"),
    ("Depth by counting graduations", "the count is progress, the depth is measured"),
    ("A cure for a wrong reading that spoils the true height", "try it on the true land first"),
    ("Every new part looks bad", "look for the common cause"),
    ("Swaps without a table", "which liner in which hole, every time"),
    ("High end of a depth", "shallow or deep, proud or sunk"),
    ("Level across the deck taken for square to the crank", "set up from the mains"),
    ("A mark left with little to go", "twice its depth comes off"),
    ("A size checked at the top only", "several depths"),
    ("Three lobes that read round on two points", "three points, or a sweep"),
    ("Two axes that miss an oval at 45°", "three axes and more"),
    ("A warm bore", "its temperature, or a soak"),
    ("A start depth without the liner's length", "a share of the length, dry or oiled"),
    ("Size grades read after fitting", "match first"),
    ("Feeler evenness taken for protrusion", "a step is no height; cold before it counts"),
    ("Work and waiting mixed", "two clocks"),
    ("One return for six good taken as one in six", "one in seven"),
    ("Rings gapped before the bore is frozen", "π times what the bore still grows"),
    ("An oversize spent for a round number", "re-bores left"),
    ("Aluminium in iron by habit", "clearance at running temperature"),
    ("A deck skim without its list", "all that hangs on the deck"),
    ("A spacer counted once, twice or not", "a stack list"),
    ("Unequal over-travel", "a stroke plan"),
    ("Held down and free readings mixed", "how it was held, beside each reading"),
    ("Which end is front, asked with a hot block", "mark before heating"),
    ("A plate that is not like the build", "fasteners, gasket and torque as built"),
    ("Two registers out of line", "alignment, and the bore after pressing"),
    ("Predicted and never measured", "open until it is confirmed"),
    ("Ledge metal spent on uniform cuts", "a budget of each ledge"),
    ("Equal targets for unequal bores", "stock for each bore"),
    ("Two shops without a common master", "one master that travels"),
    ("Middle of a tolerance by a coarse blade", "half a blade's step in the uncertainty"),
    ("A free bore honed to a clamped target", "never against each other's limits"),
)  # fmt: skip
TRAPS = tuple(Trap(f"T{at}", name, check) for at, (name, check) in enumerate(_ROWS, start=1))
BY_NUMBER = {trap.number: trap for trap in TRAPS}
