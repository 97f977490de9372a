"""Loads, vessels and the order of filling."""

import unittest

from hypothesis import assume, given, settings
from hypothesis import strategies as st

from core.errors import InputError
from core.label.product import FORMULATIONS, Kind, Product
from core.tank.fill_order import Into, Marks, fill_hopper, fill_tank
from core.tank.loads import hopper_loads, tank_loads
from core.tank.marks import fill_to
from core.tank.vessels import BENCH, Cabinet, Shape, Vessel, marks_of, measure
from core.units import UNITS, Quantity, read_quantity

US, METRIC = Cabinet(True), Cabinet(False)

GAL, FT2, FLOZ = UNITS["gal"].size, UNITS["ft2"].size, UNITS["fl_oz"].size


MARKS = Marks("100 L", "90 L", "50 L")
SC, DYE = Product("sc", Kind.FUNGICIDE, FORMULATIONS["SC"]), Product("dye", Kind.COLOURANT, FORMULATIONS["SL"])


class Loads(unittest.TestCase):
    def test_four_gallons_at_a_gallon_a_thousand(self) -> None:
        """A 4 gal tank at 1 gal/1000 ft² covers 4,000 ft² and takes 1.0 fl oz at 0.25 fl oz/1000 ft² (arithmetic)."""
        loads = tank_loads(area=10_000 * FT2, output=GAL / (1000 * FT2), tank=4 * GAL)
        self.assertEqual([round(x.area / FT2) for x in loads], [4000, 4000, 2000])
        self.assertEqual([round(x.share * 2.5, 9) for x in loads], [1.0, 1.0, 0.5])
        self.assertEqual([x.odd for x in loads], [False, False, True])

    def test_two_passes_share_the_dose(self) -> None:
        """4 gal over 6,000 ft² a pass, two passes: 8 gal, half of the dose in each tank (arithmetic)."""
        loads = tank_loads(area=6000 * FT2, output=4 * GAL / (6000 * FT2), tank=4 * GAL, passes=2)
        self.assertEqual([round(x.share, 9) for x in loads], [0.5, 0.5])
        self.assertAlmostEqual(sum(x.volume for x in loads) / GAL, 8)

    def test_an_exact_fit_leaves_no_crumb(self) -> None:
        for tanks in range(1, 40):
            loads = tank_loads(area=tanks * 0.1 * 3, output=0.1, tank=0.03)
            self.assertEqual(len(loads), tanks)

    def test_hopper_weighs_out_each_pass(self) -> None:
        loads = hopper_loads(dose=30_000, area=900, hopper=10_000, passes=2)
        self.assertEqual(
            [(x.pass_number, round(30_000 * x.share)) for x in loads], [(1, 10_000), (1, 5000), (2, 10_000), (2, 5000)]
        )

    def test_refused(self) -> None:
        good = {"area": 100.0, "output": 0.1, "tank": 10.0}
        for bad in ({"tank": 0.0}, {"tank": 0.01}, {"passes": 0}, {"passes": 9}, {"output": float("nan")}):
            with self.assertRaises(InputError, msg=bad):
                tank_loads(**{**good, **bad})

    @settings(deadline=None)
    @given(st.floats(1, 5000), st.floats(0.02, 0.5), st.floats(2, 400), st.integers(1, 4), st.booleans())
    def test_loads_add_up_and_none_is_over_full(self, area: float, output: float, tank: float, passes: int, even: bool) -> None:
        # Properties: volumes, amounts and strengths add up.
        spray = area * output * passes
        assume(spray / tank < 190)
        loads = tank_loads(area=area, output=output, tank=tank, passes=passes, even=even)
        self.assertAlmostEqual(sum(x.volume for x in loads) / spray, 1, places=9)
        self.assertAlmostEqual(sum(x.share for x in loads), 1, places=9)
        self.assertLessEqual(max(x.volume for x in loads), tank * (1 + 1e-9))
        strengths = {round(x.share / x.volume * spray, 9) for x in loads}
        self.assertEqual(strengths, {1.0})


