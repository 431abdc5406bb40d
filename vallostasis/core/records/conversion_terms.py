"""What a card says of a conversion: liners left proud and decked, inserts, registers, relief, fire ring, seals."""

from dataclasses import dataclass
from enum import StrEnum

from vallostasis.core.records.fit_terms import FitWindow
from vallostasis.core.records.limits import NO_LIMIT, Length, Limit


class GrooveIn(StrEnum):
    """Which part the groove of a seal is cut into."""

    LINER = "liner"
    BLOCK = "block"


@dataclass(frozen=True, slots=True)
class SealRing:
    """One ring in its groove, in the order in which they are put on; the groove's diameter is that of its floor."""

    name: str
    groove_in: GrooveIn = GrooveIn.LINER
    groove_diameter: Length = Length("0")
    groove_width: Length = Length("0")
    inside: Length = Length("0")
    section: Length = Length("0")
    material: str = ""
    coldest_c: float | None = None
    warmest_c: float | None = None
    grease: str = ""


@dataclass(frozen=True, slots=True)
class ConversionTerms:
    """What is wanted of a conversion, each length with its source.

    Left proud: ``proud_least`` and ``proud_greatest`` are the window liners are fitted to, ``clean_up`` what the deck
    itself loses, ``least_flange`` the thickness that has to stay. Registers: depths of the two faces that hold the
    liner, ``off_line`` how far their middles may stand apart, ``register_length`` how long each holds. Insert: its
    press, and its inside. Rod: ``rod_clear`` is kept between rod and liner, ``crank_offset`` how far the crank stands
    from the bore's axis towards ``offset_hour``, ``rod_width`` and ``big_end`` across the shank and over the bolts.
    Fire ring: free thickness, its grooves, the gasket clamped, the crush that seals. Studs: ``stud_kn`` is what each
    pulls. Compound: the widest gap it fills, on the diameter, and how wide its band is.
    """

    proud_least: Limit = NO_LIMIT
    proud_greatest: Limit = NO_LIMIT
    clean_up: Limit = NO_LIMIT
    least_flange: Limit = NO_LIMIT
    upper_register: Limit = NO_LIMIT
    lower_register: Limit = NO_LIMIT
    register_length: Limit = NO_LIMIT
    off_line: Limit = NO_LIMIT
    insert_press: FitWindow = FitWindow()
    insert_inside: Limit = NO_LIMIT
    rod_length: Limit = NO_LIMIT
    rod_width: Limit = NO_LIMIT
    big_end: Limit = NO_LIMIT
    crank_depth: Limit = NO_LIMIT
    crank_offset: Limit = NO_LIMIT
    offset_hour: float | None = None
    rod_clear: Limit = NO_LIMIT
    fire_ring: Limit = NO_LIMIT
    gasket_clamped: Limit = NO_LIMIT
    liner_groove: Limit = NO_LIMIT
    head_groove: Limit = NO_LIMIT
    crush_least: Limit = NO_LIMIT
    crush_greatest: Limit = NO_LIMIT
    studs: int | None = None
    stud_kn: float | None = None
    stud_diameter: Limit = NO_LIMIT
    stud_length: Limit = NO_LIMIT
    stud_clamped: Limit = NO_LIMIT
    stud_thread: Limit = NO_LIMIT
    compound_gap: Limit = NO_LIMIT
    compound_band: Limit = NO_LIMIT
    seals: tuple[SealRing, ...] = ()
