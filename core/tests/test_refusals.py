"""Bad input: every refusal names its field and its value, says what is wrong, and says what to do where it can."""

import unittest
from collections.abc import Callable
from dataclasses import replace
from datetime import date
from functools import partial

from core.areas.measure import Sketch, measure
from core.areas.radii import by_radii
from core.areas.rings import MOST_POSITIONS, by_rings, read_geometry, read_ring
from core.areas.taped import taped
from core.errors import InputError
from core.grasses import Sward
from core.label.phrase import read_label_rate
from core.label.product import Content, check_product
from core.label.rate import Basis, Rate
from core.rates.actual import actual_rate
from core.rates.reverse import rate_from_left, whole_package
from core.reckon.answer import convert_line, reach
from core.reckon.asked import ConversionAsked
from core.reckon.grammar import read_line
from core.reckon.names import Names
from core.soil.ph import PhReading, plan_ph
from core.soil.ph_tables import sulfur_need
from core.tank.measuring import check_cup
from core.tests.things import FEED, GREEN, LABEL, SPRAY, UREA
from core.units import UNITS, celsius, density, read_number, read_quantity, unit

FT = UNITS["ft"]
NAMES = Names(["North green"], ["Sedge SC"], ["Barrow"])


class Refusals(unittest.TestCase):
    def refused(self, field: str, words: str, act: Callable[[], object]) -> None:
        with self.assertRaises(InputError) as caught:
            act()
        found = caught.exception
        self.assertEqual(found.field.split(".")[0], field.split(".")[0], found.problem)
        self.assertIn(words, f"{found.problem} {found.remedy}")
        self.assertTrue(found.problem.endswith((".", "?")), found.problem)

    def test_units(self) -> None:
        self.refused("unit", "not a unit known here", lambda: unit("furlong"))
        self.refused("density", "not a unit of density", lambda: density("density", 9.0, "lb/ft"))
        self.refused("air", "not a unit of temperature", lambda: celsius("air", 20, "K"))
        for hot in (900.0, float("nan")):
            self.refused("air", "no temperature of air or soil", partial(celsius, "air", hot, "degC"))
        self.refused("value", "divides by zero", lambda: read_number("3/0", "value"))
        self.refused("value", "finite", lambda: read_number("9" * 400, "value"))
        self.refused("unit", "was not understood", lambda: read_quantity("3 fl oz weekly", "unit"))
        self.refused("unit", "measures length", lambda: read_quantity("3 ft", "unit", "volume"))
        self.refused("value", "is not a number", lambda: read_quantity("sq ft 20", "value"))

    def test_compositions(self) -> None:
        nameless = replace(FEED, contents=(Content("  ", Basis.N, percent=20),))
        self.refused("contents.0.name", "has no name", lambda: check_product(nameless))
        double = replace(FEED, contents=(Content("N", Basis.N, percent=20, g_per_l=200),))
        with self.assertRaises(InputError):
            check_product(double)

    def test_label_phrases(self) -> None:
        for phrase, words in (
            ("covers 4,000 to 5,000 sq ft per 16 lb bag", "range says no rate"),
            ("16 lb bag covers 4,000 to 5,000 sq ft", "not one area"),
            ("16 lb bag covers 3 gal", "not one area"),
            ("2 lb per 1,000", "does not say of what"),
        ):
            self.refused("rate", words, partial(read_label_rate, phrase, "rate"))

    def test_what_was_really_used(self) -> None:
        # 32 fl oz in 100 gal: 32 ÷ 12,800 = 0.25 %.
        share = read_label_rate("0.25 % v/v")
        ground = GREEN.size
        self.refused("spray", "Enter the spray volume", lambda: actual_rate(SPRAY, share, read_quantity("4 fl oz"), ground, None))
        dry = replace(SPRAY, density_g_per_l=None)
        self.refused("used", "add the density", lambda: actual_rate(dry, LABEL, read_quantity("4 oz wt"), ground, None))
        at_share = actual_rate(SPRAY, share, read_quantity("32 fl oz"), ground, read_quantity("100 gal"))
        self.assertAlmostEqual(at_share.value, 0.25)

    def test_backwards(self) -> None:
        label = read_label_rate("1 to 3 lb per 1,000 sq ft")
        ten, ground = read_quantity("10 lb"), GREEN.size
        self.refused("left", "nothing was used", lambda: rate_from_left(UREA, label, ten, ten, ground))
        self.refused("left", "not measured alike", lambda: rate_from_left(UREA, label, ten, read_quantity("1 gal"), ground))
        one = Rate(1.0, label.unit)
        self.refused("package", "not measured in gal", lambda: whole_package(UREA, label, one, read_quantity("1 gal"), ground))

    def test_radii_and_tapes(self) -> None:
        self.refused("radii", "make no area", lambda: by_radii([3.0, 4.0], FT, "mean_square"))
        self.refused("radii", "radii.2", lambda: self.naming_field(lambda: by_radii([3.0, 4.0, -1.0, 5.0], FT, "mean_square")))
        self.refused("check", "no diagonal to check by", lambda: taped([30.0, 40.0, 50.0], [], FT, check=20.0))
        self.refused("rule", "not a rule for this", lambda: measure(Sketch("radii", FT, {}, {"radii": (9.0,) * 8}, rule="guess")))
        self.refused("ring", "no positions", lambda: measure(Sketch("ring", FT, {}, {})))

    def naming_field(self, act: Callable[[], object]) -> None:
        """Raise what `act` raises with its whole field in the words."""
        try:
            act()
        except InputError as wrong:
            raise InputError(wrong.field, wrong.value, f"{wrong.field}: {wrong.problem}") from None

    def test_positions(self) -> None:
        many = "\n".join(f"{40 + i * 1e-6:.7f}, -75" for i in range(MOST_POSITIONS + 1))
        self.refused("ring", "Thin them", lambda: read_ring(many))
        self.refused(
            "geometry",
            "not lists of longitude and latitude",
            lambda: read_geometry({"type": "Polygon", "coordinates": [[["a", "b"]]]}),
        )
        county = [[[(40.0, -76.0), (40.0, -74.0), (42.0, -74.0), (42.0, -76.0)]]]
        self.refused("ring", "larger than ground kept here", lambda: by_rings(county))

    def test_the_line(self) -> None:
        for line, words in (
            ("how far does 5 lb go at 2 lb/M and more", "was not understood"),
            ("what does 3 lb/M bring", "of what"),
        ):
            self.refused("line", words, partial(self.answered, line))
        self.refused("unit", "do not measure the same thing", lambda: self.answered("2 lb/M in fl oz/M"))
        self.refused("unit", "ft measures length and lb measures mass", lambda: self.answered("3 ft in lb"))

    def answered(self, line: str) -> object:
        asked = read_line(line, NAMES)
        self.assertIsInstance(asked, ConversionAsked)
        return convert_line(asked)

    def test_reach_wants_a_rate_of_ground(self) -> None:
        per_spray = read_label_rate("2 fl oz per 100 gal")
        self.refused("line", "not per area", lambda: reach(read_quantity("5 fl oz"), per_spray))

    def test_cups_and_soil(self) -> None:
        self.refused("mark", "volume", lambda: check_cup(read_quantity("4 oz wt"), read_quantity("112 g"), 20.0))
        wild = [PhReading(s, date(2030, 4, 1), 4.2) for s in "abc"]
        self.refused(
            "target",
            "The lime table goes from",
            lambda: plan_ph(
                wild, texture="loam", sward=Sward("mixed"), ground=GREEN.size, green=True, start=date(2030, 5, 1), target=6.5
            ),
        )
        with self.assertRaises(ValueError):
            sulfur_need("sand", 9.9)