class OfWhichPass(unittest.TestCase):
    """Tanks of 4 over two passes of 7 each: the second ends the first pass at 7 and goes on."""

    def test_tanks_that_run_on_carry_their_passes(self) -> None:
        found = tank_loads(area=7, output=1, tank=4, passes=2)
        self.assertEqual([x.passes for x in found], [(1, 1), (1, 2), (2, 2), (2, 2)])
        # A pass of two tanks exactly: none lies in both.
        self.assertEqual([x.passes for x in tank_loads(area=8, output=1, tank=4, passes=2)], [(1, 1), (1, 1), (2, 2), (2, 2)])
        self.assertEqual([x.passes for x in tank_loads(area=1, output=1, tank=4, passes=3)], [(1, 3)])

    def test_those_of_a_pass_for_itself_are_its_own(self) -> None:
        found = tank_loads(area=7, output=1, tank=4, passes=2, by_pass=True)
        self.assertEqual([x.passes for x in found], [(1, 1), (1, 1), (2, 2), (2, 2)])
        self.assertEqual([x.passes for x in hopper_loads(dose=10, area=1, hopper=9, passes=2)], [(1, 1), (2, 2)])


class Vessels(unittest.TestCase):
    def test_an_eighth_of_a_fluid_ounce_is_read_in_a_syringe(self) -> None:
        """1/8 fl oz is 3.697 mL (NIST Handbook 44): to the 3.7 mL mark."""
        found = measure(read_quantity("1/8 fl oz"), US)
        self.assertEqual((found.vessel.shape, found.mark), ("syringe", 3.7))
        self.assertAlmostEqual(found.rounding, 3.7 / 3.6966911953 - 1, places=9)

    def test_the_smallest_vessel_that_holds_it(self) -> None:
        # The vessels are those of the house's bench; 2.4 fl oz at eighths is 2 3/8.
        for text, key in {"18 mL": "syringe-20", "60 mL": "syringe-60", "61 mL": "cup-250", "3 L": "jug-5000"}.items():
            self.assertEqual(measure(read_quantity(text), METRIC).vessel.key, key, text)
        self.assertEqual(measure(read_quantity("5 fl oz"), US).vessel.key, "cup-8floz")
        self.assertEqual(measure(read_quantity("2.4 fl oz"), US).instruction, "2 3/8 fl oz")

    def test_more_than_the_largest_is_full_ones_and_a_rest(self) -> None:
        # 12.3 = 2 × 5 + 2.3 L.
        found = measure(read_quantity("12.3 L"), METRIC)
        self.assertEqual((found.fills, found.mark, found.instruction), (2, 2300.0, "2 × 5,000 mL, then 2,300 mL"))

    def test_never_over_takes_the_mark_below(self) -> None:
        dose = read_quantity("31.9 mL")
        self.assertEqual(measure(dose, METRIC).mark, 32)
        self.assertEqual(measure(dose, METRIC, never_over=True).mark, 31)

    def test_too_little_is_said(self) -> None:
        found = measure(read_quantity("0.3 mL"), METRIC)
        self.assertTrue(found.coarse)
        self.assertIn("stock dilution", found.note)
        self.assertFalse(measure(read_quantity("30 mL"), METRIC).coarse)

    def test_granules_are_weighed(self) -> None:
        # The scale's mark is what is asked for.
        found = measure(read_quantity("15.6 lb"), US)
        self.assertEqual((found.vessel.shape, found.vessel.unit.key, found.mark), ("scale", "lb", 15.6))

    def test_drawn_marks_end_at_the_capacity(self) -> None:
        for vessel in BENCH:
            marks = marks_of(vessel)
            self.assertEqual((marks[0], marks[-1]), (0, vessel.capacity), vessel.key)
            self.assertGreaterEqual(len(marks), 3, vessel.key)

    @settings(deadline=None)
    @given(st.floats(0.2, 20_000), st.booleans(), st.booleans())
    def test_the_mark_is_within_half_a_graduation_or_a_whole_below(self, ml: float, us: bool, never_over: bool) -> None:
        # A property.
        dose = Quantity(ml, UNITS["ml"])
        found = measure(dose, Cabinet(us), never_over)
        off = found.measured.base - dose.base
        step = found.vessel.graduation * found.vessel.unit.size
        self.assertLessEqual(off, 1e-9 if never_over and dose.base >= step else step / 2 + 1e-9)
        self.assertGreaterEqual(off, (-step if never_over else -step / 2) - 1e-9)


def own(text: str, marks: str, off: float = 0.0, shape: Shape = "cup") -> Vessel:
    """A vessel of an account's own."""
    holds, step = read_quantity(text), read_quantity(marks)
    return Vessel(f"own-{text}", f"{text} {shape}", shape, holds.unit, holds.value, step.to(holds.unit).value, off)


