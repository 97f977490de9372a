"""A job whole, and the cautions that go with it."""

import unittest
from dataclasses import replace

from core.cautions import cautions, worn_for_mixing
from core.errors import InputError
from core.ground import Ground
from core.job import Form, Job, LoadPlan, Machine, MachineKind, Part, check_machine, one, reckon
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Kind, Product
from core.label.rate import Rate
from core.rates.limits import Stand
from core.schools import House
from core.units import read_quantity

LABEL = read_label_rate("0.4 to 0.8 fl oz in 2 gal of water per 1,000 sq ft")
SPRAY = Product("a suspension", Kind.FUNGICIDE, FORMULATIONS["SC"], density_g_per_l=1100.0)
FEED = Product("granules", Kind.FERTILISER, FORMULATIONS["GR"])
KNAPSACK = Machine("sprayer", MachineKind.SPRAYER, read_quantity("4 gal"), read_label_rate("2 gal per 1000 sq ft").highest)
SPREADER = Machine("spreader", MachineKind.SPREADER, read_quantity("40 lb"))
GREEN = Ground("green", read_quantity("7,000 sq ft"))


def spray(value: float = 0.6, machine: Machine | None = KNAPSACK, **more: int) -> Job:
    return reckon([SPRAY], [one(GREEN, Rate(value, LABEL.highest.unit), LABEL)], machine, **more)


def in_all(job: Job) -> float:
    """What goes down of the first component, in its unit."""
    assert job.main.amount
    return job.main.amount.value


def poured(plan: LoadPlan, place: int = 0) -> float:
    """What goes into a load of a component, in its unit."""
    amount = plan.pours[place].amount
    assert amount
    return amount.value


class Whole(unittest.TestCase):
    def test_amount_spray_and_loads_agree(self) -> None:
        # 7 × 0.6 = 4.2 fl oz; 7 × 2 = 14 gal; tanks of 4 gal take 4 ÷ 2 × 0.6 = 1.2, the last half of one 0.6.
        job = spray()
        assert job.spray
        self.assertAlmostEqual(in_all(job), 4.2, places=9)
        self.assertAlmostEqual(job.spray.to("gal").value, 14, places=9)
        self.assertEqual([round(poured(p), 9) for p in job.loads], [1.2, 1.2, 1.2, 0.6])

    def test_the_rounded_rate_is_what_the_marks_make(self) -> None:
        # An identity: the marks, added, against the amount.
        job = spray()
        marks = sum(x.measured.base for p in job.loads if (x := p.pours[0].measure))
        assert job.main.amount
        self.assertAlmostEqual(marks / job.main.amount.base - 1, job.main.rounding, places=12)
        self.assertAlmostEqual(job.parts[0].measured[0].measured_rate.value, 0.6 * (1 + job.main.rounding), places=12)

    def test_at_the_labels_top_no_mark_passes_it(self) -> None:
        for feet in range(1000, 9000, 370):
            ground = Ground("g", read_quantity(f"{feet} sq ft"))
            job = reckon([SPRAY], [one(ground, Rate(0.8, LABEL.highest.unit), LABEL)], KNAPSACK)
            self.assertIsNot(job.parts[0].measured[0].measured_judgement.stand, Stand.ABOVE, feet)

    def test_above_the_label_is_reckoned_and_judged(self) -> None:
        # 7 × 1.6 = 11.2.
        job = spray(1.6)
        self.assertTrue(job.judgement.refused)
        self.assertAlmostEqual(in_all(job), 11.2, places=9)

    def test_the_water_a_label_asks_for(self) -> None:
        thin = replace(KNAPSACK, output=read_label_rate("1 gal per 1000 sq ft").highest)
        self.assertEqual(spray().warnings, ())
        self.assertIn("2 gal of water", spray(machine=thin).warnings[0])

    def test_without_a_machine_the_dose_can_still_be_measured(self) -> None:
        job = spray(machine=None)
        self.assertEqual(job.loads, ())
        assert job.main.whole
        self.assertEqual(job.main.whole.vessel.unit.key, "fl_oz")

    def test_granules_in_two_passes(self) -> None:
        # 7 × 3 = 21 lb, half of it in each pass.
        label = read_label_rate("2 to 4 lb/M")
        job = reckon([FEED], [one(GREEN, Rate(3, label.unit), label)], SPREADER, passes=2)
        self.assertEqual([(p.load.pass_number, round(poured(p), 9)) for p in job.loads], [(1, 10.5), (2, 10.5)])

    def test_working_ends_where_the_answer_is(self) -> None:
        # 7 × 0.6 = 4.2; 14 gal ÷ 4 gal = 3.5.
        steps = {s.title: s for s in spray().working}
        self.assertAlmostEqual(steps["Rate × area: product"].result.value, 4.2, places=9)
        self.assertAlmostEqual(steps["Tanks"].result.value, 3.5, places=9)


