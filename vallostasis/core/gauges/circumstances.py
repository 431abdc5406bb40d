"""Where the circumstances of a reading depart from what the card asks for."""

from collections.abc import Iterable
from datetime import date
from decimal import Decimal

from vallostasis.core.notation.lengths import both_temperatures, both_torques
from vallostasis.core.records.gauges import GaugeVersion, MasterReading
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, ReadingSet, Setup, ZeroedOn
from vallostasis.core.records.spec_card import Length, SpecCard, sheet_of
from vallostasis.core.records.values import only_differences


def cautions_of_setup(card: SpecCard, setup: Setup) -> tuple[str, ...]:
    """Say where the setup departs from the card: readings taken so cannot be held against its limits."""
    cautions = []
    if only_differences(setup):
        cautions.append(RELATIVE)
    if setup.quantity is not Quantity.PROTRUSION:
        return tuple(cautions)
    measuring = card.measuring
    if setup.land != measuring.land:
        cautions.append(f"The card's limits are for the {measuring.land}, not the {setup.land}.")
    if setup.hold_down != measuring.hold_down:
        cautions.append(f"The card holds the liner down with {measuring.hold_down or 'nothing'}.")
    if setup.hold_down == measuring.hold_down and _torque(setup) != (measuring.hold_down_torque_nm or 0.0):
        cautions.append(f"The card tightens it to {both_torques(measuring.hold_down_torque_nm or 0)}.")
    if setup.datum != measuring.datum:
        cautions.append(f"The card measures from {measuring.datum}.")
    return tuple(cautions)


def _torque(setup: Setup) -> float:
    return float(setup.hold_down_torque_nm or 0)


def how_read(facts: JobFacts, reading_set: ReadingSet, *, at_20c: bool) -> str:
    """Say how a set was read: gauge, zero, method, load, and whether its sizes are those at 20 °C. As recorded."""
    setup, gauge = facts.setup(reading_set.setup_id), facts.gauge_version(reading_set.gauge_version_id)
    on = f"zeroed on the {setup.zeroed_on.value}"
    if setup.setting_master_version_id is not None:
        master = facts.master(setup.setting_master_version_id)
        on = f"set on {master.name}, {master.typed}"
        on += f" at {both_temperatures(float(setup.master_temp_c))}" if setup.master_temp_c is not None else ""
    elif setup.zero_typed:
        on += f" of {setup.zero_typed}"
    words = [f"{gauge.name}, version {gauge.version}", on, setup.method, setup.load]
    words.append("brought to 20 °C" if at_20c else "as read")
    return ", ".join(word for word in words if word)


# A tip rounder than this does not find the foot of a lip. [µm] Common practice, no published source.
BLUNT_TIP_UM = Decimal(1000)


def cautions_of_tip(card: SpecCard, setup: Setup, gauge: GaugeVersion) -> tuple[str, ...]:
    """Say where a tip is too wide for the land it stands on, or rides on a higher one beside it.

    Common practice, no published source.
    """
    radius = gauge.tip_radius_um
    if setup.quantity not in (Quantity.PROTRUSION, Quantity.FLANGE_THICKNESS) or radius is None:
        return ()
    said = []
    land = next((one for one in card.lands if one.name == setup.land), None)
    if land is not None and 0 < land.width.um < 2 * radius:
        said.append(f"The tip of {gauge.name} is wider than the {land.name}: take a finer one.")
    higher = [one.name for one in card.lands if land is not None and one.raised.um > land.raised.um]
    if higher and radius > BLUNT_TIP_UM:
        said.append(f"The blunt tip of {gauge.name} may ride on the {' or the '.join(higher)}: take a finer one.")
    return tuple(said)


RELATIVE = (
    "Zeroed on the part itself: its readings are differences and cannot be judged against a size. Zero the gauge on "
    "the datum or a master and read again."
)


def size_on_card(card: SpecCard, quantity: Quantity, zeroed_on: ZeroedOn) -> Length | None:
    """Size that the card gives for what a gauge is zeroed on; None where it gives none."""
    limits, seat = card.limits, card.seat
    sheet = sheet_of(card, quantity)
    if sheet is not None:
        on_sheet = {ZeroedOn.NOMINAL: sheet.nominal, ZeroedOn.LOW_LIMIT: sheet.least}.get(zeroed_on)
        return None if on_sheet is None else on_sheet.length
    found = {
        (Quantity.PROTRUSION, ZeroedOn.LOW_LIMIT): limits.least_without_shim,
        (Quantity.PROTRUSION, ZeroedOn.TARGET): limits.target_with_shim,
        (Quantity.COUNTERBORE_DEPTH, ZeroedOn.NOMINAL): seat.counterbore_nominal,
        (Quantity.FLANGE_THICKNESS, ZeroedOn.NOMINAL): seat.flange_nominal,
    }.get((quantity, zeroed_on))
    return None if found is None else found.length


def cautions_of_gauge(
    gauge: GaugeVersion,
    others: Iterable[GaugeVersion],
    today: date,
    master_readings: Iterable[MasterReading] = (),
) -> tuple[str, ...]:
    """Say what speaks against a gauge: overdue, faulty, or of another shop and never checked on one master.

    Readings of different shops are compared only over a master that travelled between them: common practice,
    no published source.
    """
    cautions = []
    if overdue(gauge, today):
        assert gauge.due_on is not None
        cautions.append(f"{gauge.name} was due for calibration on {gauge.due_on.isoformat()}: have it checked first.")
    if gauge.faults:
        cautions.append(f"{gauge.name} has a known fault: {gauge.faults}")
    read = list(master_readings)
    strangers = sorted({other.name for other in others if _no_common_master(gauge, other, read)})
    if strangers:
        cautions.append(
            f"{gauge.name} and {', '.join(strangers)} have different owners and were never checked on one master: "
            "send a travelling master round before their readings are compared."
        )
    return tuple(cautions)


def overdue(gauge: GaugeVersion, today: date) -> bool:
    """Whether a gauge was due for calibration before today."""
    return gauge.due_on is not None and gauge.due_on < today


def _no_common_master(one: GaugeVersion, other: GaugeVersion, read: list[MasterReading]) -> bool:
    if one.owner.casefold() == other.owner.casefold():
        return False
    if one.master and one.master.casefold() == other.master.casefold():
        return False
    masters = [{r.setting_master_id for r in read if r.gauge_id == gauge.gauge_id} for gauge in (one, other)]
    return not masters[0] & masters[1]


def outside_range(gauge: GaugeVersion, reading_um: Decimal) -> bool:
    """Whether a reading lies outside what the gauge can show; never where its range is not known. [µm]"""
    if gauge.range_from_um is None or gauge.range_to_um is None:
        return False
    return not gauge.range_from_um <= reading_um <= gauge.range_to_um
