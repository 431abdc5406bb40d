"""How a quantity is read from now on: gauge, what it was zeroed on, land, datum, clamp."""

from dataclasses import replace
from decimal import Decimal
from uuid import UUID

from vallostasis.core.lengths import Unit
from vallostasis.core.measuring.circumstances import size_on_card
from vallostasis.core.measuring.features import feature_of
from vallostasis.core.notation import ParsedLength, as_entered, parse_length
from vallostasis.core.records import Quantity, ZeroedOn
from vallostasis.core.spec_card import SpecCard, typed_with_unit
from vallostasis.services.refused import Refused, typed_at
from vallostasis.store import gauges, jobs, readings, setting_masters
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

LONGEST_ZERO_UM = Decimal(10_000_000)


def change_setup(
    conn: Conn, new: readings.NewSetup, by: UUID, bare_unit: Unit = "mm", setting_master_id: UUID | None = None
) -> None:
    """Read with another gauge, zero, land, datum or clamp from now on; every hole read otherwise re-opens."""
    jobs.lock_job(conn, new.job_id)
    facts = load_job_facts(conn, new.job_id)
    gauges.get_gauge(conn, new.gauge_id)
    new = _on_master(conn, new, setting_master_id)
    new = _with_zero(facts.card, new, bare_unit)
    lands = [land.name for land in facts.card.lands]
    if new.quantity in (Quantity.PROTRUSION, Quantity.FLANGE_THICKNESS) and new.land not in lands:
        raise Refused(f"Choose one of the card's lands: {', '.join(lands)}.", "land")
    readings.add_setup(conn, new, by)


def _on_master(conn: Conn, new: readings.NewSetup, setting_master_id: UUID | None) -> readings.NewSetup:
    """Set the gauge on a master of the cabinet: its size is what the gauge shows as nought."""
    if setting_master_id is None:
        return new
    if new.zeroed_on is not ZeroedOn.MASTER:
        raise Refused("A master of the cabinet belongs to a gauge zeroed on a setting master.", "setting_master_id")
    if new.zero_typed.strip():
        raise Refused("The master's own size is taken: leave this empty.", "zero")
    master = setting_masters.get_master(conn, setting_master_id)
    return replace(
        new,
        zero_um=master.size_um,
        zero_typed=master.typed,
        setting_master_version_id=master.setting_master_version_id,
    )


def _with_zero(card: SpecCard, new: readings.NewSetup, bare_unit: Unit) -> readings.NewSetup:
    """Find the size the gauge was zeroed on: as typed, or as the card gives it where nothing was typed."""
    if new.setting_master_version_id is not None:
        return new
    typed = new.zero_typed.strip()
    if new.zeroed_on in (ZeroedOn.DATUM, ZeroedOn.PART):
        if typed:
            raise Refused(f"Zeroed on the {new.zeroed_on.value} it stands at no size: leave this empty.", "zero")
        return replace(new, zero_um=Decimal(0), zero_typed="")
    on_card = size_on_card(card, new.quantity, new.zeroed_on)
    if not typed and on_card is None:
        raise Refused(f"Type the size that the gauge shows as nought on the {new.zeroed_on.value}.", "zero")
    if not typed and on_card is not None:
        is_size = feature_of(new.quantity).is_size
        return replace(new, zero_um=on_card.um, zero_typed=typed_with_unit(on_card, card.unit, is_size=is_size))
    with typed_at("zero"):
        parsed = parse_length(typed, bare_unit, confirmed=True)
    if abs(parsed.value_um) > LONGEST_ZERO_UM:
        raise Refused("No part here is that long: check number and unit.", "zero")
    if on_card is not None and parsed.value_um != on_card.um:
        raise Refused(
            f"The card's {new.zeroed_on.value} is {on_card.um.normalize():f} µm, not {parsed.value_um.normalize():f}: "
            "leave this empty to take the card's, or say it was zeroed on a setting master.",
            "zero",
        )
    return replace(new, zero_um=parsed.value_um, zero_typed=_with_unit(parsed))


def _with_unit(parsed: ParsedLength) -> str:
    """A length that can be typed again as it stands."""
    if parsed.unit == "0.01 mm":
        return f"{(parsed.value_um / 1000).normalize():f} mm"
    return as_entered(parsed.typed, parsed.unit)
