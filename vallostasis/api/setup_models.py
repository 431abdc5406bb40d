"""How a quantity is read, as it goes over the wire."""

from datetime import date, datetime
from decimal import Decimal
from uuid import UUID

from pydantic import BaseModel, Field

from vallostasis.core.gauges.circumstances import cautions_of_gauge, cautions_of_setup, cautions_of_tip
from vallostasis.core.gauges.zero_checks import Doubt
from vallostasis.core.notation.lengths import metres
from vallostasis.core.records.gauges import GaugeVersion
from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.rows import Quantity, Setup, ZeroedOn
from vallostasis.core.surveys.fitness import capability_of_setup
from vallostasis.core.uncertainty.decision import Capability


class SetupView(BaseModel):
    """Gauge, land, datum and clamp for one quantity, and whether the gauge is fit for the card's window."""

    quantity: Quantity
    gauge: GaugeVersion
    land: str
    datum: str
    hold_down: str
    hold_down_torque_nm: Decimal | None
    shared_zero: bool
    zeroed_on: ZeroedOn
    zero_m: float = Field(description="Size the gauge was zeroed on; a reading is the deviation from it. [m]")
    zero_typed: str
    load: str
    method: str
    master: str = Field(description="Name of the setting master; empty where none was named.")
    master_temp_c: Decimal | None
    gauge_temp_c: Decimal | None
    chosen_at: datetime
    expanded_m: float = Field(description="Expanded uncertainty of one reading. [m]")
    capability: Capability | None
    cautions: list[str]


def setup_view(facts: JobFacts, setup: Setup, today: date) -> SetupView:
    """Show how a quantity is read now, with what to mind."""
    gauge = facts.newest_gauge(setup.gauge_id)
    budget, capability = capability_of_setup(facts, setup)
    return SetupView(
        quantity=setup.quantity,
        gauge=gauge,
        land=setup.land,
        datum=setup.datum,
        hold_down=setup.hold_down,
        hold_down_torque_nm=setup.hold_down_torque_nm,
        shared_zero=setup.shared_zero,
        zeroed_on=setup.zeroed_on,
        zero_m=metres(setup.zero_um),
        zero_typed=setup.zero_typed,
        load=setup.load,
        method=setup.method,
        master=_master_name(facts, setup),
        master_temp_c=setup.master_temp_c,
        gauge_temp_c=setup.gauge_temp_c,
        chosen_at=setup.chosen_at,
        expanded_m=budget.expanded_m,
        capability=capability,
        cautions=[
            *cautions_of_setup(facts.card, setup),
            *cautions_of_tip(facts.card, setup, gauge),
            *cautions_of_gauge(gauge, _gauges_read(facts), today, facts.master_readings),
        ],
    )


def _master_name(facts: JobFacts, setup: Setup) -> str:
    return "" if setup.setting_master_version_id is None else facts.master(setup.setting_master_version_id).name


def _gauges_read(facts: JobFacts) -> list[GaugeVersion]:
    """Every gauge that something of this job was read with, as it was then."""
    return [facts.gauge_version(one) for one in {s.gauge_version_id for s in facts.sets}]


class DoubtView(BaseModel):
    """A zero that was found moved, and how many readings stand on it."""

    zero_check_id: UUID
    quantity: Quantity
    moved_m: float
    typed: str
    checked_by: str
    readings: int

    @classmethod
    def of(cls, doubt: Doubt) -> "DoubtView":
        """Show a doubt."""
        return cls(
            zero_check_id=doubt.check.zero_check_id,
            quantity=doubt.setup.quantity,
            moved_m=metres(doubt.check.moved_um),
            typed=doubt.check.typed,
            checked_by=doubt.check.checked_by,
            readings=len(doubt.reading_ids),
        )
