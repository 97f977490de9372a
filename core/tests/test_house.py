"""House rules of the core, held by tests: it reaches for nothing above it, and its words say their units."""

import ast
import re
import unittest
from pathlib import Path

CORE = Path(__file__).resolve().parent.parent
FILES = [p for p in CORE.rglob("*.py") if "tests" not in p.parts]
ALLOWED = {"core", "pint", "numpy", "scipy", "shapely", "pyproj", "astral"}


def trees() -> list[tuple[Path, ast.Module]]:
    return [(p, ast.parse(p.read_text(encoding="utf-8"))) for p in FILES]


class House(unittest.TestCase):
    def test_the_core_imports_nothing_of_the_rest(self) -> None:
        import sys

        for path, tree in trees():
            for node in ast.walk(tree):
                names = [a.name for a in node.names] if isinstance(node, ast.Import) else []
                if isinstance(node, ast.ImportFrom):
                    names = [node.module or ""]
                for name in names:
                    top = name.split(".")[0]
                    self.assertTrue(top in ALLOWED or top in sys.stdlib_module_names, f"{path.name} imports {name}")

    def test_the_core_reads_no_clock_file_or_dice(self) -> None:
        banned = {"datetime.now", "date.today", "time.time", "random.random", "Path.read_text"}
        for path, tree in trees():
            calls = {ast.unparse(n.func) for n in ast.walk(tree) if isinstance(n, ast.Call)}
            self.assertFalse(calls & (banned | {"open", "print", "input"}), path.name)

    def test_every_module_class_and_public_function_has_a_docstring_or_says_it_by_its_name(self) -> None:
        for path, tree in trees():
            self.assertTrue(ast.get_docstring(tree), path)
            for node in tree.body:
                public = isinstance(node, ast.FunctionDef | ast.ClassDef) and not node.name.startswith("_")
                if public and isinstance(node, ast.ClassDef):
                    self.assertTrue(ast.get_docstring(node), f"{path.name}: {node.name}")
                if public and isinstance(node, ast.FunctionDef) and len(node.body) > 2:
                    self.assertTrue(ast.get_docstring(node), f"{path.name}: {node.name}")

    def test_every_float_and_array_says_its_unit(self) -> None:
        """Each parameter that is a bare number, or numbers, names its unit in brackets beside its name in the docstring."""
        count = 0
        for path, node in functions():
            said = (ast.get_docstring(node) or "").replace("\n", " ")
            for arg in [*node.args.posonlyargs, *node.args.args, *node.args.kwonlyargs]:
                if arg.annotation is None or not bare(ast.unparse(arg.annotation)):
                    continue
                count += 1
                named = re.search(rf"(?<!\w){arg.arg}\b[^\n]*?\[[^\]]+\]", said)
                self.assertTrue(named, f"{path.relative_to(CORE)}: {node.name}({arg.arg}) does not say its unit")
        self.assertGreater(count, 150)

    def test_that_test_can_fail(self) -> None:
        self.assertTrue(bare("float | None") and bare("NDArray[np.float64]") and bare("Sequence[float]"))
        self.assertFalse(bare("str") or bare("Callable[[float], float]") or bare("NDArray[np.bool_]"))


COMPARE = re.compile(r"assert(AlmostEqual|Equal|Less|Greater|In|LessEqual|GreaterEqual)$")


SCIENCE = (CORE.parent / "docs" / "science.md").read_text(encoding="utf-8")


def numbered(tree: ast.Module) -> bool:
    """Whether a module holds a constant with a number in it that is not nought or one."""
    for node in tree.body:
        if isinstance(node, ast.Assign | ast.AnnAssign) and node.value:
            target = node.targets[0] if isinstance(node, ast.Assign) else node.target
            names = [x.id for x in ast.walk(target) if isinstance(x, ast.Name)]
            numbers = [x.value for x in ast.walk(node.value) if isinstance(x, ast.Constant) and type(x.value) in (int, float)]
            if any(re.fullmatch(r"_?[A-Z][A-Z0-9_]*", n) for n in names) and any(v not in (0, 1) for v in numbers):
                return True
    return False


def unsourced(test: ast.FunctionDef, lines: list[str]) -> bool:
    """Whether a test compares with a decimal of its own and nowhere says where that comes from."""
    calls = [n for n in ast.walk(test) if isinstance(n, ast.Call) and COMPARE.match(ast.unparse(n.func).split(".")[-1])]
    figures = [k.value for call in calls for k in ast.walk(call) if isinstance(k, ast.Constant)]
    decimal = any(isinstance(v, float) or (isinstance(v, str) and re.search(r"\d\.\d", v)) for v in figures)
    said = ast.get_docstring(test) or any("#" in line for line in lines[test.lineno - 1 : test.end_lineno])
    return decimal and not said


