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
    ("ledger",),
    ("work", "scouting"),
    ("passes", "sky"),
    ("reckon",),
    ("rounds",),
    ("programme",),
    ("season", "trials", "planner", "stores"),
    ("outings",),
    ("today", "story", "proof", "outcomes", "archive"),
    ("demo",),
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


PRESENTERS = {"words.py", "bench_words.py", "outs.py"}
NO_PLACE = {"common", "accounts", "demo"}
"""No view of their own: what they say are answers to requests that failed, and the words of a command."""
FAULTS = {"InputError", "Refused", "Conflict", "Missing", "add"}


def phrases(node: ast.AST) -> list[str]:
    """The sentences that a piece of code says to people: not those of its docstrings, nor those that name a fault."""
    if isinstance(node, ast.Raise) or (isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant)):
        return []
    if isinstance(node, ast.keyword) and node.arg == "__doc__":
        return []
    if isinstance(node, ast.Call) and ast.unparse(node.func).split(".")[-1] in FAULTS:
        return []
    said = None
    if isinstance(node, ast.Constant) and isinstance(node.value, str):
        said = node.value
    if isinstance(node, ast.JoinedStr):
        said = "".join(v.value if isinstance(v, ast.Constant) and isinstance(v.value, str) else "{}" for v in node.values)
    if said is not None:
        return [said] if re.search(r"[a-z}]\.$", said.strip()) and len(re.findall(r"[A-Za-z]{2,}", said)) > 2 else []
    return [p for child in ast.iter_child_nodes(node) for p in phrases(child)]


class Wording(unittest.TestCase):
    def test_sentences_stand_in_the_presenters(self) -> None:
        """What finds and changes does not phrase: an app's sentences are in its `words`, where one reads them together."""
        for here, path, tree in modules():
            if (
                path.name in PRESENTERS | {"models.py", "settings.py"}
                or path.parent == APPS
                or here in NO_PLACE
                or "commands" in path.parts
            ):
                continue
            with self.subTest(path.relative_to(APPS)):
                self.assertEqual(phrases(tree), [])

    def test_that_test_can_fail(self) -> None:
        self.assertEqual(phrases(ast.parse("x = f'{a} goes as far as {b}.'")), ["{} goes as far as {}."])
        self.assertEqual(phrases(ast.parse("raise InputError('x', f'{a} is no number here.')")), [])


GONE = (
    r"Found a new club|\bOf it\b|Not said|In and out|Counts as|[Ll]eave out the|Leave out|[Ff]oretold|>Over<|title=\"Over\""
    r"|On\. Show it|label=\"For\"|The house starts low|\bMind\b"
)
"""Words that the interface had, and that nobody would say: see the table of plain ones in docs/words.md."""


def spoken(source: str) -> str:
    """What a view's source says to people: its texts and attributes, without comments, styles and code."""
    plain = re.sub(r"/\*.*?\*/|^\s*//.*$|^import .*$|styled[\w.()]*`.*?`", "", source, flags=re.DOTALL | re.MULTILINE)
    return "\n".join(re.findall(r"[\w-]+=\"[^\"]*\"|\"[^\"\n]*\"|`[^`]*`|>[^<>{}]+<", plain))


class Plain(unittest.TestCase):
    def test_the_interface_speaks_plainly(self) -> None:
        views = APPS.parent / "web" / "src"
        for path in sorted(p for p in views.rglob("*.tsx")):
            with self.subTest(path.relative_to(views)):
                self.assertEqual(re.findall(GONE, spoken(path.read_text(encoding="utf-8"))), [])

    def test_that_test_can_fail(self) -> None:
        self.assertEqual(re.findall(GONE, spoken("<h2>In and out</h2>")), ["In and out"])
        self.assertEqual(re.findall(GONE, spoken("/** What is foretold. */\nconst Mind = styled.p``;")), [])


def lines_with(words: str, folder: Path, pattern: str) -> int:
    """How many lines of a folder's files hold some words."""
    files = [p for p in folder.rglob(pattern) if not {"node_modules", ".venv"} & set(p.parts)]
    return sum(words in line for p in files for line in p.read_text(encoding="utf-8").splitlines())


class Formatting(unittest.TestCase):
    def test_the_formatter_is_on(self) -> None:
        root = APPS.parent
        self.assertLess(lines_with("fmt: " + "skip", root, "*.py"), 60)
        self.assertLess(lines_with("prettier-" + "ignore", root / "web" / "src", "*.ts*"), 5)
