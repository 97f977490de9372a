"""The reckon line as people type it: its parts in any order, names cut short, and every question it takes.

The numbers of the lines are their own; what they come to is tested where it is answered.
"""

import itertools
import unittest

from hypothesis import given, settings
from hypothesis import strategies as st

from core.errors import Ambiguous, InputError
from core.label.product import Kind
from core.label.rate import Basis, LabelRate, RateUnit
from core.reckon import asked as a
from core.reckon.days import Day, Near, Weekday
from core.reckon.grammar import read_line
from core.reckon.names import Goods, Names, mask, vocabulary
from core.reckon.sums import find_sum
from core.units import UNITS, Quantity

FL_OZ, LB = RateUnit.from_key("fl_oz/kft2"), RateUnit.from_key("lb/kft2")
NAMES = Names(
    areas=["Harbour green", "Harbour tee", "Front lawn", "Back lawn", "Court 2", "Court 10"],
    products=["Sandwort SC", "Marram 21-0-7", "Samphire SL", "Eelgrass Wetter", "Blue Marker", "Tidal WG"],
    machines=["Boom", "Backpack", "Push spreader"],
    mixes=["Summer tank"],
    goods={
        "Sandwort SC": Goods(True, FL_OZ, (Kind.FUNGICIDE,)),
        "Marram 21-0-7": Goods(False, LB, (Kind.FERTILISER,), frozenset({Basis.N, Basis.K2O}), Quantity(50.0, UNITS["lb"])),
        "Samphire SL": Goods(True, FL_OZ, (Kind.HERBICIDE,)),
        "Eelgrass Wetter": Goods(True, RateUnit.from_key("pct_vv"), (Kind.ADJUVANT,)),
        "Blue Marker": Goods(True, None, (Kind.COLOURANT,)),
        "Tidal WG": Goods(False, RateUnit.from_key("oz_wt/kft2"), (Kind.FUNGICIDE,)),
    },
)

PARTS = [*NAMES.areas, *NAMES.products, *NAMES.machines, "3 lb/M", "on", "with", "the", "xyz"]
SUMS = st.recursive(
    st.integers(1, 99).map(str),
    lambda x: st.tuples(x, st.sampled_from("+-*"), x).map(lambda t: f"({t[0]} {t[1]} {t[2]})"),
    max_leaves=8,
)


def ask(text: str) -> a.Asked:
    return read_line(text, NAMES)


class Line(unittest.TestCase):
    def dose(self, text: str) -> a.DoseAsked:
        found = ask(text)
        assert isinstance(found, a.DoseAsked), (text, found)
        return found

    def refused(self, text: str, field: str, words: str) -> InputError:
        with self.assertRaises(InputError, msg=text) as caught:
            ask(text)
        self.assertEqual(caught.exception.field, field, text)
        self.assertIn(words, str(caught.exception), text)
        return caught.exception