class ManyAreas(unittest.TestCase):
    BANK = Ground("bank", read_quantity("3,000 sq ft"))

    def part(self, ground: Ground, value: float, treated: str = "", zone: str = "") -> Part:
        return one(ground, Rate(value, LABEL.highest.unit), LABEL, read_quantity(treated) if treated else None, zone)

    def test_areas_of_one_rate_share_their_tanks(self) -> None:
        """10,000 ft² at 2 gal/1000 ft² is 20 gal: five tanks of 4 gal run through both areas (arithmetic)."""
        job = reckon([SPRAY], [self.part(GREEN, 0.6), self.part(self.BANK, 0.6)], KNAPSACK)
        self.assertEqual([p.load.number for p in job.loads], [1, 2, 3, 4, 5])
        self.assertEqual({x.ground.name for x in job.loads[0].parts}, {"green", "bank"})
        self.assertAlmostEqual(in_all(job), 6.0, places=9)

    def test_another_rate_is_another_mix_with_tanks_of_its_own(self) -> None:
        # 7 at 2 gal is 14 gal, 4 tanks of 4; 3 at 2 gal is 6 gal, 2 tanks.
        job = reckon([SPRAY], [self.part(GREEN, 0.6), self.part(self.BANK, 0.8)], KNAPSACK)
        self.assertEqual([p.load.number for p in job.loads], list(range(1, 7)))
        self.assertEqual([[x.ground.name for x in p.parts] for p in job.loads], [["green"]] * 4 + [["bank"]] * 2)
        self.assertAlmostEqual(in_all(job), 7 * 0.6 + 3 * 0.8, places=9)

    def test_a_zone_at_one_rate_and_the_rest_at_another(self) -> None:
        """A core of 2,000 ft² at 0.8 and the 5,000 ft² around it at 0.4: 1.6 + 2.0 fl oz (arithmetic)."""
        core, around = self.part(GREEN, 0.8, "2,000 sq ft", "core"), self.part(GREEN, 0.4, "5,000 sq ft", "surround")
        job = reckon([SPRAY], [core, around], KNAPSACK)
        self.assertEqual([round(p.measured[0].dose.amount.value, 9) for p in job.parts], [1.6, 2.0])
        with self.assertRaisesRegex(InputError, "more than its 7,000"):
            reckon([SPRAY], [core, self.part(GREEN, 0.4)], KNAPSACK)

    def test_granules_are_weighed_out_an_area_at_a_time(self) -> None:
        label = read_label_rate("2 to 4 lb/M")
        parts = [one(g, Rate(3, label.unit), label) for g in (GREEN, self.BANK)]
        job = reckon([FEED], parts, SPREADER)
        self.assertEqual([(p.parts[0].ground.name, round(poured(p), 9)) for p in job.loads], [("green", 21), ("bank", 9)])

    def test_the_gravest_verdict_speaks_for_the_job(self) -> None:
        job = reckon([SPRAY], [self.part(GREEN, 0.6), self.part(self.BANK, 1.0)], KNAPSACK)
        self.assertTrue(job.judgement.refused)
        self.assertEqual([p.measured[0].judgement.stand for p in job.parts], [Stand.WITHIN, Stand.ABOVE])

    def test_halves_add_up_to_the_whole(self) -> None:
        whole = reckon([SPRAY], [self.part(GREEN, 0.6)], None)
        halves = reckon([SPRAY], [self.part(GREEN, 0.6, "3,500 sq ft", z) for z in ("left", "right")], None)
        self.assertAlmostEqual(in_all(whole), in_all(halves), places=12)
        self.assertAlmostEqual(
            whole.delivered[0].grams if whole.delivered else 0, halves.delivered[0].grams if halves.delivered else 0, places=9
        )

    def test_the_house_fills_as_it_likes(self) -> None:
        for order, key in {
            "half_first": "half",
            "water_first": "water",
            "product_first": "empty",
            "slurry_first": "some",
        }.items():
            job = reckon([SPRAY], [self.part(GREEN, 0.6)], KNAPSACK, house=House({"fill_order": order}))
            self.assertEqual(job.loads[0].acts[0].key, key)