class OwnVessels(unittest.TestCase):
    """What an account keeps goes before the bench; sums are by hand."""

    def test_its_own_go_first_whatever_their_unit(self) -> None:
        cabinet = Cabinet(True, (own("100 mL", "2 mL"), own("500 mL", "10 mL", shape="jug")))
        found = measure(read_quantity("2 fl oz"), cabinet)  # 59.1 mL: to 60 at marks of 2
        self.assertEqual((found.vessel.name, found.mark), ("100 mL cup", 60.0))
        self.assertEqual(measure(read_quantity("5 fl oz"), cabinet).vessel.name, "500 mL jug")

    def test_the_bench_stands_in_for_what_it_keeps_none_of(self) -> None:
        cabinet = Cabinet(True, (own("100 mL", "2 mL"),))
        self.assertEqual(measure(read_quantity("3 lb"), cabinet).vessel.key, "scale-12lb")

    def test_of_those_that_hold_it_the_finest_marks(self) -> None:
        cabinet = Cabinet(False, (own("60 mL", "10 mL"), own("100 mL", "1 mL", shape="syringe")))
        self.assertEqual(measure(read_quantity("50 mL"), cabinet).vessel.shape, "syringe")

    def test_marks_that_are_out_are_allowed_for(self) -> None:
        """A mark of 100 mL that holds 108: for 81 mL to 75."""
        found = measure(read_quantity("81 mL"), Cabinet(False, (own("250 mL", "5 mL", 0.08),)))
        self.assertEqual(found.instruction, "75 mL by the marks of 250 mL cup")
        self.assertAlmostEqual(found.measured.base, 0.081)
        self.assertAlmostEqual(found.rounding, 0.0)

    def test_spoons_are_counted(self) -> None:
        spoon = own("15 mL", "15 mL", shape="spoon")
        self.assertEqual(measure(read_quantity("44 mL"), Cabinet(False, (spoon,))).instruction, "3 × 15 mL")
        self.assertEqual(measure(read_quantity("14 mL"), Cabinet(False, (spoon,))).instruction, "15 mL")

    def test_what_none_of_them_measures_well_says_what_to_buy(self) -> None:
        """4 mL by marks of 10 can be 125 % out; a 5 mL syringe by tenths 1.25 %."""
        found = measure(read_quantity("4 mL"), Cabinet(False, (own("250 mL", "10 mL"),)))
        self.assertIn("A 5 mL syringe would be out by 1.2 % at the most", found.note)
        many = measure(read_quantity("3 L"), Cabinet(False, (own("250 mL", "10 mL"),)))  # 12 fills
        self.assertIn("5 L graduated jug", many.note)
        self.assertEqual(measure(read_quantity("1 L"), Cabinet(False, (own("250 mL", "10 mL"),))).note, "")

    @settings(deadline=None)
    @given(st.floats(1, 5000), st.floats(-0.2, 0.2), st.sampled_from(["5 mL", "10 mL", "250 mL"]))
    def test_what_is_measured_is_within_half_a_mark(self, ml: float, off: float, marks: str) -> None:
        # A property.
        found = measure(Quantity(ml, UNITS["ml"]), Cabinet(False, (own("250 mL", marks, off),)))
        step = read_quantity(marks).base * (1 + off)
        half = max(step / 2, step - ml / 1000)  # never nothing at all
        self.assertLessEqual(abs(found.measured.base - ml / 1000), half + 1e-9)