class Orders(Line):
    """The numbers are those of the lines, read by hand."""

    def test_the_parts_stand_in_any_order(self) -> None:
        parts = ("0.4 fl oz/M", "Sandwort SC", "on Harbour green", "with Boom", "in 2 passes")
        wanted = self.dose("0.4 fl oz/M of Sandwort SC on Harbour green with Boom in two passes")
        self.assertEqual((wanted.product, wanted.machine, wanted.passes), ("Sandwort SC", "Boom", 2))
        for order in itertools.permutations(parts):
            for joint in (" ", ", "):
                self.assertEqual(self.dose(joint.join(order)), wanted, joint.join(order))

    def test_names_are_cut_short(self) -> None:
        wanted = self.dose("0.4 fl oz/M Sandwort SC on Harbour green with Backpack")
        for text in (
            "sandwort .4 fl oz/M harbour green backpack",
            "0.4 oz/M of sandwort on harbour grn w backpack",
            "SANDWORT 0.4 harbour gr backp",
            "how much sandwort for the harbour green at 0.4 with the backpack?",
            "spray harbour green with sandwort at .4 using backpack",
            "0.4 fl oz of sandwort per 1000 on harbour green, backpack",
            "0.4 fl oz sandwort per 1,000 sq ft on harbour green, backpack",
            "sandwort, .4 fl oz per thousand, harbour green, backpack",
        ):
            self.assertEqual(self.dose(text), wanted, text)

    def test_the_longest_name_and_the_number_in_it_are_the_names(self) -> None:
        for text, area in (("2 lb/M court 2", "Court 2"), ("2 lb/M on court 10", "Court 10"), ("court 2, 2 lb/M", "Court 2")):
            self.assertEqual(self.dose(text).grounds, (a.GroundAsked(area),), text)
        self.assertEqual(self.dose("3 lb product/M of the 21-0-7 on front lawn").product, "Marram 21-0-7")

    def test_a_decimal_comma(self) -> None:
        for text in ("1,5 fl oz/M sandwort, front lawn", "sandwort 1,5, front lawn"):
            self.assertEqual(self.dose(text), self.dose("1.5 fl oz/M sandwort on front lawn"), text)

    def test_an_ounce_is_of_what_it_is_of(self) -> None:
        for text, key in (("0.4 oz/M sandwort front lawn", "fl_oz/kft2"), ("0.2 oz/M tidal front lawn", "oz_wt/kft2")):
            rate = self.dose(text).rate
            assert rate
            self.assertEqual(rate.unit.key, key, text)
        found = self.dose("0.4 oz/M sandwort + 0.2 oz/M tidal, front lawn")
        assert found.others[0].rate
        self.assertEqual(found.others[0].rate.unit.key, "oz_wt/kft2")
        self.refused("0.4 oz/M on front lawn", "line", "can mean")

    def test_mixes(self) -> None:
        for text in (
            "0.4 fl oz/M Sandwort + 0.25% Eelgrass on Harbour green with Boom",
            "sandwort .4, eelgrass .25%; harbour green, boom",
            "sandwort .4 plus eelgrass .25 % v/v, boom, harbour green",
            "boom: sandwort 0.4 and eelgrass wetter 0.25% on harbour green",
        ):
            found = self.dose(text)
            (other,) = found.others
            assert found.rate and other.rate
            self.assertEqual((found.product, found.rate.high, other.product), ("Sandwort SC", 0.4, "Eelgrass Wetter"), text)
            self.assertEqual((other.rate.high, other.rate.unit.key), (0.25, "pct_vv"), text)
        dyed = self.dose("sandwort .4 + dye on harbour green")
        self.assertEqual(dyed.others, (a.MixedAsked(None, "Blue Marker"),))
        self.refused("sandwort .4 + sandwort .2 on front lawn", "product", "twice")
        self.refused("sandwort .4 + samphire on front lawn", "line", "how much of Samphire SL")
        surfactant = self.refused("sandwort .4 + 0.25% surfactant on front lawn", "product", "Eelgrass Wetter")
        self.assertIsInstance(ask(surfactant.choices[0].text), a.DoseAsked)

    def test_a_full_tank_and_so_much_spray(self) -> None:
        tank = self.dose("per tank: sandwort .4, backpack")
        self.assertEqual((tank.grounds, tank.machine, tank.spray), ((), "Backpack", None))
        self.assertEqual(self.dose("mix 3 gal sandwort .4 backpack").spray, Quantity(3.0, UNITS["gal"]))
        self.refused("sandwort .4 per tank", "line", "no machine")
        spots = ask("mix 2 gal samphire spot spray")
        self.assertEqual(spots, a.SprayAsked("Samphire SL", None, Quantity(2.0, UNITS["gal"])))
        given = ask("0.75 fl oz per gallon samphire, 3 gallons")
        assert isinstance(given, a.SprayAsked) and given.rate
        self.assertEqual((given.rate.high, given.spray.value), (0.75, 3.0))

    def test_ranges(self) -> None:
        self.assertEqual(
            ask("sandwort on harbour green, low middle high"),
            a.SpanAsked("Sandwort SC", None, (a.GroundAsked("Harbour green"),), True),
        )
        found = ask("0.2 to 0.4 fl oz/M sandwort front lawn")
        assert isinstance(found, a.SpanAsked) and found.rate
        self.assertEqual((found.rate.low, found.rate.high), (0.2, 0.4))

    def test_shares(self) -> None:
        for text, share in (
            ("sandwort .4 on 20% of harbour green", 0.2),
            ("half of harbour green sandwort .4", 0.5),
            ("sandwort .4 on a third of the harbour green", 1 / 3),
            ("1/4 of harbour green sandwort 0.4", 0.25),
        ):
            self.assertEqual(self.dose(text).grounds, (a.GroundAsked("Harbour green", share),), text)
        self.refused("120% of harbour green sandwort .4", "line", "more than the whole")

    @settings(max_examples=150, deadline=None)
    @given(
        st.permutations(["0.4 fl oz/M", "Sandwort SC", "+ 3 fl oz/M Samphire SL", "Harbour tee and Front lawn", "Boom"]),
        st.sampled_from([" ", ", ", "; "]),
    )
    def test_a_mix_in_any_order_keeps_each_rate_with_its_product(self, order: list[str], joint: str) -> None:
        text = joint.join(order)
        try:
            found = self.dose(text)
        except InputError:
            return  # where the first rate stands behind the other product it is asked, never guessed
        rates = {found.product: found.rate and found.rate.high} | {m.product: m.rate and m.rate.high for m in found.others}
        self.assertEqual(rates, {"Sandwort SC": 0.4, "Samphire SL": 3.0}, text)
        self.assertEqual({g.area for g in found.grounds}, {"Harbour tee", "Front lawn"}, text)