class Refused(unittest.TestCase):
    def test_the_wrong_machine(self) -> None:
        label = read_label_rate("2 to 4 lb/M")
        with self.assertRaisesRegex(InputError, "spreader"):
            spray(machine=SPREADER)
        with self.assertRaisesRegex(InputError, "sprayer"):
            reckon([FEED], [one(GREEN, Rate(3, label.unit), label)], KNAPSACK)

    def test_a_rate_of_another_kind_is_held_against_the_label_in_the_labels_own(self) -> None:
        # 1.1 kg/L is 32.53 g a fl oz: 0.6 fl oz/1000 ft² weighs 19.52 g, of an acre's 43.56 times that 850.2 g, 1.8744 lb.
        job = reckon([SPRAY], [one(GREEN, read_label_rate("1.8744 lb/acre").highest, LABEL)], KNAPSACK)
        self.assertAlmostEqual(job.parts[0].measured[0].judged.value, 0.6, places=4)
        self.assertEqual(job.parts[0].measured[0].judged.unit.symbol, "fl oz/1000 ft²")
        self.assertIn("1.874 lb/acre, which is 0.6 fl oz/1000 ft², is within the label", job.judgement.sentence)

    def test_of_another_kind_what_cannot_be_told_is_a_fault(self) -> None:
        light = replace(SPRAY, density_g_per_l=None)
        for product, rate in ((light, "1 lb/acre"), (SPRAY, "0.5 % v/v"), (SPRAY, "1 lb N per acre")):
            with self.assertRaises(InputError, msg=rate) as caught:
                reckon([product], [one(GREEN, read_label_rate(rate).highest, LABEL)], KNAPSACK)
            self.assertEqual(caught.exception.field, "parts.0.doses.0.rate")

    def test_machines_that_cannot_be(self) -> None:
        wild = read_label_rate("900 gal per 1000 sq ft").highest
        for bad in (
            replace(KNAPSACK, capacity=read_quantity("4 lb")),
            replace(SPREADER, capacity=read_quantity("4 gal")),
            replace(KNAPSACK, form=Form.DROP),
            replace(KNAPSACK, output=wild),
            replace(KNAPSACK, output=read_label_rate("2 lb/M").highest),
        ):
            with self.assertRaises(InputError):
                check_machine(bad)


class Cautions(unittest.TestCase):
    def keys(self, product: Product) -> set[str]:
        return {c.key for c in cautions([product])}

    def test_each_danger_has_its_caution_and_no_other(self) -> None:
        self.assertTrue({"drift", "keep-off", "leftover", "backflow"} <= self.keys(SPRAY))
        self.assertNotIn("dust", self.keys(SPRAY))
        self.assertIn("dust", self.keys(FEED))
        self.assertNotIn("drift", self.keys(FEED))
        self.assertIn("stains", self.keys(replace(FEED, kind=Kind.IRON)))

    def test_the_cards_gear_comes_first_and_the_least_where_it_has_none(self) -> None:
        self.assertEqual(worn_for_mixing([replace(SPRAY, ppe_mixing=("a respirator",))]), ("a respirator",))
        self.assertIn("Chemical-resistant gloves", worn_for_mixing([SPRAY]))
        self.assertTrue(any("Dust mask" in w for w in worn_for_mixing([FEED])))