class FillMarks(unittest.TestCase):
    """An 18 gal tank with a mark at every gallon (made up)."""

    MARK = read_quantity("1 gal")

    def test_a_load_is_filled_to_the_nearest_mark_and_what_that_does_is_said(self) -> None:
        # 15.36 to 15 is 2.34 % less spray: 15.36 ÷ 15 − 1 = 2.4 % stronger
        found = fill_to(read_quantity("15.36 gal"), self.MARK, US)
        self.assertEqual((found.text, found.note), ("the 15 gal mark", "the spray is 2.4 % stronger for it"))
        self.assertEqual(fill_to(read_quantity("15.7 gal"), self.MARK, US).note, "the spray is 1.9 % weaker for it")

    def test_on_a_mark_nothing_is_said(self) -> None:
        self.assertEqual(fill_to(read_quantity("18 gal"), self.MARK, US).note, "")

    def test_what_the_marks_are_too_coarse_for_is_measured(self) -> None:
        # 0.9593 gal are 122.8 fl oz, to 124 of a jug of 4s
        found = fill_to(read_quantity("0.9593 gal"), self.MARK, US)
        self.assertTrue(found.measured)
        self.assertIn("124 fl oz, measured in the 1 gal graduated jug", found.text)

    def test_without_marks_the_volume_itself_is_told(self) -> None:
        self.assertEqual(fill_to(read_quantity("7.6823 gal"), None, US).text, "7.68 gal")

    def test_a_metric_tank(self) -> None:
        self.assertEqual(fill_to(read_quantity("13.2 L"), read_quantity("0.5 L"), METRIC).text, "the 13 L mark")


class FillOrder(unittest.TestCase):
    def test_dry_first_then_suspensions_emulsions_solutions_and_adjuvants_last(self) -> None:
        """The order many extension services teach (common practice, no source)."""
        names = {"WG": Kind.FUNGICIDE, "SC": Kind.FUNGICIDE, "EC": Kind.HERBICIDE, "SL": Kind.IRON}
        mixed = [Into(Product("oil", Kind.ADJUVANT, FORMULATIONS["EC"]), "1"), Into(DYE)]
        mixed += [Into(Product(code, kind, FORMULATIONS[code]), "1") for code, kind in reversed(names.items())]
        mixed += [Into(Product("softener", Kind.CONDITIONER, FORMULATIONS["SL"]), "1")]
        acts = fill_tank(mixed, 100, MARKS)
        self.assertEqual([a.pours for a in acts if a.pours], ["softener", "WG", "SC", "EC", "SL", "dye", "oil"])
        self.assertEqual((acts[0].key, acts[1].key, acts[-1].key), ("screens", "half", "top-up"))

    def test_what_foams_goes_in_when_the_tank_is_nearly_full(self) -> None:
        oil = Into(Product("oil", Kind.ADJUVANT, FORMULATIONS["SL"]), "1")
        acts = fill_tank([oil, Into(SC, "2")], 100, MARKS)
        keys = [a.key for a in acts]
        self.assertLess(keys.index("pour-0"), keys.index("nearly"))
        self.assertLess(keys.index("nearly"), keys.index("pour-1"))
        self.assertNotIn("nearly", [a.key for a in fill_tank([Into(SC, "2")], 100, MARKS)])
        self.assertNotIn("nearly", [a.key for a in fill_tank([oil], 100, MARKS, "water_first")], "it is full already")

    def test_a_dye_to_taste_is_an_act_without_an_amount(self) -> None:
        acts = fill_tank([Into(SC, "2"), Into(DYE)], 100, MARKS)
        self.assertEqual(
            [a.text for a in acts if a.pours == "dye"], ["Add dye to taste, until the spray can be seen on the ground."]
        )

    def test_much_of_what_is_dissolved_is_shared_between_two_buckets_each_with_its_tick(self) -> None:
        urea = Product("urea", Kind.FERTILISER, FORMULATIONS["SG"])
        acts = fill_tank([Into(urea, "6 lb", 2722)], 100, MARKS)  # 6 lb are 2,722 g, more than one bucket's 2 kg
        self.assertEqual([a.key for a in acts if a.key.startswith("dissolve")], ["dissolve-0-1", "dissolve-0-2"])
        self.assertIn("half of it in each of 2 buckets", next(a.text for a in acts if a.key == "dissolve-0-1"))
        self.assertIn("dissolve-0", [a.key for a in fill_tank([Into(urea, "1 lb", 454)], 100, MARKS)])

    def test_only_powders_and_granules_are_slurried(self) -> None:
        def keys(code: str) -> list[str]:
            return [a.key for a in fill_tank([Into(Product("x", Kind.FUNGICIDE, FORMULATIONS[code]), "1")], 1, MARKS)]

        self.assertIn("slurry-0", keys("WP"))
        self.assertNotIn("slurry-0", keys("SC"))

    def test_hopper(self) -> None:
        acts = fill_hopper([Into(Product("x", Kind.FERTILISER, FORMULATIONS["GR"]), "4 kg")])
        self.assertEqual([a.key for a in acts], ["gate", "weigh", "fill", "spread"])
