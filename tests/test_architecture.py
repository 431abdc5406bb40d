"""What holds for the whole house: sizes, docstrings of the core, one name per subject."""

import ast
import functools
import re
from collections.abc import Iterator
from pathlib import Path

from tests.mutations.changes import CHANGES
from vallostasis.api.subjects import OF_SUBJECT
from vallostasis.core.records.route_marks import Operation
from vallostasis.core.records.rows import Quantity
from vallostasis.core.subjects import SUBJECTS

ROOT = Path(__file__).resolve().parent.parent
MOST_MODULE_LINES = 400
MOST_COMPONENT_LINES = 220
LEAST_SHARE_OF_TESTS = 0.2


def _sources(folder: str, pattern: str) -> list[Path]:
    return [path for path in sorted((ROOT / folder).rglob(pattern)) if "generated" not in path.parts]


# What is looked through is read when a test asks for it: every worker collects all tests.
@functools.cache
def _core_modules() -> dict[str, ast.Module]:
    return {str(path.relative_to(ROOT)): ast.parse(path.read_text(encoding="utf-8"))
            for path in _sources("vallostasis/core", "*.py")}  # fmt: skip


def _core_functions() -> Iterator[tuple[str, ast.FunctionDef]]:
    for name, module in _core_modules().items():
        for node in module.body:
            if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
                yield f"{name}:{node.name}", node


def _longer(paths: list[Path], most: int) -> list[str]:
    return [str(path) for path in paths if len(path.read_text(encoding="utf-8").splitlines()) > most]


def test_modules_stay_readable() -> None:
    assert _longer(_sources("vallostasis", "*.py"), MOST_MODULE_LINES) == []


def test_components_stay_readable() -> None:
    assert _longer(_sources("web/src", "*.vue"), MOST_COMPONENT_LINES) == []


def _length_of(paths: list[Path]) -> int:
    return sum(len(path.read_text(encoding="utf-8").splitlines()) for path in paths)


def test_a_fifth_of_the_front_end_is_tests() -> None:
    """Whoever moves in brings tests of their own: by the browser alone a wrong entry is found late."""
    everything = _length_of(_sources("web/src", "*.ts") + _sources("web/src", "*.vue"))
    tests = _length_of(_sources("web/src", "*.test.ts") + _sources("web/src/testing", "*.ts"))
    assert tests / everything >= LEAST_SHARE_OF_TESTS


def test_docstring_and_signature_of_core_functions_agree() -> None:
    """Where parameters are described, each one is; where a section is given, its order is numpydoc's."""
    for name, function in _core_functions():
        text = ast.get_docstring(function) or ""
        assert text, f"{name} says what it does"
        sections = [s for s in re.findall(r"^(\w+)\n-+$", text, re.M)]
        order = ["Parameters", "Returns", "Raises", "Notes", "References"]
        assert sections == [section for section in order if section in sections], name
        if "Parameters" in sections:
            described = text.split("Parameters\n----------\n")[1].split("\n\n")[0]
            lines = re.findall(r"^(\w[\w, ]*?)(?: :|$)", described, re.M)
            names = {part.strip() for line in lines for part in line.split(",")}
            assert names == {argument.arg for argument in function.args.args}, name


def test_core_functions_with_lengths_name_their_unit() -> None:
    for name, function in _core_functions():
        if any(argument.arg.endswith("_m") for argument in function.args.args):
            assert "[m]" in (ast.get_docstring(function) or ""), name


SOURCE = re.compile(
    r"GUM|JCGM|ISO \d|References|common practice|from memory|house rule|house convention|closed form|definition|Lamé"
    r"|1959|least squares|D'Agostino|\[\d\]_",
    re.I,
)
KERNELS = {"hypot", "sqrt", "weighted", "mean_of", "difference_of", "stated", "lstsq", "pinv", "brentq", "combine"}


def _computes(function: ast.FunctionDef) -> bool:
    """True for arithmetic beyond counting on by one, and for calls of what the arithmetic is made of."""
    calls = {ast.unparse(node.func).split(".")[-1] for node in ast.walk(function) if isinstance(node, ast.Call)}
    return bool(calls & KERNELS) or any(
        isinstance(node, ast.BinOp)
        and isinstance(node.op, ast.Mult | ast.Div | ast.Pow | ast.Sub)
        and not any(isinstance(part, ast.Constant) and isinstance(part.value, str) for part in ast.walk(node))
        for node in ast.walk(function)
    )


def _formulas() -> Iterator[tuple[str, ast.FunctionDef]]:
    for path, module in _core_modules().items():
        for body in [module.body, *(node.body for node in ast.walk(module) if isinstance(node, ast.ClassDef))]:
            for node in body:
                if isinstance(node, ast.FunctionDef) and not node.name.startswith("_") and _computes(node):
                    yield f"{path}:{node.lineno}:{node.name}", node


def test_every_formula_of_the_core_names_its_source() -> None:
    nameless = [name for name, node in _formulas() if not SOURCE.search(ast.get_docstring(node) or "")]
    assert nameless == []


def test_core_tests_know_neither_the_demo_nor_the_services() -> None:
    for folder in ("tests/core", "tests/truth"):
        for path in _sources(folder, "*.py"):
            imports = re.findall(r"^(?:from|import) (vallostasis\.\w+)", path.read_text(encoding="utf-8"), re.M)
            assert set(imports) <= {"vallostasis.core"}, path