class Asks(Line):
    """The numbers are those of the lines, read by hand."""

    def test_what_is_not_said_is_asked_with_lines_that_read(self) -> None:
        for text, field in (
            ("0.4 fl oz/M sandwort on harbour", "area"),
            ("0.5 lb N/M on front lawn", "product"),
            ("6 fl oz sandwort on front lawn", "line"),
            ("0.4 fl oz/m sandwort on front lawn", "line"),
        ):
            with self.assertRaises(Ambiguous, msg=text) as caught:
                ask(text)
            self.assertEqual(caught.exception.field, field, text)
            for choice in caught.exception.choices:
                self.assertNotIn("\ue000", choice.text)
                ask(choice.text)

    def test_what_is_unknown_is_named_with_what_is_near_it(self) -> None:
        for text, field, words, offered in (
            ("0.4 fl oz/M sanwdort on front lawn", "line", "sanwdort", "0.4 fl oz/M Sandwort SC on front lawn"),
            ("sandwort 0.4 front lawn with baom", "machine", "baom", "sandwort 0.4 front lawn with Boom"),
            ("sandwort 0.4 on fornt lawn", "area", "fornt", None),
            ("sandwort 0.4 front lawn zzz", "line", "zzz", None),
            ("what went on the fairway last", "area", "fairway", None),
        ):
            problem = self.refused(text, field, words)
            if offered:
                self.assertEqual(problem.choices[0].text, offered)

    def test_what_asks_nothing_is_told_so(self) -> None:
        for text in ("make the grass nicer", "hello", "what is up"):
            self.refused(text, "line", "")
        for text, words in (
            ("3 lb/M", "on what ground"),
            ("-3 lb/M on front lawn", "below zero"),
            ("3 lb/M on", "on what ground"),
        ):
            self.refused(text, "line", words)

    def test_an_area_of_two_kinds_of_name(self) -> None:
        names = Names(["Back lawn"], [], ["Back sprayer"])
        self.assertEqual(read_line("2 lb/M on back", names), self_dose("Back lawn", None, names))
        with_machine = read_line("2 lb/M on 500 sq ft with back", names)
        assert isinstance(with_machine, a.DoseAsked)
        self.assertEqual(with_machine.machine, "Back sprayer")


