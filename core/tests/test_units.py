"""Units: sizes against NIST, reading and showing numbers, and what is refused."""

import math
import unittest
from decimal import Decimal

import pint
from hypothesis import given
from hypothesis import strategies as st

from core.errors import Ambiguous, InputError, NotUnderstood
from core.units import (
    AREA,
    LENGTH,
    MASS,
    PRESSURE,
    RATIO,
    SPEED,
    TIME,
    UNITS,
    VOLUME,
    convert,
    density,
    exact_number,
    pointed,
    quantity,
    read_number,
    read_quantity,
    read_unit_at,
    show_number,
    show_percent,
    tidy,
)

PINT = {
    "mg": "milligram",
    "g": "gram",
    "kg": "kilogram",
    "t": "tonne",
    "oz_wt": "avoirdupois_ounce",
    "lb": "avoirdupois_pound",
    "short_ton": "short_ton",
    "ml": "milliliter",
    "l": "liter",
    "tsp": "teaspoon",
    "tbsp": "tablespoon",
    "fl_oz": "fluid_ounce",
    "cup": "cup",
    "pt": "pint",
    "qt": "quart",
    "gal": "gallon",
    "imp_fl_oz": "imperial_fluid_ounce",
    "imp_gal": "imperial_gallon",
    "gal_100": "100 * gallon",
    "acre_in": "43560 * foot ** 2 * inch",
    "l_100": "100 * liter",
    "ft2": "foot ** 2",
    "yd2": "yard ** 2",
    "m2": "meter ** 2",
    "m2_100": "100 * meter ** 2",
    "kft2": "1000 * foot ** 2",
    "acre": "43560 * foot ** 2",
    "ha": "hectare",
    "mm": "millimeter",
    "cm": "centimeter",
    "m": "meter",
    "in": "inch",
    "ft": "foot",
    "yd": "yard",
    "s": "second",
    "min": "minute",
    "h": "hour",
    "day": "day",
    "week": "week",
    "mph": "mile / hour",
    "kmh": "kilometer / hour",
    "mps": "meter / second",
    "kpa": "kilopascal",
    "bar": "bar",
    "psi": "psi",
    "pct_vv": "0.01",
}
"""Each unit of the trade as pint calls it; the acre is told in feet, for pint's is the retired survey acre."""
BASE = {
    MASS: "gram",
    VOLUME: "liter",
    AREA: "meter ** 2",
    LENGTH: "meter",
    RATIO: "",
    TIME: "second",
    SPEED: "meter / second",
    PRESSURE: "kilopascal",
}


class Sizes(unittest.TestCase):
    """NIST Handbook 44 Appendix C (2023) and NIST SP 811 Appendix B, all exact by definition."""

    NIST = {
        "lb": 453.59237,
        "oz_wt": 28.349523125,
        "gal": 3.785411784,
        "fl_oz": 0.0295735295625,
        "ft2": 0.09290304,
        "acre": 4046.8564224,
        "ha": 10_000.0,
        "yd2": 0.83612736,
        "imp_gal": 4.54609,
        "in": 0.0254,
        "short_ton": 907184.74,
    }

    def test_every_size_is_the_exact_one(self) -> None:
        for key, size in self.NIST.items():
            self.assertEqual(UNITS[key].size, size, key)

    def test_every_size_is_pints(self) -> None:
        registry: pint.UnitRegistry[Decimal] = pint.UnitRegistry(non_int_type=Decimal)
        self.assertEqual(set(PINT), set(UNITS))
        for key, name in PINT.items():
            held = registry.Quantity(Decimal(1)) * registry.parse_expression(name)
            exact = held.to(BASE[UNITS[key].dimension]).magnitude
            self.assertEqual(UNITS[key].size, float(exact.quantize(Decimal("1e-20"))), key)

    def test_the_acre_is_the_international_one_not_pints_survey_acre(self) -> None:
        survey = pint.UnitRegistry()("acre").to("meter ** 2").magnitude
        self.assertAlmostEqual(survey / UNITS["acre"].size - 1, 4e-6, delta=1e-7)

    def test_trade_conversions(self) -> None:
        """NIST Handbook 44 Appendix C, to its printed digits."""
        for value, source, target, expected in (
            (1, "gal", "fl_oz", 128),
            (1, "pt", "fl_oz", 16),
            (1, "cup", "fl_oz", 8),
            (1, "tbsp", "fl_oz", 0.5),
            (6, "tsp", "fl_oz", 1),
            (1, "acre", "ft2", 43_560),
            (1, "ha", "acre", 2.471054),
            (1, "lb", "oz_wt", 16),
            (1, "kft2", "ft2", 1000),
            (1, "imp_gal", "gal", 1.200950),
            (1, "m2_100", "ft2", 1076.39104),
            (1, "acre_in", "gal", 27_154.285714),  # 43,560 ft² × 1 in ÷ 231 in³
        ):
            self.assertAlmostEqual(convert(value, UNITS[source], UNITS[target]), expected, places=5, msg=source)

    def test_a_weight_is_no_volume_without_a_density(self) -> None:
        with self.assertRaisesRegex(InputError, "density"):
            convert(1, UNITS["oz_wt"], UNITS["fl_oz"])

    def test_density_of_water(self) -> None:
        """8.345 lb/gal is 1 kg/L (common practice, no source; it is exact arithmetic)."""
        self.assertAlmostEqual(density("density", 8.345404, "lb/gal"), 1000, places=3)

    @given(st.sampled_from(sorted(UNITS)), st.sampled_from(sorted(UNITS)), st.floats(1e-6, 1e6))
    def test_there_and_back(self, one: str, other: str, value: float) -> None:
        if UNITS[one].dimension == UNITS[other].dimension:
            there = convert(value, UNITS[one], UNITS[other])
            self.assertTrue(math.isclose(convert(there, UNITS[other], UNITS[one]), value, rel_tol=1e-12))


