"""The feature catalogue and the database name the same features: a new one is a row and a line of migration."""

import pytest
from psycopg import errors

from vallostasis.core.features.catalogue import FEATURES, GAUGE_WORDS, PatternKind, feature_of, is_surveyed
from vallostasis.core.records.rows import Quantity
from vallostasis.core.records.spec_card import FeatureSheet
from vallostasis.store.rows import Conn


def test_every_feature_has_its_row_in_catalogue_and_database(demo: Conn) -> None:
    rows = {str(row[0]) for row in demo.execute("SELECT quantity FROM feature").fetchall()}
    assert rows == {one.value for one in Quantity} == {one.value for one in FEATURES}


def test_what_is_no_feature_cannot_be_set_up(demo: Conn) -> None:
    with pytest.raises(errors.ForeignKeyViolation):
        demo.execute("""
            INSERT INTO setup (job_id, quantity, gauge_id, land, datum, hold_down, shared_zero, chosen_by)
            SELECT job_id, 'luck', gauge_id, land, datum, hold_down, shared_zero, chosen_by FROM setup LIMIT 1
        """)


@pytest.mark.parametrize("quantity", list(Quantity))
def test_a_row_hangs_together(quantity: Quantity) -> None:
    """House rules: limits are fields of a sheet, form belongs to diameters, somebody makes a gauge for it."""
    row = feature_of(quantity)
    fields = {limit.field for limit in row.limits}
    assert fields <= set(FeatureSheet.__dataclass_fields__)
    assert row.is_diameter or not fields & {"out_of_round", "taper"}
    assert not row.is_diameter or row.pattern is PatternKind.LEVELS_AND_AXES
    assert row.gauges
    assert set(row.gauges) <= GAUGE_WORDS
    assert not row.limits or is_surveyed(quantity)
    assert not row.also_loads or row.loads
