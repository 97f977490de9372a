"""The glossary has no orphan: each term stands in the interface, its manual or its answers, and no word has two entries."""

import re
import unittest

from django.conf import settings

ROOT = settings.ROOT
LINE = re.compile(r"^- \*\*(.+?)\*\*(?: \((.+?)\))?: (.+)$", re.MULTILINE)
TERMS = LINE.findall((ROOT / "docs" / "manual" / "glossary.md").read_text(encoding="utf-8"))
READ = [
    path.read_text(encoding="utf-8").lower()
    for folder, pattern in (("web/src", "*.ts*"), ("core", "*.py"), ("greenmeasure", "*.py"), ("docs/manual", "[0-9]*.md"))
    for path in (ROOT / folder).rglob(pattern)
    if "tests" not in path.parts and "schema.d" not in path.name
]
FIELDS = {
    label.lower()
    for path in (ROOT / "web" / "src").rglob("*.tsx")
    for label in re.findall(r'label="([^"]+)"', path.read_text(encoding="utf-8"))
}


class Glossary(unittest.TestCase):
    def test_every_line_is_an_entry_and_ends_as_a_sentence(self) -> None:
        text = (ROOT / "docs" / "manual" / "glossary.md").read_text(encoding="utf-8")
        self.assertEqual(len(TERMS), sum(line.startswith("- ") for line in text.splitlines()))
        self.assertEqual([term for term, _, said in TERMS if not said.endswith(".")], [])

    def test_no_term_is_an_orphan(self) -> None:
        orphans = []
        for term, also, _ in TERMS:
            names = [n.lower() for n in (term, *filter(None, also.split("; ")))]
            if not any(re.search(rf"\b{re.escape(n)}", text) for n in names for text in READ):
                orphans.append(term)
        self.assertEqual(orphans, [])

    def test_a_word_has_one_entry(self) -> None:
        words = [w.lower() for term, also, _ in TERMS for w in (term, *filter(None, also.split("; ")))]
        self.assertEqual(sorted({w for w in words if words.count(w) > 1}), [])

    def test_the_trades_fields_have_their_line(self) -> None:
        """Labels of fields that a newcomer cannot know (ours)."""
        known = {w.lower() for term, also, _ in TERMS for w in (term, *filter(None, also.split("; ")))}
        asked = {"formulation", "group code", "density", "swath", "output of one pass", "rate, as printed", "target", "setting"}
        asked |= {"height of cut", "size of the tips", "lot number", "passes", "keep away", "days, from"}
        self.assertEqual(asked - FIELDS, set(), "they stand on forms")
        self.assertEqual(asked - known, set())

    def test_entries_that_refer_to_others_find_them(self) -> None:
        known = {w.lower() for term, also, _ in TERMS for w in (term, *filter(None, also.split("; ")))}
        told = {m.lower() for _, _, said in TERMS for m in re.findall(r"^see ([a-z ]+)\.$", said)}
        self.assertTrue(told)
        self.assertEqual(told - known, set())
