"""Outlines: every step of every one is a step that can be, its targets are known, its rates within what labels count."""

import unittest
from datetime import date

import numpy as np

from core.grasses import Sward
from core.label.product import Kind
from core.label.targets import find_target
from core.season.outlines import OUTLINES, fits
from core.season.steps import Around, Warm, turns


class Outlines(unittest.TestCase):
    def test_every_step_can_be(self) -> None:
        for outline in OUTLINES.values():
            self.assertTrue(outline.source and outline.told)
            for sketch in outline.steps:
                with self.subTest(outline=outline.key, step=sketch.name):
                    when = sketch.when(2031)
                    self.assertTrue(turns(when, Around(None if not sketch.soil else WARM)))
                    self.assertTrue(sketch.why)
                    self.assertTrue(not sketch.target or find_target(sketch.target))
                    self.assertEqual(bool(sketch.nitrogen), sketch.kind is Kind.FERTILISER)

    def test_what_they_are_for(self) -> None:
        def keys(grass: str, use: str) -> set[str]:
            return {o.key for o in OUTLINES.values() if fits(o, Sward(grass), use)}

        self.assertIn("cool_spoon", keys("creeping_bentgrass", "green"))
        self.assertNotIn("cool_spoon", keys("creeping_bentgrass", "lawn"))
        self.assertEqual(keys("zoysiagrass", "lawn"), {"warm_lawn"})

    def test_a_season_of_nitrogen_is_a_usual_one(self) -> None:
        """Cool lawns take 2 to 4 lb of N per 1000 ft² a year, little effort 1 and more: extension teaching, from memory."""
        for key, low, high in (("cool_easy", 1.0, 2.0), ("cool_show", 2.0, 4.0), ("cool_base", 2, 4), ("warm_lawn", 2, 4)):
            total = sum(s.nitrogen * len(turns(s.when(2031))) for s in OUTLINES[key].steps)
            self.assertTrue(low <= total <= high, (key, total))


WARM = Warm(date(2031, 1, 1), np.full(200, 20.0), np.full(200, 20.0), date(2031, 6, 1))