class Sources(unittest.TestCase):
    def test_a_tests_number_names_its_source(self) -> None:
        """A published source, a sum by hand, a reference library, "common practice, no source" or "from memory"."""
        root, count = CORE.parent, 0
        for path in [p for folder in ("core", "greenmeasure", "e2e") for p in (root / folder).rglob("test_*.py")]:
            text = path.read_text(encoding="utf-8")
            for case in [n for n in ast.parse(text).body if isinstance(n, ast.ClassDef) and not ast.get_docstring(n)]:
                for test in [n for n in case.body if isinstance(n, ast.FunctionDef) and n.name.startswith("test")]:
                    count += 1
                    self.assertFalse(unsourced(test, text.splitlines()), f"{path.name}: {test.name}")
        self.assertGreater(count, 800)

    def test_every_module_with_a_number_of_its_own_is_among_the_sources(self) -> None:
        named = re.findall(r"`([\w/]+\.py)`", SCIENCE)
        held = [str(path.relative_to(CORE.parent)) for path, tree in trees() if numbered(tree)]
        self.assertEqual([h for h in held if not any(h == n or h.endswith(f"/{n}") for n in named)], [], "see docs/science.md")

    def test_every_module_among_the_sources_is_there(self) -> None:
        known = {str(p.relative_to(CORE.parent)) for p in CORE.parent.rglob("*.py") if ".venv" not in p.parts}
        for name in re.findall(r"`([\w/]+\.py)`", SCIENCE):
            self.assertTrue(any(k == name or k.endswith(f"/{name}") for k in known), name)

    def test_that_a_number_is_seen(self) -> None:
        seen = [
            numbered(ast.parse(text)) for text in ("MOST = 12", "MOST = {'a': (2.5, 3)}", "NONE = 0", "NAME = 'a'", "most = 12")
        ]
        self.assertEqual(seen, [True, True, False, False, False])

    def test_that_test_can_fail(self) -> None:
        def read(text: str) -> bool:
            return unsourced(next(n for n in ast.parse(text).body if isinstance(n, ast.FunctionDef)), text.splitlines())

        self.assertTrue(read("def test(self):\n    self.assertEqual(f(), 0.25)"))
        self.assertFalse(read("def test(self):\n    # 1 ÷ 4\n    self.assertEqual(f(), 0.25)"))


LAYERS = (
    ("errors", "days", "trade_units"),
    ("units", "zones"),
    ("spans", "readable", "findings", "schools", "working"),
    ("grasses",),
    ("ground",),
    ("label",),
    ("rates",),
    ("areas", "soil", "water", "machines", "weather", "cautions", "scouting"),
    ("passes", "disease", "growth", "tank"),
    ("job",),
    ("ledger",),
    ("season", "book", "outing"),
    ("reckon",),
)
"""From the ground up: what stands in a layer may ask those below it, and its own folder."""


class Layers(unittest.TestCase):
    def test_imports_run_down_only(self) -> None:
        level = {name: i for i, layer in enumerate(LAYERS) for name in layer}
        for path, tree in trees():
            here = path.relative_to(CORE).parts[0].removesuffix(".py")
            if here == "__init__":
                continue
            self.assertIn(here, level, "a new folder or file needs a layer")
            for name in imported(tree):
                if name != here:
                    self.assertLess(level[name], level[here], f"{path.relative_to(CORE)} reaches up or across to {name}")

    def test_every_layer_is_there(self) -> None:
        found = {p.relative_to(CORE).parts[0].removesuffix(".py") for p, _ in trees()} - {"__init__"}
        self.assertEqual(found, {name for layer in LAYERS for name in layer})


def functions() -> list[tuple[Path, ast.FunctionDef]]:
    """Every public function and method of the core."""
    return [
        (path, node)
        for path, tree in trees()
        for body in [tree.body, *(n.body for n in tree.body if isinstance(n, ast.ClassDef))]
        for node in body
        if isinstance(node, ast.FunctionDef) and not node.name.startswith("_")
    ]


def bare(annotation: str) -> bool:
    """Whether a type is of bare numbers."""
    numbers = re.search(r"\bfloat\b|\bFloats\b|NDArray|ndarray", annotation)
    return bool(numbers) and "Callable" not in annotation and "bool" not in annotation


def imported(tree: ast.Module) -> set[str]:
    """The folders and files of the core that a module imports."""
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.ImportFrom) and node.module and node.module.split(".")[0] == "core":
            rest = node.module.split(".")[1:]
            found |= {rest[0]} if rest else {a.name for a in node.names}
    return found
