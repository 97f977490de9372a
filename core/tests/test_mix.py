"""A mix: several products in one tank, on one ground or many. Check values are worked by hand beside each."""

import unittest
from dataclasses import replace
from decimal import Decimal

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import InputError
from core.findings import Weight
from core.ground import Ground
from core.job import Dosing, Job, Machine, MachineKind, Part, Role, one, reckon, role_of
from core.job.heed import odd_load
from core.job.jar import jar_test
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Content, Kind, Package, Product
from core.label.rate import Basis
from core.label.rules import Rules
from core.machines.standing import sprays_fit
from core.rates.limits import Stand
from core.units import read_quantity

FUNGICIDE = Product("fungicide", Kind.FUNGICIDE, FORMULATIONS["SC"], density_g_per_l=1100.0)
IRON = Product("iron", Kind.IRON, FORMULATIONS["SL"], density_g_per_l=1300.0)
UREA = Product("urea", Kind.FERTILISER, FORMULATIONS["SG"], (Content("N", Basis.N, percent=46.0),))
SURFACTANT = Product("surfactant", Kind.ADJUVANT, FORMULATIONS["SL"])
DYE = Product("dye", Kind.COLOURANT, FORMULATIONS["SL"])
SOFTENER = Product("softener", Kind.CONDITIONER, FORMULATIONS["SG"])
GREEN, BANK = Ground("green", read_quantity("10,000 sq ft")), Ground("bank", read_quantity("4,000 sq ft"))
BOOM = Machine("boom", MachineKind.SPRAYER, read_quantity("20 gal"), read_label_rate("2 gal per 1000 sq ft").highest)
TWO = Machine("knapsack", MachineKind.SPRAYER, read_quantity("4 gal"), read_label_rate("2 gal per 1000 sq ft").highest)


def dosing(rate: str, label: str = "") -> Dosing:
    return Dosing(read_label_rate(rate).highest, read_label_rate(label or rate))


TASTE = Dosing()


def mixed(products: list[Product], rates: list[Dosing], *grounds: Ground, machine: Machine | None = BOOM, **more: bool) -> Job:
    return reckon(products, [Part(g, tuple(rates)) for g in grounds or (GREEN,)], machine, **more)


