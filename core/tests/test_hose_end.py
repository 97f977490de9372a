"""A hose-end in a job. The sums are by hand, beside each check; 1 US gal = 128 fl oz (NIST Handbook 44, appendix C)."""

import unittest
from dataclasses import replace

from core.errors import InputError
from core.job import Form, Job, LoadPlan, Machine, MachineKind, one, reckon
from core.job.hose_end import Draw, reach_of
from core.label.phrase import read_label_rate
from core.label.product import FORMULATIONS, Kind, Product
from core.label.rate import Rate, RateUnit
from core.tests.things import IRON, LAWN, SPRAY
from core.units import UNITS, read_quantity

GAL = RateUnit.from_key("fl_oz/gal")
KFT2 = RateUnit.from_key("fl_oz/kft2")
LABEL = read_label_rate("6 to 12 fl oz per 1,000 sq ft")
POWDER = Product("Powder", Kind.IRON, FORMULATIONS["SP"])


def dial(value: float) -> Rate:
    return Rate(value, GAL)


HOSE = Machine(
    "Hose",
    MachineKind.SPRAYER,
    read_quantity("32 fl oz"),
    Rate(4.0, RateUnit.from_key("gal/kft2")),
    Form.HOSE_END,
    dials=(dial(2), dial(4), dial(8)),
    flow=2 * UNITS["gal"].size / 60,
)


def job(rate: float = 6, area: str = "2,000 sq ft", machine: Machine = HOSE, **more: object) -> Job:
    return reckon([IRON], [one(LAWN, Rate(rate, KFT2), LABEL, read_quantity(area))], machine, **more)


def draw(load: LoadPlan) -> Draw:
    assert load.draw
    return load.draw


def poured(load: LoadPlan) -> float:
    assert load.pours[0].amount
    return load.pours[0].amount.value


def gallons(found: Job) -> float:
    assert found.spray
    return found.spray.base / UNITS["gal"].size


class MadeUpWithWater(unittest.TestCase):
    def test_the_bottle_by_hand(self) -> None:
        # 2 M × 4 gal = 8 gal; at 4 fl oz/gal 32 fl oz from the bottle; 2 M × 6 = 12 fl oz of product, 20 water; 8 ÷ 2 = 4 min
        found = job(dial=dial(4))
        load, fl_oz = found.loads[0], UNITS["fl_oz"].size
        self.assertEqual(len(found.loads), 1)
        self.assertAlmostEqual(gallons(found), 8)
        self.assertAlmostEqual(load.load.volume / fl_oz, 32)
        self.assertAlmostEqual(poured(load), 12)
        self.assertAlmostEqual(load.water / fl_oz, 20)
        self.assertAlmostEqual(draw(load).seconds, 240)

    def test_where_nobody_sets_the_dial_it_is_the_lowest_that_leaves_room(self) -> None:
        # 12 fl oz in 8 gal is 1.5 fl oz/gal: the 2 leaves room; at 12 fl oz/M it is 3: the 4 does
        self.assertAlmostEqual(draw(job().loads[0]).dial.value, 2)
        self.assertAlmostEqual(draw(job(12).loads[0]).dial.value, 4)

    def test_a_bottle_lasts_for_its_own_ground(self) -> None:
        # at 4 fl oz/gal and 4 gal/M a bottle of 32 covers 2 M; 5 M take 3 of them, the last 16 fl oz on 1 M
        found = job(area="5,000 sq ft", dial=dial(4))
        self.assertEqual([round(x.load.volume / UNITS["fl_oz"].size, 6) for x in found.loads], [32, 32, 16])
        self.assertAlmostEqual(found.loads[2].load.area / UNITS["kft2"].size, 1)
        self.assertAlmostEqual(sum(draw(x).seconds or 0 for x in found.loads), 600)  # 20 gal at 2 gal/min
        self.assertAlmostEqual(sum(poured(x) for x in found.loads), 30)  # 5 M × 6

    def test_no_room_for_water_names_the_dial(self) -> None:
        with self.assertRaises(InputError) as caught:
            job(12, dial=dial(2))
        self.assertEqual(caught.exception.field, "dial")
        self.assertIn("3 fl oz/gal", caught.exception.sentence)  # 24 fl oz in 8 gal
        with self.assertRaises(InputError):
            job(12, machine=replace(HOSE, dials=(dial(2),)))

    def test_a_share_of_the_spray_goes_by_the_spray_not_the_bottle(self) -> None:
        label = read_label_rate("1% v/v")
        found = reckon([SPRAY], [one(LAWN, Rate(1, label.unit), label, read_quantity("2,000 sq ft"))], HOSE, dial=dial(4))
        self.assertAlmostEqual(poured(found.loads[0]), 10.24)  # 1 % of 8 gal of 128 fl oz

    def test_two_passes_share_the_bottle(self) -> None:
        # 2 passes: 16 gal, at 2 fl oz/gal 32 fl oz from the bottle, still 12 of product
        found = job(passes=2, dial=dial(2))
        self.assertAlmostEqual(found.loads[0].load.volume / UNITS["fl_oz"].size, 32)
        self.assertAlmostEqual(poured(found.loads[0]), 12)

    def test_the_bottle_is_filled_product_first(self) -> None:
        keys = [a.key for a in job(dial=dial(4)).loads[0].acts]
        self.assertEqual(keys, ["bottle", "pour-0", "rinse-0", "top-up", "dial", "spray"])
        self.assertIn("4 fl oz/gal", next(a.text for a in job(dial=dial(4)).loads[0].acts if a.key == "dial"))


