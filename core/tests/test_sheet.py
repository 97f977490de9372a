"""Mix sheets as documents: written and read alike, of either version, with anything missing, and from a newer hand."""

import json
import unittest
from pathlib import Path
from typing import Any

from core.job.sheet import (
    VERSION,
    Amount,
    Sheet,
    SheetAct,
    SheetComponent,
    SheetDose,
    SheetLoad,
    SheetPart,
    SheetPour,
    SheetText,
    read_sheet,
)

SHEET = Sheet(
    headline="Pour 4 fl oz of Spray for green: one tank of 2 gal.",
    mix=(SheetComponent("Spray", "main", "Rust", Amount(4.0, "fl_oz"), "3.20 USD"), SheetComponent("Dye", "colourant")),
    where="green",
    machine="Can",
    capacity="2 gal",
    spray=Amount(2.0, "gal"),
    parts=(SheetPart("green", Amount(2000.0, "ft2"), (SheetDose("2 fl oz/1000 ft²", "1 to 2 fl oz per 1000 ft²"), SheetDose())),),
    loads=(
        SheetLoad(
            1,
            "Tank 1",
            pours=(SheetPour("Spray", Amount(4.0, "fl_oz")), SheetPour("Dye")),
            volume=Amount(2.0, "gal"),
            share=1.0,
            acts=(SheetAct("half", "Half the water", "1 gal", 0.5), SheetAct("product", "Pour it in", "4 fl oz", 0.52)),
        ),
        SheetLoad(2, "Tank 2", acts=(SheetAct("half", "Half the water"),)),
    ),
    wear=(SheetText("mixing-0", "Gloves", "mixing"), SheetText("applying-0", "Boots", "applying")),
)


def through(document: Any) -> Sheet:
    """The document as it comes back from where it is stored."""
    return read_sheet(json.loads(json.dumps(document)))


class Documents(unittest.TestCase):
    def test_what_is_written_is_read_back(self) -> None:
        self.assertEqual(through(SHEET.document()), SHEET)
        self.assertEqual(SHEET.document()["version"], VERSION)

    def test_any_field_may_be_missing_or_nonsense_and_the_rest_is_shown(self) -> None:
        whole = json.loads(json.dumps(SHEET.document()))
        for name in [k for k in whole if k != "version"]:
            for wrong in (None, 7, "x", [], {}, [None], [[]], {"value": "x"}):
                with self.subTest(name, wrong=wrong):
                    read_sheet(whole | {name: wrong})
            left = {k: v for k, v in whole.items() if k != name}
            found = through(left)
            if name != "mix":
                self.assertEqual(found.product, "Spray and Dye")
            told = name in ("headline", "mix", "loads", "wear", "parts")
            self.assertEqual(bool(found.problem), told, name)

    def test_any_field_of_a_load_may_be_missing(self) -> None:
        for name in SHEET.document()["loads"][0]:
            document = json.loads(json.dumps(SHEET.document()))
            document["loads"][0].pop(name)
            self.assertEqual(through(document).loads[1], SHEET.loads[1])

    def test_what_is_no_document_is_told(self) -> None:
        for wrong in (None, [], "sheet", 3):
            self.assertIn("cannot be read", read_sheet(wrong).problem)

    def test_a_newer_hand_is_told(self) -> None:
        self.assertIn("newer", read_sheet({"version": VERSION + 1}).problem)


class Ticking(unittest.TestCase):
    def test_what_may_be_ticked_is_read_from_it(self) -> None:
        held = [(0, "mixing-0"), (0, "applying-0"), (1, "half"), (1, "product"), (2, "half")]
        self.assertTrue(all(SHEET.holds(*act) for act in held))
        for act in ((0, "half"), (2, "product"), (3, "half"), (1, "")):
            self.assertFalse(SHEET.holds(*act), act)

    def test_gear_for_mixing_then_the_loads_in_turn(self) -> None:
        self.assertFalse(SHEET.worn(set()))
        done = {(0, "mixing-0"), (1, "half")}
        self.assertTrue(SHEET.worn(done))
        following = SHEET.next_act(done)
        assert following
        self.assertEqual((following[0].name, following[1].key), ("Tank 1", "product"))
        self.assertEqual(SHEET.loads_done(done), 0)
        self.assertEqual(SHEET.loads_done(done | {(1, "product")}), 1)
        self.assertIsNone(SHEET.next_act(done | {(1, "product"), (2, "half")}))


