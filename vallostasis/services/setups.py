"""How a quantity is read from now on: gauge, what it was zeroed on, land, datum, clamp."""

from dataclasses import dataclass, replace
from decimal import Decimal
from uuid import UUID

from vallostasis.core.features.catalogue import feature_of
from vallostasis.core.features.usual_lengths import usual_of
from vallostasis.core.gauges.circumstances import size_on_card
from vallostasis.core.notation.lengths import Unit, both_size, both_small
from vallostasis.core.notation.typed_lengths import ParsedLength, as_entered
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, ZeroedOn
from vallostasis.core.records.spec_card import SpecCard, typed_with_unit
from vallostasis.services.lengths import read_usual
from vallostasis.services.refused import Refused
from vallostasis.services.temperatures import read_temperature
from vallostasis.services.torques import read_torque
from vallostasis.store import gauges, jobs, setting_masters
from vallostasis.store.fact_rows import record_fact
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.new_facts import NewSetup
from vallostasis.store.rows import Conn

LONGEST_ZERO_UM = Decimal(10_000_000)


@dataclass(frozen=True, slots=True)
class HowTyped:
    """How a set-up was typed: its master of the cabinet, temperatures in °C or °F, what a bare size is.

    ``corrects`` says that its temperatures were noted wrongly: then they are put right for what was read.
    """

    bare_unit: Unit = "mm"
    setting_master_id: UUID | None = None
    master_temp: str = ""
    gauge_temp: str = ""
    hold_down_torque: str = ""
    corrects: bool = False
    confirmed: bool = False


def change_setup(conn: Conn, new: NewSetup, by: UUID, how: HowTyped | None = None) -> None:
    """Read with another gauge, zero, land, datum or clamp from now on; every hole read otherwise re-opens."""
    how = how or HowTyped()
    jobs.lock_job(conn, new.job_id)
    facts = load_job_facts(conn, new.job_id)
    gauges.get_gauge(conn, new.gauge_id)
    new = _with_temperatures(new, how)
    if how.hold_down_torque.strip():
        new = replace(new, hold_down_torque_nm=read_torque(how.hold_down_torque, "hold_down_torque"))
    new = _on_master(conn, new, how.setting_master_id)
    new = _with_zero(facts.card, new, how)
    lands = [land.name for land in facts.card.lands]
    if new.quantity in (Quantity.PROTRUSION, Quantity.FLANGE_THICKNESS) and new.land not in lands:
        raise Refused(f"Choose one of the card's lands: {', '.join(lands)}.", "land")
    if how.corrects:
        new = _as_correction(facts, new)
    record_fact(conn, new, by)


def _with_temperatures(new: NewSetup, how: HowTyped) -> NewSetup:
    def read(name: str, text: str) -> Decimal | None:
        return read_temperature(text, name, how.confirmed) if text.strip() else None

    return replace(
        new, master_temp_c=read("master_temp", how.master_temp), gauge_temp_c=read("gauge_temp", how.gauge_temp)
    )


def _as_correction(facts: JobFacts, new: NewSetup) -> NewSetup:
    """Only temperatures can be put right for what was read: anything else is another way to read."""
    now = facts.present_setup(new.quantity)
    if now is None:
        raise Refused(f"Nothing is set up for {new.quantity.value} yet: there is nothing to put right.", "corrects")
    given = {name: getattr(new, name) for name in NewSetup.__slots__ if hasattr(now, name)}
    same = replace(now, master_temp_c=new.master_temp_c, gauge_temp_c=new.gauge_temp_c)
    if any(getattr(same, name) != value for name, value in given.items() if name not in ("corrects", "setup_id")):
        raise Refused("More than temperatures differs: save it as another way to read from now on.", "corrects")
    return replace(new, corrects=now.setup_id)


def _on_master(conn: Conn, new: NewSetup, setting_master_id: UUID | None) -> NewSetup:
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


def _with_zero(card: SpecCard, new: NewSetup, how: HowTyped) -> NewSetup:
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
    usual = usual_of(new.quantity, card.layout.bore.um) if feature_of(new.quantity).is_diameter else None
    parsed = read_usual("zero", typed, how.bare_unit, usual, how.confirmed)
    if abs(parsed.value_um) > LONGEST_ZERO_UM:
        raise Refused("No part here is that long: check number and unit.", "zero")
    both = both_size if feature_of(new.quantity).is_size else both_small
    if on_card is not None and parsed.value_um != on_card.um:
        raise Refused(
            f"The card's {new.zeroed_on.value} is {both(on_card.um)}, not {both(parsed.value_um)}: "
            "leave this empty to take the card's, or say it was zeroed on a setting master.",
            "zero",
        )
    return replace(new, zero_um=parsed.value_um, zero_typed=_with_unit(parsed))


def _with_unit(parsed: ParsedLength) -> str:
    """A length that can be typed again as it stands."""
    if parsed.unit == "0.01 mm":
        return f"{(parsed.value_um / 1000).normalize():f} mm"
    return as_entered(parsed.typed, parsed.unit)
