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

    def test_bare_floats_say_their_unit(self) -> None:
        """A public function that takes two or more bare floats names a unit in brackets, or says what they share."""
        for path, tree in trees():
            for node in tree.body:
                if not isinstance(node, ast.FunctionDef) or node.name.startswith("_"):
                    continue
                args = [*node.args.args, *node.args.kwonlyargs]
                floats = [a for a in args if a.annotation and ast.unparse(a.annotation) == "float"]
                if len(floats) >= 3:
                    said = ast.get_docstring(node) or ""
                    self.assertTrue(re.search(r"\[[^\]]+\]|in one unit", said), f"{path.name}: {node.name}")