class VersionOne(unittest.TestCase):
    """The answer that the API gave at a start before sheets had a version, as that landing stored it."""

    OLD = json.loads((Path(__file__).parent / "data" / "sheet_1.json").read_text(encoding="utf-8"))

    def test_it_says_what_it_said(self) -> None:
        found = through(self.OLD)
        self.assertEqual(found.problem, "")
        self.assertEqual((found.headline, found.product), (self.OLD["headline"], self.OLD["product"]))
        (only,) = found.mix
        self.assertEqual(str(only.amount), self.OLD["amount"]["text"])
        self.assertEqual(str(found.spray), self.OLD["spray"])
        self.assertEqual(found.cost, self.OLD["cost"]["total"])
        for load, old in zip(found.loads, self.OLD["loads"], strict=True):
            (pour,) = load.pours
            self.assertEqual((str(pour.amount), str(load.volume), load.covers), (old["product"], old["volume"], old["covers"]))
            self.assertEqual([a.text for a in load.acts], [a["text"] for a in old["acts"]])
            self.assertEqual(pour.measure.instruction, old["measure"]["instruction"])
            self.assertIsNotNone(pour.amount.quantity, "its quantities are read back, not only shown")
        self.assertEqual([w.text for w in found.wear], [w["text"] for w in self.OLD["wear"]])
        self.assertEqual([d.rate for p in found.parts for d in p.doses], [p["rate"]["text"] for p in self.OLD["parts"]])
        said = [f["sentence"] for p in self.OLD["parts"] for f in p["findings"]]
        self.assertEqual([f.text for f in found.findings if f.part], said)
        self.assertGreater(len(said), 0)

    def test_it_is_written_as_the_version_of_now_without_a_loss(self) -> None:
        found = through(self.OLD)
        self.assertEqual(through(found.document()), found)

    def test_anything_of_it_may_be_missing(self) -> None:
        for name in self.OLD:
            for changed in ({k: v for k, v in self.OLD.items() if k != name}, self.OLD | {name: None}, self.OLD | {name: "x"}):
                with self.subTest(name):
                    self.assertIsInstance(through(changed), Sheet)


class VersionTwo(unittest.TestCase):
    """A sheet of one product, as it was written before there were mixes."""

    OLD: dict[str, Any] = {
        "version": 2,
        "headline": "Pour 4 fl oz of Spray for green: one tank of 2 gal.",
        "product": "Spray",
        "where": "green",
        "target": "Rust",
        "machine": "Can",
        "passes": 1,
        "capacity": "2 gal",
        "amount": {"value": 4.0, "unit": "fl_oz", "text": ""},
        "spray": {"value": 2.0, "unit": "gal", "text": ""},
        "cost": "3.20 USD",
        "parts": [{"name": "green", "treated": {"value": 2000.0, "unit": "ft2"}, "rate": "2 fl oz/1000 ft²", "label": "1 to 2"}],
        "loads": [
            {
                "number": 1,
                "name": "Tank 1",
                "product": {"value": 4.0, "unit": "fl_oz"},
                "volume": {"value": 2.0, "unit": "gal"},
                "measure": {"instruction": "4 fl oz", "vessel": None},
                "acts": [{"key": "pour-0", "text": "Pour it in", "pours": "Spray", "level": 0.5}],
            }
        ],
        "wear": [{"key": "mixing-0", "text": "Gloves", "when": "mixing"}],
    }

    def test_it_is_a_mix_of_one(self) -> None:
        found = through(self.OLD)
        self.assertEqual(found.problem, "")
        self.assertEqual(found.mix, (SheetComponent("Spray", "", "Rust", Amount(4.0, "fl_oz"), "3.20 USD"),))
        self.assertEqual(found.parts[0].doses, (SheetDose("2 fl oz/1000 ft²", "1 to 2"),))
        (pour,) = found.loads[0].pours
        self.assertEqual((pour.product, pour.amount, pour.measure.instruction), ("Spray", Amount(4.0, "fl_oz"), "4 fl oz"))
        self.assertTrue(found.holds(1, "pour-0"), "its ticks stay with their acts")
        self.assertEqual(through(found.document()), found)

    def test_anything_of_it_may_be_missing(self) -> None:
        for name in self.OLD:
            for changed in ({k: v for k, v in self.OLD.items() if k != name}, self.OLD | {name: None}, self.OLD | {name: "x"}):
                with self.subTest(name):
                    self.assertIsInstance(through(changed), Sheet)
