"""The layout of a block as it goes over the wire: what a drawing of its deck needs."""

from typing import Any

from pydantic import BaseModel, Field

from vallostasis.core.records.spec_card import Arrangement, Layout, bank_rows


class LayoutView(BaseModel):
    """Holes by bank from the front, heads, numbering, sizes. [m]"""

    arrangement: Arrangement
    holes: int
    banks: list[list[int]] = Field(
        description="Hole numbers of each bank from the front; one bank for a block in line."
    )
    bank_angle_deg: float | None
    bank_offset_m: float
    heads: list[list[int]]
    numbering: str
    twelve_o_clock: str
    bore_pitch_m: float
    bore_m: float


def layout_fields(layout: Layout) -> dict[str, Any]:
    """Fields of a layout, for models that carry it."""
    return {
        "arrangement": layout.arrangement,
        "holes": layout.holes,
        "banks": [list(bank) for bank in bank_rows(layout)],
        "bank_angle_deg": layout.bank_angle_deg,
        "bank_offset_m": layout.bank_offset.metres,
        "heads": [list(head) for head in layout.heads],
        "numbering": layout.numbering,
        "twelve_o_clock": layout.twelve_o_clock,
        "bore_pitch_m": layout.bore_pitch.metres,
        "bore_m": layout.bore.metres,
    }
