"""What arrives held against the clock; and how a model explains its value."""

import re
import unittest
from datetime import timedelta
from zoneinfo import ZoneInfo

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from core.disease.explain import explain
from core.disease.hosts import HOSTS, diseases_of
from core.disease.registry import MODELS, of_disease
from core.grasses import GRASSES, Sward
from core.tests.weather import START, even, real_hours, waving, weather_of
from core.weather.arrivals import from_the_future, shifted
from core.weather.hours import HOUR as ONE
from core.weather.hours import Hour, believable, laid_out

ZONE = ZoneInfo("America/New_York")


class Clocks(unittest.TestCase):
    rng = np.random.default_rng(3)
    air = 15 + 6 * np.sin(np.arange(96) / 4) + rng.normal(0, 1, 96)
    known = {START + timedelta(hours=i): float(a) for i, a in enumerate(air)}

    def told(self, shift: int) -> list[Hour]:
        return [Hour(at + timedelta(hours=shift), air=value) for at, value in self.known.items()]

    @given(st.integers(-12, 12))
    def test_a_moved_clock_is_found_out(self, shift: int) -> None:
        self.assertEqual(shifted(self.told(shift), self.known), shift)

    def test_mended_hours_are_no_moved_clock(self) -> None:
        mended = [Hour(at, air=value + 0.8) for at, value in self.known.items()]
        self.assertEqual(shifted(mended, self.known), 0)

    def test_a_few_hours_prove_nothing(self) -> None:
        self.assertEqual(shifted(self.told(3)[:10], self.known), 0)

    def test_constant_weather_cannot_tell(self) -> None:
        # No figure to check: any constant does.
        flat = dict.fromkeys(self.known, 12.0)
        self.assertEqual(shifted([Hour(at + timedelta(hours=2), air=12.0) for at in flat], flat), 0)

    def test_hours_that_have_not_been(self) -> None:
        hours = [Hour(START + timedelta(hours=i), air=1.0) for i in range(5)]
        self.assertEqual(from_the_future(hours, START + timedelta(hours=4)), 0)
        self.assertEqual(from_the_future(hours, START + timedelta(hours=1)), 3)
        self.assertEqual(from_the_future([], START), 0)


class LaidOut(unittest.TestCase):
    def test_a_hole_in_what_was_measured_is_not_filled_by_a_forecast(self) -> None:
        # The values are those laid in.
        found = even(1)
        times = found.times
        measured = (times[[0, 1, 5]], {"air": np.array([1.0, 2.0, 6.0])})
        foretold = (times[2:10], {"air": np.full(8, 50.0)})
        made = laid_out(times[0], times[-1] + ONE, [measured], [foretold])
        np.testing.assert_array_equal(
            np.isnan(made.air[:10]), [False, False, True, True, True, False, False, False, False, False]
        )
        self.assertEqual(made.air[6], 50.0)
        self.assertEqual(int(np.argmax(made.forecast)), 6)

    def test_the_later_part_counts_where_it_knows(self) -> None:
        # The values are those laid in.
        times = even(1).times[:3]
        made = laid_out(
            times[0],
            times[-1] + ONE,
            [
                (times, {"air": np.array([1.0, 2.0, 3.0]), "soil": np.array([9.0, 9.0, 9.0])}),
                (times, {"air": np.array([np.nan, 7.0, np.nan])}),
            ],
        )
        self.assertEqual((made.air.tolist(), made.soil.tolist()), ([1.0, 7.0, 3.0], [9.0, 9.0, 9.0]))

    def test_places_of_times(self) -> None:
        # Hours counted from the first; bounds of what can be believed are common practice, no source.
        found = even(2)
        self.assertEqual([found.place(START + timedelta(hours=h, minutes=59)) for h in (-1, 0, 47, 60)], [-1, 0, 47, 60])
        self.assertEqual(believable("air", 20.0), "")
        self.assertIn("not between", believable("humidity", 101.0))


class Explained(unittest.TestCase):
    weather = weather_of(real_hours(), ZONE)

    def test_every_model_explains_every_day_without_a_break(self) -> None:
        for model in MODELS.values():
            for day in (0, 3, 40, 200, len(self.weather.days) - 1):
                for us in (True, False):
                    lines = explain(model, self.weather, day, us)
                    self.assertIn("Rests on", [name for name, _ in lines])
                    self.assertFalse(any("nan" in text for _, text in lines), (model.key, day, lines))

    def test_the_formula_told_gives_the_value_told(self) -> None:
        """Each formula with the numbers in it, reckoned from its text, is what the model says of the day."""
        day = 200
        for key, name in (("smith_kerns", "Sum"), ("fidanza", "Index")):
            text = dict(explain(MODELS[key], self.weather, day, False))[name]
            left, right = text.split(" = ")
            plain = left.replace("−", "-").replace("×", "*").replace("²", "**2")
            self.assertTrue(re.fullmatch(r"[-+*.0-9 ]+", plain), plain)
            self.assertAlmostEqual(eval(plain), float(right.replace("−", "-")), delta=0.05)

    def test_a_day_without_weather_says_not_known(self) -> None:
        found = waving(12)
        found.air[24 * 5 : 24 * 6] = np.nan
        said = dict(explain(MODELS["smith_kerns"], weather_of(found, ZONE), 6, False))
        self.assertEqual(said["Mean air of five days"], "not known")


class Hosts(unittest.TestCase):
    def test_every_grass_and_every_disease_is_known(self) -> None:
        for disease, grasses in HOSTS.items():
            self.assertTrue(of_disease(disease), disease)
            self.assertFalse(set(grasses) - set(GRASSES), disease)
        self.assertIn("large_patch", diseases_of(Sward("zoysiagrass")))
        self.assertNotIn("large_patch", diseases_of(Sward("creeping_bentgrass")))
        self.assertEqual(diseases_of(Sward("mixed")), list(HOSTS))
