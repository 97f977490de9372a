"""House rules of the apps, held by tests: their layers, thin doors, and what a test may compare with."""

import ast
import re
import unittest
from pathlib import Path

APPS = Path(__file__).resolve().parent.parent
LAYERS = (
    ("settings",),
    ("common",),
    ("accounts",),
    ("ground",),
    ("shelf",),
    ("kit", "water", "book"),
    ("passes", "reckon", "sky"),
    ("rounds",),
    ("season",),
    ("today", "demo"),
    ("api",),
    ("urls", "openapi"),
    ("wsgi", "settings_test"),
    ("serve",),
)
"""From the ground up: an app may ask those below it."""


def modules() -> list[tuple[str, Path, ast.Module]]:
    """Each module of the apps with the layer's name it belongs to; tests and migrations stand outside."""
    found = []
    for path in APPS.rglob("*.py"):
        parts = path.relative_to(APPS).parts
        if "tests" in parts or "migrations" in parts or parts == ("__init__.py",):
            continue
        found.append((parts[0].removesuffix(".py"), path, ast.parse(path.read_text(encoding="utf-8"))))
    return found


def imported(tree: ast.Module) -> set[str]:
    """The apps that a module imports."""
    found = set()
    for node in ast.walk(tree):
        if isinstance(node, ast.ImportFrom) and node.module and node.module.split(".")[0] == "greenmeasure":
            rest = node.module.split(".")[1:]
            found |= {rest[0]} if rest else {a.name for a in node.names}
    return found


class Layers(unittest.TestCase):
    def test_imports_run_down_only(self) -> None:
        level = {name: i for i, layer in enumerate(LAYERS) for name in layer}
        for here, path, tree in modules():
            self.assertIn(here, level, "a new app needs a layer")
            for name in imported(tree) - {here}:
                self.assertLess(level[name], level[here], f"{path.relative_to(APPS)} reaches up or across to {name}")

    def test_doors_ask_no_database(self) -> None:
        """An `api.py` finds its rows by `one` and hands them on; it filters nothing itself."""
        asks = re.compile(r"\.(exclude|create|update|aggregate)\(")
        for _, path, _ in modules():
            if path.name == "api.py" and path.parent != APPS:
                self.assertFalse(asks.search(path.read_text(encoding="utf-8")), path)


def lines_with(words: str, folder: Path, pattern: str) -> int:
    """How many lines of a folder's files hold some words."""
    files = [p for p in folder.rglob(pattern) if not {"node_modules", ".venv"} & set(p.parts)]
    return sum(words in line for p in files for line in p.read_text(encoding="utf-8").splitlines())


class Formatting(unittest.TestCase):
    def test_the_formatter_is_on(self) -> None:
        root = APPS.parent
        self.assertLess(lines_with("fmt: " + "skip", root, "*.py"), 60)
        self.assertLess(lines_with("prettier-" + "ignore", root / "web" / "src", "*.ts*"), 5)