class Undiluted(unittest.TestCase):
    def test_a_bottle_reaches_as_far_as_its_product_does(self) -> None:
        # 32 fl oz at 12 fl oz/M are 2,667 ft²: 32 ÷ 12 × 1,000
        found = job(12, "2666.6666667 sq ft", dial=dial(4), undiluted=True)
        self.assertEqual(len(found.loads), 1)
        self.assertAlmostEqual(found.loads[0].load.volume / UNITS["fl_oz"].size, 32, 6)
        self.assertEqual(found.loads[0].water, 0)

    def test_the_dial_tells_the_spray_and_the_time(self) -> None:
        # 24 fl oz at 4 fl oz/gal become 6 gal: 3 min at 2 gal/min
        found = job(12, dial=dial(4), undiluted=True)
        self.assertAlmostEqual(gallons(found), 6)
        self.assertAlmostEqual(draw(found.loads[0]).seconds, 180)

    def test_the_dial_is_solved_for_the_rate(self) -> None:
        # 24 fl oz in 2 M × 4 = 8 gal is 3 fl oz/gal; of 2, 4, 8 the nearest by ratio is 4 (4 ÷ 3 against 3 ÷ 2)
        free = replace(HOSE, dials=())
        self.assertAlmostEqual(draw(job(12, machine=free, undiluted=True).loads[0]).dial.value, 3)
        self.assertAlmostEqual(draw(job(12, undiluted=True).loads[0]).dial.value, 4)

    def test_it_needs_no_output_where_the_dial_is_known(self) -> None:
        fixed = replace(HOSE, output=None)
        self.assertAlmostEqual(gallons(job(12, machine=fixed, dial=dial(4), undiluted=True)), 6)
        with self.assertRaises(InputError) as caught:
            job(12, machine=replace(fixed, dials=()), undiluted=True)
        self.assertEqual(caught.exception.field, "dial")

    def test_powder_is_made_up_with_water(self) -> None:
        label = read_label_rate("4 oz wt per 1,000 sq ft")
        part = one(LAWN, Rate(4, label.unit), label, read_quantity("2,000 sq ft"))
        with self.assertRaises(InputError) as caught:
            reckon([POWDER], [part], HOSE, undiluted=True)
        self.assertEqual(caught.exception.field, "undiluted")
        self.assertIn("slurry-0", [a.key for a in reckon([POWDER], [part], HOSE).loads[0].acts])


class OfTheMachine(unittest.TestCase):
    def test_reach_goes_by_dial_and_output(self) -> None:
        # 32 fl oz ÷ (2 fl oz/gal × 4 gal/M) = 4 M at the lowest position
        reach = reach_of(HOSE)
        assert reach
        self.assertAlmostEqual(reach.base / UNITS["kft2"].size, 4)
        self.assertIsNone(reach_of(replace(HOSE, dials=())))

    def test_a_dial_sets_a_share(self) -> None:
        for wrong in (Rate(2, KFT2), Rate(200, GAL), Rate(0, GAL)):
            with self.subTest(str(wrong)), self.assertRaises(InputError) as caught:
                job(dial=wrong)
            self.assertEqual(caught.exception.field, "dial")

    def test_the_working_ends_in_bottles_and_minutes(self) -> None:
        said = [str(s) for s in job(dial=dial(4)).working]
        self.assertTrue(any(s.startswith("From the bottle") and s.endswith("32 fl oz") for s in said), said)
        self.assertTrue(any(s.startswith("Time") and s.endswith("4 min") for s in said), said)