class Numbers(unittest.TestCase):
    def test_as_people_write_them(self) -> None:
        for text, number in {
            "1,720": 1720,
            "0.5": 0.5,
            ".5": 0.5,
            "1/4": 0.25,
            "1 1/2": 1.5,
            "1-1/2": 1.5,
            "1½": 1.5,
            "½": 0.5,
            "2 ¾": 2.75,
            "two": 2,
            " 12 ": 12,
            "12,345.5": 12345.5,
            "3⁄8": 0.375,
        }.items():
            self.assertEqual(read_number(text), number, text)

    def test_a_comma_that_can_only_be_decimal_is(self) -> None:
        """1,500 is fifteen hundred: that is how numbers are shown, and how the trade of the units writes them."""
        for text, number in {
            "1,5": 1.5,
            "5,55": 5.55,
            "0,125": 0.125,
            "0,5": 0.5,
            "1,5000": 1.5,
            "1.234,5": 1234.5,
            "12.345.678,25": 12345678.25,
            "1,500": 1500,
            "1,234.5": 1234.5,
            "1.234": 1.234,
        }.items():
            self.assertEqual(read_number(text), number, text)
        self.assertEqual(read_quantity("2,5 L").value, 2.5)
        for text in ("2,4,8", "1,23,4", "1,5.5"):
            with self.assertRaises(NotUnderstood, msg=text):
                read_number(text, "size")
        for text in ("2,4,8", "1,500", "Court 2, 3", "1,234,567"):
            self.assertEqual(pointed(text), text)

    def test_what_measures_nothing_is_refused_by_field_and_value(self) -> None:
        for text in ("nan", "inf", "-infinity", "-3", "1/0", "", "abc", "1e5", "--2"):
            with self.assertRaises(InputError) as caught:
                read_number(text, "size")
            self.assertEqual(caught.exception.field, "size")
            self.assertEqual(caught.exception.value, text)

    def test_shown_to_four_figures_whole_numbers_whole(self) -> None:
        for value, text in {
            12345.0: "12,345",
            9.8784: "9.878",
            0.0053466: "0.005347",
            2.0: "2",
            0.1 + 0.2: "0.3",
            1234.56: "1,235",
            -4.5: "−4.5",
            0: "0",
            1e-7: "0.0000001",
        }.items():
            self.assertEqual(show_number(value), text)

    @given(st.floats(1e-6, 1e9))
    def test_exact_text_reads_back_as_the_same_float(self, value: float) -> None:
        self.assertEqual(read_number(exact_number(value)), value)

    def test_thirds_are_told_as_fractions(self) -> None:
        self.assertEqual([exact_number(x) for x in (1 / 3, 2 / 3, 4 / 3)], ["1/3", "2/3", "1 1/3"])

    def test_percent(self) -> None:
        # Rounding alone.
        self.assertEqual(show_percent(-0.0097, sign=True), "−0.97 %")
        self.assertEqual(show_percent(0.0001), "0 %")


class Reading(unittest.TestCase):
    def test_spellings(self) -> None:
        for text, key in {
            "fl. oz.": "fl_oz",
            "Fluid Ounces": "fl_oz",
            "sq. ft.": "ft2",
            "square feet": "ft2",
            "ft²": "ft2",
            "M": "kft2",
            "A": "acre",
            "ac": "acre",
            "lbs.": "lb",
            "oz wt": "oz_wt",
            "mL": "ml",
            "litres": "l",
            "100 m²": "m2_100",
            "ha": "ha",
            "gallons": "gal",
            "UK gal": "imp_gal",
            "dry oz": "oz_wt",
        }.items():
            self.assertEqual(read_unit_at(tidy(text), 0)[0].key, key, text)

    def test_a_bare_ounce_is_a_question(self) -> None:
        with self.assertRaises(Ambiguous) as caught:
            read_quantity("3 oz", "amount")
        self.assertEqual([c.text for c in caught.exception.choices], ["3 fl oz", "3 oz wt"])

    def test_what_must_be_a_volume_settles_the_ounce(self) -> None:
        self.assertEqual(read_quantity("3 oz", "amount", VOLUME).unit.key, "fl_oz")
        self.assertEqual(read_quantity("3 oz", "amount", MASS).unit.key, "oz_wt")

    def test_a_small_m_is_no_thousand_square_feet(self) -> None:
        with self.assertRaises(Ambiguous):
            read_unit_at("m", 0, "per", AREA)

    def test_a_small_a_is_acre_or_are(self) -> None:
        with self.assertRaises(Ambiguous):
            read_unit_at("a", 0, "per", AREA)

    def test_absurd_magnitudes_are_refused(self) -> None:
        for value, key in ((1e9, "acre"), (1e-9, "ft2"), (1e9, "gal"), (math.inf, "lb"), (math.nan, "lb"), (0, "lb"), (-1, "lb")):
            with self.assertRaises(InputError) as caught:
                quantity("size", value, key)
            self.assertEqual(caught.exception.field, "size")
            self.assertTrue(caught.exception.remedy)

    def test_the_wrong_dimension_is_refused(self) -> None:
        with self.assertRaisesRegex(InputError, "measures mass"):
            quantity("size", 3, "lb", AREA)

    def test_tidy_knows_the_dashes_and_fractions_of_typesetters(self) -> None:
        # Spelling alone.
        self.assertEqual(tidy("0.15–0.3 fl. oz./1,000 sq. ft."), "0.15-0.3 fl oz /1,000 sq ft")
        self.assertEqual(tidy("1½"), "1 1/2")
