"""The feature catalogue over the wire: screens follow it instead of lists of their own."""

from fastapi.testclient import TestClient

from vallostasis.core.records.rows import Quantity


def test_the_catalogue_says_of_each_feature_what_a_screen_needs(client: TestClient) -> None:
    rows = {row["quantity"]: row for row in client.get("/api/features").json()}
    assert set(rows) == {one.value for one in Quantity}
    bore = rows["block bore"]
    assert [(one["field"], one["is_size"]) for one in bore["limits"]] == [
        ("nominal", True), ("least", True), ("greatest", True), ("out_of_round", False), ("taper", False)]  # fmt: skip
    assert "main caps torqued" in bore["also_loads"]
    assert rows["deck flatness"]["drawing"] == "grid"
    assert rows["trial fit"]["asks_liner"]
    assert not rows["protrusion"]["is_surveyed"]
    assert rows["neighbour step"]["limits"] == []