def self_dose(area: str, machine: str | None, names: Names) -> a.Asked:
    found = read_line(f"2 lb/M on {area}", names)
    assert isinstance(found, a.DoseAsked) and found.machine == machine
    return found


class Questions(Line):
    """The numbers are those of the lines, read by hand."""

    def test_each_is_known_by_its_words(self) -> None:
        green, lawn = "Harbour green", "Front lawn"
        gal, lb = UNITS["gal"], UNITS["lb"]
        for text, wanted in {
            "what went on harbour green last?": a.HistoryAsked(green, None),
            "when did I last spray sandwort": a.HistoryAsked(None, "Sandwort SC"),
            "days since marram on front lawn": a.HistoryAsked(lawn, "Marram 21-0-7"),
            "last fungicide on harbour green": a.HistoryAsked(green, None, Kind.FUNGICIDE),
            "how much N has front lawn had this year": a.BroughtAsked(lawn, Basis.N),
            "can sandwort go on harbour green tomorrow": a.MayAsked("Sandwort SC", green, Near(1)),
            "is there enough marram for 2 sprays of front lawn at 3": a.StockAsked(
                "Marram 21-0-7", LabelRate(3.0, 3.0, LB), (a.GroundAsked(lawn),), 2
            ),
            "when can samphire go again on front lawn": a.MayAsked("Samphire SL", lawn, None),
            "6 weeks after 4 aug": a.DateAsked(Day(8, 4), 42),
            "14 days before 1 Oct": a.DateAsked(Day(10, 1), -14),
            "2 months after 4 aug": a.DateAsked(Day(8, 4), 0, 2),
            "next Tuesday": a.DateAsked(Weekday(1, "next")),
            "days between 4 aug and 15 sep": a.DateAsked(Day(8, 4), to=Day(9, 15)),
            "how many days since 4 aug": a.DateAsked(Day(8, 4), to=Near(0)),
            "gdd since 4 aug": a.DegreeDaysAsked(None, False, since=Day(8, 4)),
            "GDD base 50F since Aug 4 on front lawn": a.DegreeDaysAsked(10.0, True, since=Day(8, 4), area=lawn),
            "degree days since samphire on harbour green": a.DegreeDaysAsked(None, False, product="Samphire SL", area=green),
            "when does samphire reach 250 gdd on harbour green": a.DegreeDaysAsked(
                None, False, product="Samphire SL", area=green, total=250.0
            ),
            "how long to water in 0.25 in on harbour green": a.WaterAsked(green, Quantity(0.25, UNITS["in"])),
            "5 mm front lawn in litres": a.WaterAsked(lawn, Quantity(5.0, UNITS["mm"]), True),
            "water in marram on front lawn": a.WaterAsked(lawn, None, product="Marram 21-0-7"),
            "20 min on harbour green how much water": a.WaterAsked(green, None, time=Quantity(20.0, UNITS["min"])),
            "what does marram cost per lb N": a.PriceAsked(("Marram 21-0-7",), lb, Basis.N),
            "price per gallon of samphire": a.PriceAsked(("Samphire SL",), gal, Basis.PRODUCT),
            "how much does 2 gal of samphire cost": a.AmountCostAsked("Samphire SL", Quantity(2.0, gal)),
            "marram vs tidal per lb": a.PriceAsked(("Marram 21-0-7", "Tidal WG"), lb, Basis.PRODUCT),
            "is sandwort cheaper than tidal on front lawn": a.CompareAsked(("Sandwort SC", "Tidal WG"), a.GroundAsked(lawn), ""),
            "what rate is 6 lb of marram on front lawn": a.BackwardsAsked(
                Quantity(6.0, lb), None, "Marram 21-0-7", (a.GroundAsked(lawn),)
            ),
            "started with 4 gal samphire, 3 left, front lawn": a.BackwardsAsked(
                Quantity(4.0, gal), Quantity(3.0, gal), "Samphire SL", (a.GroundAsked(lawn),)
            ),
            "is 6 lb of marram ok for front lawn": a.BackwardsAsked(
                Quantity(6.0, lb), None, "Marram 21-0-7", (a.GroundAsked(lawn),)
            ),
            "2 bags of marram on front lawn": a.BackwardsAsked(
                Quantity(100.0, lb), None, "Marram 21-0-7", (a.GroundAsked(lawn),)
            ),
            "15.6 lb on 6000 ft2": a.RateOfAsked(Quantity(15.6, lb), (a.GroundAsked(Quantity(6000.0, UNITS["ft2"])),)),
            "4 lb marram on front lawn is how much N": a.BringsOnAsked(
                "Marram 21-0-7", Quantity(4.0, lb), (a.GroundAsked(lawn),)
            ),
            "2 gal in the backpack does how much ground": a.CoversAsked("Backpack", Quantity(2.0, gal)),
            "backpack": a.CoversAsked("Backpack", None),
            "how big is front lawn": a.SizeAsked((a.GroundAsked(lawn),)),
            "front lawn + back lawn": a.SizeAsked((a.GroundAsked(lawn), a.GroundAsked("Back lawn"))),
            "sandwort": a.CardAsked("Sandwort SC"),
            "0.5 gal in 500 ft2": a.OutputAsked(Quantity(0.5, gal), Quantity(500.0, UNITS["ft2"]), None),
            "backpack 2 gal covered 1000 sq ft what is my output": a.OutputAsked(
                Quantity(2.0, gal), Quantity(1000.0, UNITS["ft2"]), "Backpack"
            ),
            "caught 1 gal in 30 seconds from one nozzle": a.FlowAsked(Quantity(1.0, gal), Quantity(30.0, UNITS["s"])),
            "100 ft in 23 sec mph": a.SpeedAsked(Quantity(100.0, UNITS["ft"]), Quantity(23.0, UNITS["s"])),
            "0.4 gpm at 4 mph 20 in spacing": a.BoomAsked(
                Quantity(0.4, gal), Quantity(1.0, UNITS["min"]), Quantity(4.0, UNITS["mph"]), Quantity(20.0, UNITS["in"])
            ),
            "72 F in C": a.WarmthAsked(72.0, True),
            "how many fl oz in a gallon": a.ConversionAsked(Quantity(1.0, gal), UNITS["fl_oz"]),
            "59.99/12": a.SumAsked("59.99/12"),
            "summer tank on front lawn": a.MixAsked("Summer tank", (a.GroundAsked(lawn),)),
        }.items():
            self.assertEqual(ask(text), wanted, text)

    def test_costs_of_doses_and_stock(self) -> None:
        cost = ask("cost of 0.4 fl oz/M sandwort on harbour green")
        assert isinstance(cost, a.CostAsked)
        self.assertEqual(cost.dose, ask("0.4 fl oz/M sandwort on harbour green"))
        for text, per in (("$/M sandwort at 0.4", "kft2"), ("cost per acre of sandwort at 0.4", "acre")):
            area = ask(text)
            assert isinstance(area, a.AreaCostAsked) and area.per
            self.assertEqual((area.product, area.rate.high, area.per.key), ("Sandwort SC", 0.4, per))
        stock = ask("do I have enough sandwort for 3 sprays of harbour green at 0.5")
        assert isinstance(stock, a.StockAsked)
        self.assertEqual((stock.product, stock.rate.high, stock.times), ("Sandwort SC", 0.5, 3))
        versus = ask("sandwort .4 vs tidal .25 on harbour green cost")
        assert isinstance(versus, a.CompareDosesAsked)
        self.assertEqual([(m.product, m.rate and m.rate.high) for m in versus.doses], [("Sandwort SC", 0.4), ("Tidal WG", 0.25)])
        self.refused("compare sandwort on front lawn", "line", "with what")
        self.assertTrue(self.dose("how many bags of marram for front lawn at 4 lb product/M").packages)

    def test_degrees_of_one_day_are_in_the_unit_of_their_base(self) -> None:
        found = ask("high 88 low 61 gdd base 50")
        assert isinstance(found, a.DayOfDegreesAsked)
        # 50 °F is 10 °C; 88 and 61 °F are 31.11 and 16.11 °C (NIST SP 811).
        self.assertAlmostEqual(found.high, 280 / 9)
        self.assertAlmostEqual(found.low, 145 / 9)
        self.assertEqual((found.base, found.fahrenheit), (10.0, True))


