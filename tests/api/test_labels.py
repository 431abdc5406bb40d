"""Labels: what stands on each, at the size of its stock, and a code that opens what it is of."""

import re
from io import BytesIO
from typing import Any
from xml.etree import ElementTree

import pytest
from fastapi.testclient import TestClient
from hypothesis import given
from hypothesis import strategies as st
from pypdf import PdfReader

from tests.api.bench import Bench, job_called
from vallostasis.documents.labels import Label, LabelSize, label_svg, labels_page, places_on

SVG = "{http://www.w3.org/2000/svg}"
# 1 in is 25.4 mm and 72 points, by definition.
POINTS_PER_MM = 72 / 25.4


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench.at_demo(client)


def _labels(bench: Bench, job: str | None = None) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = bench.client.get(f"/api/jobs/{job or bench.job_id}/labels").json()["labels"]
    return found


def test_each_part_of_a_job_has_its_label(bench: Bench, client: TestClient) -> None:
    ferry = {one["key"]: one for one in _labels(bench)}
    assert [key for key in ferry if key.startswith("hole")] == [f"hole-{number}" for number in range(1, 7)]
    hole = ferry["hole-5"]
    assert hole["title"] == "Hole 5"
    assert hole["lines"][0] == "Job 26-031, Ferry Lanthorn"
    assert "12 h: the exhaust side" in hole["lines"]
    assert hole["address"].endswith(f"/jobs/{bench.job_id}/home/5")
    assert "belongs to hole 5" in ferry["liner-L6"]["lines"]
    pistons = [one for one in _labels(bench, job_called(client, "Narrow-boat Brindle")) if one["of"] == "piston"]
    assert all("faces" in " ".join(one["lines"]) for one in pistons)


def test_a_shim_that_lies_under_a_liner_has_one(bench: Bench, client: TestClient) -> None:
    strips = client.get("/api/jobs").json()
    labels = [one for strip in strips for one in _labels(bench, strip["job"]["job_id"])]
    shim = next(one for one in labels if one["of"] == "shim")
    assert re.match("Shim .+", shim["title"])
    assert any(line.startswith("under hole ") for line in shim["lines"])


def test_the_svg_is_as_large_as_its_stock_and_says_what_it_is_of(bench: Bench) -> None:
    answer = bench.client.get(
        f"/api/jobs/{bench.job_id}/labels/one.svg", params={"key": "hole-5", "size": "50 x 25 mm"}
    )
    drawing = ElementTree.fromstring(answer.text)
    assert (drawing.get("width"), drawing.get("height")) == ("50mm", "25mm")
    assert next(text.text for text in drawing.iter(f"{SVG}text")) == "Hole 5"


@pytest.mark.parametrize("size", list(LabelSize))
def test_the_pages_are_as_large_as_their_stock(bench: Bench, size: LabelSize) -> None:
    answer = bench.client.get(f"/api/jobs/{bench.job_id}/labels/all.pdf",
                              params={"key": ["hole-1", "hole-2"], "size": size.value, "used": 23})  # fmt: skip
    assert answer.status_code == 200
    pages = PdfReader(BytesIO(answer.content)).pages
    sheet = places_on(size) > 1
    wide, high = (210.0, 297.0) if sheet else (float(size.value.split(" x ")[0]), float(size.value.split(" x ")[1][:2]))
    assert abs(float(pages[0].mediabox.width) - wide * POINTS_PER_MM) < 1
    assert abs(float(pages[0].mediabox.height) - high * POINTS_PER_MM) < 1
    # One place of 24 is left on the first sheet; 23 used of 14 are nine of the second.
    assert len(pages) == {1: 2, 24: 2, 14: 1}[places_on(size)]
    text = " ".join(page.extract_text() for page in pages)
    assert "Hole 1" in text
    assert "Hole 2" in text


def test_a_label_of_what_is_not_there_is_refused(bench: Bench) -> None:
    answer = bench.client.get(f"/api/jobs/{bench.job_id}/labels/one.svg", params={"key": "liner-L99"})
    assert answer.status_code == 409
    assert "no label liner-L99" in answer.json()["message"]


@given(
    st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), max_size=60),
    st.lists(st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), max_size=120), max_size=4),
    st.sampled_from(list(LabelSize)),
)
def test_whatever_stands_on_it_stays_on_it(title: str, lines: list[str], size: LabelSize) -> None:
    """Lines are cut before they are too small to read, none runs into the code or over the edge."""
    svg = label_svg(Label(title, tuple(lines), "http://127.0.0.1/"), size)
    drawing = ElementTree.fromstring(svg)
    high = float((drawing.get("height") or "").removesuffix("mm"))
    code = float(next(drawing.iter(f"{SVG}svg")).get("x") or 0) or min(
        float(one.get("x") or 0) for one in drawing.iter(f"{SVG}svg") if one is not drawing
    )
    for text in drawing.iter(f"{SVG}text"):
        size_mm = float(text.get("font-size") or 0)
        assert 0 < float(text.get("y") or 0) <= high
        assert 2 + 0.5 * size_mm * len(text.text or "") <= code + 0.5
    assert "<script" not in svg
    assert labels_page((Label(title, tuple(lines), "http://127.0.0.1/"),), size).count("<svg") >= 1