class Tank(unittest.TestCase):
    def test_water_is_what_the_liquids_leave(self) -> None:
        """20 gal at 2 gal/1000 ft² is 10,000 ft²; 1.4 fl oz/1000 ft² is 14 fl oz; 0.25 % v/v of the finished 2,560 fl oz is 6.4;
        water 2,539.6 fl oz, 19.8406 gal (arithmetic).
        """
        job = mixed([FUNGICIDE, SURFACTANT], [dosing("1.4 fl oz per 1,000 sq ft"), dosing("0.25 % v/v")])
        (load,) = job.loads
        self.assertEqual([round(p.amount.value, 9) for p in load.pours if p.amount], [14.0, 6.4])
        self.assertAlmostEqual(load.water / read_quantity("1 gal").base, 19.8406, places=4)

    def test_per_hundred_gallons_is_a_concentration(self) -> None:
        """1 pt/100 gal in 4 gal is 0.64 fl oz; at 2 gal/1000 ft² it is 0.32 fl oz/1000 ft² (arithmetic)."""
        job = reckon([IRON], [one(Ground("g", read_quantity("2,000 sq ft")), *_rated("1 pt per 100 gal"))], TWO)
        assert job.main.amount
        self.assertAlmostEqual(job.main.amount.to("fl_oz").value, 0.64, places=9)

    def test_dry_products_take_up_no_water(self) -> None:
        # 0.1 lb N of 46 % is 0.2174 lb/1000 ft², 2.174 lb on ten thousand
        job = mixed([UREA, IRON], [dosing("0.1 lb N per 1,000 sq ft"), dosing("2 fl oz per 1,000 sq ft")])
        (load,) = job.loads
        self.assertAlmostEqual(job.mix[0].amount.value if job.mix[0].amount else 0, 10 * 0.1 / 0.46, places=9)
        self.assertAlmostEqual(load.water, load.load.volume - read_quantity("20 fl oz").base, places=9)

    def test_nothing_left_for_water_is_an_error_that_names_the_products(self) -> None:
        with self.assertRaisesRegex(InputError, "fungicide.*iron.*no room for water"):
            mixed([FUNGICIDE, IRON], [dosing("200 fl oz per 1,000 sq ft"), dosing("100 fl oz per 1,000 sq ft")])

    def test_ground_of_the_same_rates_shares_tanks_and_one_other_rate_parts_it(self) -> None:
        both = [dosing("1.4 fl oz per 1,000 sq ft"), dosing("2 fl oz per 1,000 sq ft")]
        job = mixed([FUNGICIDE, IRON], both, GREEN, BANK)
        self.assertEqual([[p.ground.name for p in x.parts] for x in job.loads], [["green", "bank"]] * 2)
        other = (both[0], dosing("3 fl oz per 1,000 sq ft"))
        job = reckon([FUNGICIDE, IRON], [Part(GREEN, tuple(both)), Part(BANK, other)], BOOM)
        self.assertEqual([[p.ground.name for p in x.parts] for x in job.loads], [["green"], ["bank"]])
        # 10 × 2 and 4 × 3
        self.assertAlmostEqual(job.mix[1].amount.value if job.mix[1].amount else 0, 32, places=9)

    def test_two_passes_run_on_or_are_filled_each_for_itself(self) -> None:
        """7,000 ft² at 2 gal twice over is 28 gal: seven tanks of 4 gal, or for each pass 4, 4, 4 and 2 gal (arithmetic)."""
        ground = Ground("g", read_quantity("7,000 sq ft"))
        rates = [dosing("1 fl oz per 1,000 sq ft")]
        runs_on = reckon([IRON], [Part(ground, tuple(rates))], TWO, passes=2)
        by_pass = reckon([IRON], [Part(ground, tuple(rates))], TWO, passes=2, by_pass=True)
        gal = read_quantity("1 gal").base
        self.assertEqual([round(x.load.volume / gal, 9) for x in runs_on.loads], [4.0] * 7)
        self.assertEqual([(x.load.pass_number, round(x.load.volume / gal, 9)) for x in by_pass.loads][3:5], [(1, 2.0), (2, 4.0)])
        for job in (runs_on, by_pass):
            # 7 × 1 fl oz in all, however it is filled
            self.assertAlmostEqual(sum(x.pours[0].amount.value for x in job.loads if x.pours[0].amount), 7, places=9)


class ToTheMark(unittest.TestCase):
    def test_the_acts_tell_the_tanks_marks(self) -> None:
        # 7,700 ft² at 2 gal are 15.4 gal, filled to 15: 15.4 ÷ 15 − 1 = 2.7 %; half of it, 7.7, to 8
        ground = Ground("g", read_quantity("7,700 sq ft"))
        job = mixed([FUNGICIDE], [dosing("1.4 fl oz/M")], ground, machine=replace(BOOM, mark=read_quantity("1 gal")))
        acts = {a.key: a.text for a in job.loads[0].acts}
        self.assertIn("Fill with clean water to the 8 gal mark", acts["half"])
        self.assertIn("the 15 gal mark (15.4 gal exactly: the spray is 2.7 % stronger for it)", acts["top-up"])

    def test_marks_that_cannot_be(self) -> None:
        for wrong in ("15 gal", "1 lb"):
            with self.assertRaises(InputError) as caught:
                mixed([FUNGICIDE], [dosing("1.4 fl oz/M")], machine=replace(BOOM, mark=read_quantity(wrong)))
            self.assertEqual(caught.exception.field, "mark")


def _rated(text: str) -> tuple:  # type: ignore[type-arg]
    label = read_label_rate(text)
    return label.highest, label