ANYTHING = [
    *NAMES.areas,
    *NAMES.products,
    *NAMES.machines,
    *NAMES.mixes,
    *sorted(
        vocabulary(
            "harbour court feed dye wetter N K2O 0.4 .5 1,5 2 10 100 3/4 20% half -3 4,5,6 lb oz gal fl ft ft2 in mm sec min mph "
            "gpm M A / + , ; : = ( ) x * - % ? per of on with for vs or cost price $ enough last when did what how far long can "
            "today tomorrow gdd base since high low reach 4 aug days weeks after water litres bags left rate ok brings compare "
            "measure cup tank passes spot mix each full started less big F C to as thousand 1000 sq"
        )
    ),
]


class Anything(unittest.TestCase):
    @settings(max_examples=1500, deadline=None)
    @given(st.lists(st.sampled_from(ANYTHING), max_size=9))
    def test_any_words_are_answered_or_refused_with_lines_that_say_what_is_wrong(self, words: list[str]) -> None:
        try:
            ask(" ".join(words))
        except InputError as said:
            self.assertTrue(said.problem and said.remedy)
            self.assertFalse(any("\ue000" <= c <= "\uf8ff" for x in said.choices for c in x.text))


class Sums(unittest.TestCase):
    def value(self, text: str) -> tuple[float, str]:
        found = find_sum(text)
        assert found, text
        return found.result.number, found.result.unit.key if found.result.unit else ""

    def test_sums(self) -> None:
        """Arithmetic by hand."""
        for text, number, unit in (
            ("14.4 x 0.4", 5.76, ""),
            ("120 ft x 120 ft", 14400, "ft2"),
            ("30 x 40 ft", 1200, "ft2"),
            ("12 m × 5 m", 60, "m2"),
            ("15% of 21.6 gal", 3.24, "gal"),
            ("(2 + 3) * 4 - 1/2", 19.5, ""),
            ("2 lb + 8 oz wt", 2.5, "lb"),
            ("12,500 / 2", 6250, ""),
            ("10 gal / 4", 2.5, "gal"),
            ("1 gal / 2 qt", 2, ""),
            ("2 - 3 - 4", -5, ""),
        ):
            found, key = self.value(text)
            self.assertAlmostEqual(found, number, msg=text)
            self.assertEqual(key, unit, text)

    def test_what_is_no_sum(self) -> None:
        for text in (
            "14.4",
            "12 ft",
            "2 lb / 3 ft2",
            "hello",
            "2 +",
            "(2 + 3",
            "2 x y",
            "__import__('os')",
            "2 ** 3",
            "1 + " * 60,
        ):
            self.assertIsNone(find_sum(text), text)
        for text in ("3 / (2 - 2)", "2 lb + 3 ft", "2 lb x 3 gal"):
            with self.assertRaises(InputError, msg=text):
                find_sum(text)

    @settings(max_examples=200, deadline=None)
    @given(SUMS)
    def test_whole_numbers_come_to_what_python_says(self, text: str) -> None:
        found = find_sum(text)
        if found is None:
            self.assertTrue(text.isdigit())
            return
        expected = eval(text)
        self.assertAlmostEqual(found.result.number, expected)


class Masking(unittest.TestCase):
    @settings(max_examples=200, deadline=None)
    @given(st.lists(st.sampled_from(PARTS), max_size=8))
    def test_what_is_hidden_is_shown_again_as_it_was(self, parts: list[str]) -> None:
        text = " ".join(" ".join(parts).split())
        masked = mask(text, NAMES)
        self.assertEqual(masked.shown(masked.text), text)


del Line  # its tests are of no lines themselves