def test_the_core_has_no_clock_and_no_files() -> None:
    for path in _sources("vallostasis/core", "*.py"):
        text = path.read_text(encoding="utf-8")
        # Drawing from a seeded generator is a sum like any other.
        text = text.replace("np.random.default_rng(seed)", "")
        assert not re.search(r"datetime\.now|time\.time|open\(|Path\(|random\.", text), path


def test_sql_stands_in_the_store_only() -> None:
    statement = re.compile(r"\b(SELECT .* FROM|INSERT INTO|UPDATE \w+ SET|DELETE FROM)\b", re.S)
    for path in _sources("vallostasis", "*.py"):
        if "store" not in path.parts:
            assert not statement.search(path.read_text(encoding="utf-8")), path


def test_nothing_is_left_to_be_done_later() -> None:
    words = re.compile("|".join(("TO" + "DO", "FIX" + "ME", "X" * 3, "Not" + "ImplementedError")))
    for path in [*_sources("vallostasis", "*.py"), *_sources("web/src", "*.vue"), *_sources("web/src", "*.ts")]:
        assert not words.search(path.read_text(encoding="utf-8")), path


LARGEST_ROOM = 0.2
ROOMS = sorted(path for path in (ROOT / "vallostasis/core").iterdir() if (path / "__init__.py").exists())


def _lines(folder: Path) -> int:
    return sum(len(path.read_text(encoding="utf-8").splitlines()) for path in folder.rglob("*.py"))


def test_no_room_of_the_core_holds_more_than_a_fifth_of_it() -> None:
    most = LARGEST_ROOM * _lines(ROOT / "vallostasis/core")
    assert [room.name for room in ROOMS if _lines(room) > most] == []


def test_a_subject_brings_its_room_its_features_and_its_endpoints() -> None:
    """What a subject must bring; each feature belongs to one subject."""
    names = [subject.name for subject in SUBJECTS]
    assert set(names) <= {room.name for room in ROOMS}
    assert sorted(quantity for subject in SUBJECTS for quantity in subject.quantities) == sorted(Quantity)
    assert sorted(one for subject in SUBJECTS for one in subject.operations) == sorted(Operation)
    assert list(OF_SUBJECT) == names
    for subject in SUBJECTS:
        assert set(subject.checks) <= set(subject.quantities)


def test_only_the_registers_go_over_all_subjects() -> None:
    """Who asks what a subject says asks the register: nothing else names the functions that stand in it."""
    registered = [subject.need for subject in SUBJECTS if subject.need is not None]
    for function in registered:
        room = Path(function.__code__.co_filename).relative_to(ROOT)
        allowed = {str(room), "vallostasis/core/subjects.py"}
        naming = {
            str(path.relative_to(ROOT))
            for path in _sources("vallostasis", "*.py")
            if re.search(rf"\b{function.__name__}\b", path.read_text(encoding="utf-8"))
        }
        assert naming == allowed
    main = (ROOT / "vallostasis/main.py").read_text(encoding="utf-8")
    assert not any(f"import {subject.name}" in main for subject in SUBJECTS)


def test_the_screens_name_lenses_and_views_in_one_place() -> None:
    """Lenses, their letters and the views of a job and of the shop stand in shared/subjects.ts, and nowhere else."""
    listed = ROOT / "web/src/shared/subjects.ts"
    assert "LENSES" in listed.read_text(encoding="utf-8")
    for path in [*_sources("web/src", "*.vue"), *_sources("web/src", "*.ts")]:
        if path != listed and not path.name.endswith(".test.ts"):
            text = path.read_text(encoding="utf-8")
            assert not re.search(r"'protrusion' *[|] *'counterbore'|label: 'Counterbore'|label: 'Block'", text), path


def test_every_change_to_try_still_has_its_place() -> None:
    for file, old, new in CHANGES:
        assert (ROOT / "vallostasis/core" / file).read_text(encoding="utf-8").count(old) == 1, (file, old)
        assert old != new


LONGEST_TEMPLATE_LINE = 270


def test_templates_stay_readable() -> None:
    for path in _sources("vallostasis/documents/templates", "*.*"):
        assert max(map(len, path.read_text(encoding="utf-8").splitlines())) <= LONGEST_TEMPLATE_LINE, path


def test_files_named_in_the_documents_are_there() -> None:
    """A file is named by its own name or with the folders it lies in, as far as they are told."""
    kept = {path.as_posix() for folder in ("vallostasis", "tests", "benchmarks", "web/src")
            for path in [*(ROOT / folder).rglob("*.*"), *(ROOT / "web").glob("*.*")]}  # fmt: skip
    documents = [ROOT / "README.md", *sorted((ROOT / "docs").glob("*.md"))]
    file_name = re.compile(r"(?<![\w./-])[a-z][\w./-]*\.(?:py|vue|ts|css|sql)\b")
    named = [(one.name, name) for one in documents for name in file_name.findall(one.read_text("utf-8"))]
    assert len(named) > 20
    assert [one for one in named if not any(path.endswith(f"/{one[1]}") for path in kept)] == []