class Whole(unittest.TestCase):
    def test_a_dye_to_taste_has_an_act_and_no_amount_no_verdict_and_no_cost(self) -> None:
        job = mixed([FUNGICIDE, DYE], [dosing("1.4 fl oz per 1,000 sq ft"), TASTE])
        self.assertIsNone(job.mix[1].amount)
        self.assertEqual(job.loads[0].pours[1].measure, None)
        self.assertIn("dye to taste", " ".join(a.text for a in job.loads[0].acts))
        self.assertEqual(job.judgement.stand, Stand.WITHIN)

    def test_nothing_but_dye_is_no_job(self) -> None:
        with self.assertRaisesRegex(InputError, "Nothing has a rate"):
            mixed([DYE], [TASTE])

    def test_the_same_product_twice_is_one_too_many(self) -> None:
        with self.assertRaisesRegex(InputError, "in the mix twice"):
            mixed([IRON, IRON], [dosing("1 fl oz/M"), dosing("2 fl oz/M")])

    def test_the_component_at_fault_is_named(self) -> None:
        for bad, field in (
            (dosing("1 lb N per 1,000 sq ft"), "parts.0.doses.1.rate"),
            (dosing("0.5 lb/M"), "parts.0.doses.1.rate"),
        ):
            with self.assertRaises(InputError) as caught:
                mixed([FUNGICIDE, SURFACTANT], [dosing("1 fl oz/M"), Dosing(bad.rate, read_label_rate("0.25 % v/v"))])
            self.assertEqual(caught.exception.field, field)
        granules = Product("granules", Kind.FERTILISER, FORMULATIONS["GR"])
        with self.assertRaises(InputError) as caught:
            mixed([FUNGICIDE, granules], [dosing("1 fl oz/M"), dosing("3 lb/M")])
        self.assertEqual(caught.exception.field, "mix.1")

    def test_nitrogen_of_two_products_is_told_together(self) -> None:
        """0.1 lb N/1000 ft² of urea is 45.36 g; 3 fl oz/1000 ft² of 10 % N at 1,300 g/L is 3 × 29.5735 mL × 1.3 g × 0.1, 11.53 g
        (arithmetic).
        """
        liquid = Product("liquid", Kind.FERTILISER, FORMULATIONS["SL"], (Content("N", Basis.N, percent=10.0),), 1300.0)
        job = mixed([UREA, liquid], [dosing("0.1 lb N/M"), dosing("3 fl oz/M")])
        (nitrogen,) = job.delivered
        self.assertAlmostEqual(nitrogen.grams / 10, 45.359237 + 3 * 29.5735295625 * 1.3 * 0.1, places=6)

    def test_costs_add_up_and_one_without_a_price_leaves_the_sum_open(self) -> None:
        priced = replace(IRON, packages=(Package(read_quantity("1 gal"), Decimal("64.00")),))
        also = replace(FUNGICIDE, packages=(Package(read_quantity("1 gal"), Decimal("128.00")),))
        job = mixed([priced, also], [dosing("2 fl oz/M"), dosing("1 fl oz/M")])
        # 20 of 128 fl oz at 64, and 10 at 128: 10 + 10
        self.assertEqual(job.cost and job.cost.total, Decimal(20))
        self.assertIsNone(mixed([priced, FUNGICIDE], [dosing("2 fl oz/M"), dosing("1 fl oz/M")]).cost)

    def test_roles_by_kind(self) -> None:
        self.assertEqual([role_of(p) for p in (IRON, SOFTENER, SURFACTANT, DYE)], list(Role))

    def test_working_names_each_component(self) -> None:
        titles = [s.title for s in mixed([FUNGICIDE, SURFACTANT], [dosing("1.4 fl oz/M"), dosing("0.25 % v/v")]).working]
        self.assertIn("fungicide: rate × area: product", titles)
        self.assertIn("surfactant: share of the spray", titles)
        self.assertIn("Water in the first tank", titles)

    @settings(deadline=None, max_examples=60)
    @given(st.lists(st.floats(0.1, 20), min_size=1, max_size=4), st.floats(500, 60_000), st.booleans())
    def test_a_mix_measures_each_component_as_it_would_alone(self, rates: list[float], feet: float, even: bool) -> None:
        # Properties: what goes in of a component does not depend on the others, and the loads hold all of it.
        ground = Ground("g", read_quantity(f"{feet:.3f} sq ft"))
        products = [replace(IRON, name=f"p{i}") for i in range(len(rates))]
        doses = [dosing(f"{r:.6f} fl oz/M") for r in rates]
        together = mixed(products, doses, ground, even=even)
        for c, (product, given_) in enumerate(zip(products, doses, strict=True)):
            alone = mixed([product], [given_], ground, even=even)
            self.assertEqual(together.mix[c].amount, alone.main.amount)
            self.assertEqual([x.pours[c].amount for x in together.loads], [x.pours[0].amount for x in alone.loads])
        for load in together.loads:
            liquids = sum(p.amount.base for p in load.pours if p.amount)
            self.assertAlmostEqual(load.water + liquids, load.load.volume, places=9)


class Heed(unittest.TestCase):
    """What is said of a mix besides its sums."""

    def test_labels_whose_spray_volumes_are_none_are_told(self) -> None:
        """1 to 2 gal and 4 to 5 gal/1000 ft² have no volume in common; 1 to 2 and 2 to 5 have 2."""
        wet, apart = "0.4 to 0.8 fl oz in 4 to 5 gal of water per 1,000 sq ft", "no spray volume suits both"
        for other, told in ((wet, True), (wet.replace("4 to 5", "2 to 5"), False)):
            low = dosing("1 fl oz/M", "1 fl oz in 1 to 2 gal of water per 1,000 sq ft")
            job = mixed([FUNGICIDE, IRON], [low, dosing("0.5 fl oz/M", other)])
            self.assertEqual(any(apart in w for w in job.warnings), told)

    def test_an_odd_last_tank_that_is_measured_badly(self) -> None:
        """4 gal at 2 gal/1000 ft² cover 2,000 ft²: of 2,100 ft² the last tank holds 0.2 gal and 0.03 fl oz, 0.9 mL by tenths."""
        ground = Ground("g", read_quantity("2,100 sq ft"))
        job = mixed([FUNGICIDE], [dosing("0.3 fl oz/M")], ground, machine=TWO)
        odd = odd_load(job.loads)
        assert odd
        self.assertEqual((odd.plan.load.number, odd.pour.product), (2, FUNGICIDE))
        self.assertIsNone(odd_load(mixed([FUNGICIDE], [dosing("0.3 fl oz/M")], ground, machine=TWO, even=True).loads))
        self.assertIsNone(odd_load(mixed([FUNGICIDE], [dosing("3 fl oz/M")], ground, machine=TWO).loads))

    def test_a_jar_is_asked_of_products_that_are_new_to_each_other(self) -> None:
        a, b, c = (replace(FUNGICIDE, name=n, id=i) for i, n in enumerate("abc"))
        self.assertEqual(jar_test([a], ()), [])
        self.assertEqual(jar_test([a, replace(SURFACTANT, id=8), replace(DYE, id=9)], ()), [])
        self.assertIn("a and b have not", jar_test([a, b], ())[0].sentence)
        self.assertEqual(jar_test([a, b], {frozenset((0, 1))}), [])
        (found,) = jar_test([a, b, c], {frozenset((0, 1))})
        self.assertIn("a, c and b have not", found.sentence)

    def test_droplets_of_the_nozzle_and_of_each_other(self) -> None:
        """Places in ISO 25358's series: fine 2, medium 3, coarse 4."""
        coarse = replace(FUNGICIDE, name="down", rules=Rules(droplets=(4, None)))
        fine = replace(FUNGICIDE, name="up", rules=Rules(droplets=(2, 3)))
        for droplets, mix, key in (
            (4, [coarse], ""),
            (3, [coarse], "droplets"),
            (None, [coarse], ""),
            (3, [fine, IRON], ""),
            (4, [fine], "droplets"),
            (None, [coarse, fine], "droplets-apart"),
        ):
            found = sprays_fit("boom", droplets, mix)
            self.assertEqual([f.key for f in found], [key] if key else [], (droplets, mix))
            self.assertTrue(all(f.act is Weight.REFUSE for f in found))
        self.assertIn("down asks for coarse or coarser, up for fine to medium", sprays_fit("boom", 3, [coarse, fine])[0].sentence)
        gentle = replace(IRON, rules=Rules(droplets=(4, None)))
        self.assertIs(sprays_fit("boom", 2, [gentle])[0].act, Weight.WARN)
