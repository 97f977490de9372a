"""A programme's steps: their turns by day, event, warmth and soil; how turns stand; and that moving the year moves the plan."""

import unittest
from collections.abc import Callable
from datetime import date, timedelta
from itertools import pairwise
from typing import Any

import numpy as np
from hypothesis import given
from hypothesis import strategies as st

from core.errors import InputError
from core.season.expected import Spell
from core.season.standing import UNTOUCHED, Down, Kept, Line, Stand, standings
from core.season.steps import GRACE, Around, Timing, Turn, Warm, When, turns

D = date
LAST = date(2100, 1, 1)
YEAR = (D(2031, 1, 1), D(2031, 12, 31))


def when(timing: Timing, begin: date = YEAR[0], end: date = YEAR[1], **more: Any) -> When:
    return When(timing, begin, end, **more)


def warm(first: date, air: list[float], today: date, soil: list[float] | None = None) -> Warm:
    return Warm(first, np.array(air), np.array(soil if soil is not None else air), today)


def falling(first: date, days: int, today: date, snow: date | None = None, year: int = 0) -> Warm:
    """Air that falls by half a degree a day from 20 °C on the first day [°C], and snow [cm] on one day."""
    lies = np.zeros(days)
    if snow:
        lies[(snow - first).days :] = 5.0
    return Warm(first, 20 - 0.5 * np.arange(days), np.full(days, np.nan), today, lies)


class OfTheCold(unittest.TestCase):
    """Air of 20 °C on 1 October, half a degree less each day: the mean of ten days is 22.25 - d/2, d days after.

    It is at most 6 °C from d = 32.5 on, on 3 November; by hand.
    """

    FIRST = D(2031, 8, 1)
    SPRAY = When(Timing.COLD, D(2031, 11, 15), D(2031, 12, 10), cold=6.0, grace=14)

    def weather(self, today: date, days: int, snow: date | None = None) -> Warm:
        fall = falling(D(2031, 10, 1), days, today, snow)
        flat = np.full((fall.first - self.FIRST).days, 20.0)
        return Warm(self.FIRST, np.concatenate([flat, fall.air]), flat, today, np.concatenate([0 * flat, fall.snow]))

    def turn(self, warm: Warm | None = None, usual: tuple[Warm, ...] = ()) -> Turn:
        (found,) = turns(self.SPRAY, Around(warm, usual=usual, us=False))
        return found

    def test_without_a_station_it_is_dated(self) -> None:
        self.assertEqual((self.turn().begin, self.turn().end), (D(2031, 11, 15), D(2031, 11, 29)))
        self.assertIn("by the calendar", self.turn().why)
        late = Warm(D(2031, 11, 1), np.full(30, 3.0), np.full(30, 3.0), D(2031, 11, 20))
        self.assertEqual(self.turn(late).begin, D(2031, 11, 15))

    def test_the_cold_brings_it(self) -> None:
        found = self.turn(self.weather(D(2031, 11, 5), 40))
        self.assertEqual((found.begin, found.end), (D(2031, 11, 3), D(2031, 11, 17)))
        self.assertIn("By the calendar it would be 15 November", found.why)

    def test_a_warm_autumn_keeps_it_waiting_until_its_last_day(self) -> None:
        mild = Warm(self.FIRST, np.full(115, 12.0), np.full(115, 12.0), D(2031, 11, 20), np.zeros(115))
        self.assertEqual(self.turn(mild).begin, D(2031, 11, 24))
        long = Warm(self.FIRST, np.full(140, 12.0), np.full(140, 12.0), D(2031, 12, 15), np.zeros(140))
        self.assertEqual(self.turn(long).begin, D(2031, 12, 10))

    def test_by_the_years_before_until_it_is_known(self) -> None:
        known = Warm(self.FIRST, np.full(40, 20.0), np.full(40, 20.0), D(2031, 9, 5), np.zeros(40))
        air = np.concatenate([np.full(273, 20.0), 20 - 0.5 * np.arange(92)])
        before = Warm(D(2030, 1, 1), air, np.full(365, 9.0), known.today)
        found = self.turn(known, (before,))
        self.assertEqual(found.begin, D(2031, 11, 3))
        self.assertIn("about 3 November by the years before", found.why)

    def test_snow_that_is_forecast_ends_it_the_day_before(self) -> None:
        found = self.turn(self.weather(D(2031, 11, 5), 45, D(2031, 11, 9)))
        self.assertEqual((found.begin, found.end), (D(2031, 11, 3), D(2031, 11, 8)))
        self.assertIn("Snow is forecast for 9 November", found.why)
        lies = self.turn(self.weather(D(2031, 11, 9), 45, D(2031, 11, 9)))
        self.assertIn("Snow lies", lies.why)

    def test_what_tells_no_autumn_is_refused(self) -> None:
        with self.assertRaises(InputError) as caught:
            When(Timing.COLD, D(2031, 11, 15), D(2031, 12, 10), cold=40)
        self.assertEqual(caught.exception.field, "cold")


class AtAThreshold(unittest.TestCase):
    SPRAY = When(Timing.THRESHOLD, D(2031, 6, 1), D(2031, 8, 31), every=14, grace=3, disease="dollar_spot")

    def test_each_time_it_is_passed_so_many_days_apart(self) -> None:
        """Risk from 10 June to 30 June, unknown in the middle, and again from 20 July: by hand 10 and 24 June, 20 July."""
        risky = np.zeros(90)
        risky[14:35], risky[54:] = 1, 1
        risky[20:22] = np.nan
        spell = Spell(D(2031, 5, 27), risky)
        found = turns(self.SPRAY, Around(risky={"dollar_spot": spell}))
        begins = [t.begin for t in found]
        self.assertEqual(begins, [D(2031, 6, 10), D(2031, 6, 24), D(2031, 7, 20), D(2031, 8, 3), D(2031, 8, 17), None])
        self.assertEqual([t.number for t in found], list(range(6)))
        self.assertEqual(found[0].end, D(2031, 6, 13))
        self.assertIn("14 days after the one before", found[-1].why)

    def test_what_is_not_watched_waits_and_no_disease_is_asked_for(self) -> None:
        (waits,) = turns(self.SPRAY)
        self.assertIsNone(waits.begin)
        self.assertIn("not watched for that", waits.why)
        with self.assertRaises(InputError) as caught:
            When(Timing.THRESHOLD, D(2031, 6, 1), D(2031, 8, 31), every=14)
        self.assertEqual(caught.exception.field, "disease")


class OfTheCalendar(unittest.TestCase):
    def test_a_day_and_a_window(self) -> None:
        one = turns(when(Timing.DATED, D(2031, 4, 1), D(2031, 4, 1)))[0]
        self.assertEqual((one.begin, one.end), (D(2031, 4, 1), D(2031, 4, 1) + timedelta(days=GRACE)))
        open_ = turns(when(Timing.WINDOW, D(2031, 4, 1), D(2031, 5, 15)))[0]
        self.assertEqual((open_.begin, open_.end), (D(2031, 4, 1), D(2031, 5, 15)))

    def test_every_fortnight_ends_with_its_last_day(self) -> None:
        found = turns(when(Timing.EVERY, D(2031, 5, 1), D(2031, 6, 12), every=14))
        self.assertEqual([t.begin for t in found], [D(2031, 5, 1), D(2031, 5, 15), D(2031, 5, 29), D(2031, 6, 12)])
        # A turn is over before the next begins: a week's step leaves six days, however long the grace.
        weekly = turns(when(Timing.EVERY, D(2031, 5, 1), D(2031, 6, 12), every=7, grace=30))
        self.assertTrue(all((b.begin or LAST) - (a.end or LAST) > timedelta() for a, b in pairwise(weekly)))

    def test_the_first_and_the_fifteenth(self) -> None:
        found = turns(when(Timing.MONTHLY, D(2031, 3, 10), D(2031, 5, 10), monthly=(1, 15)))
        self.assertEqual([t.begin for t in found], [D(2031, 3, 15), D(2031, 4, 1), D(2031, 4, 15), D(2031, 5, 1)])
        # The last of February stands for its 31st.
        last = turns(when(Timing.MONTHLY, D(2031, 1, 30), D(2031, 3, 31), monthly=(31,)))
        self.assertEqual([t.begin for t in last], [D(2031, 1, 31), D(2031, 2, 28), D(2031, 3, 31)])

    def test_before_and_after_what_it_goes_by(self) -> None:
        step = when(Timing.EVENT, anchor="overseed", offset=-14)
        self.assertEqual(turns(step, Around(anchors={"overseed": [D(2031, 9, 1)]}))[0].begin, D(2031, 8, 18))
        waits = turns(step)[0]
        self.assertIsNone(waits.begin)
        self.assertIn("waits", waits.why)

    @given(st.dates(D(2030, 1, 1), D(2031, 1, 1)), st.integers(1, 60), st.integers(0, 300))
    def test_moving_the_year_by_a_day_moves_the_turns(self, begin: date, every: int, long: int) -> None:
        day = timedelta(days=1)
        step = when(Timing.EVERY, begin, begin + timedelta(days=min(long, every * 50)), every=every)
        later = when(Timing.EVERY, step.begin + day, step.end + day, every=every)
        self.assertEqual([(t.begin or LAST) + day for t in turns(step)], [t.begin for t in turns(later)])

    def test_what_cannot_be(self) -> None:
        wrong: list[tuple[str, Callable[[], When]]] = [
            ("end", lambda: when(Timing.DATED, D(2031, 4, 2), D(2031, 4, 1))),
            ("end", lambda: when(Timing.WINDOW, D(2031, 4, 2), D(2035, 4, 1))),
            ("every", lambda: when(Timing.EVERY)),
            ("every", lambda: when(Timing.EVERY, every=1)),
            ("monthly", lambda: when(Timing.MONTHLY, monthly=(0,))),
            ("sum", lambda: when(Timing.WARMTH)),
            ("base", lambda: when(Timing.WARMTH, sum=200, base=99)),
            ("soil", lambda: when(Timing.SOIL, soil=90)),
            ("anchor", lambda: when(Timing.EVENT)),
            ("offset", lambda: when(Timing.EVENT, anchor="overseed", offset=999)),
            ("grace", lambda: when(Timing.DATED, grace=-1)),
        ]
        for field, make in wrong:
            with self.assertRaises(InputError) as caught:
                make()
            self.assertEqual(caught.exception.field, field)


class OfTheWeather(unittest.TestCase):
    """Sums and means by hand."""

    def test_by_degree_days(self) -> None:
        step = when(Timing.WARMTH, D(2031, 3, 1), sum=100)
        # Ten degrees a day: the tenth day, 10 March, makes a hundred.
        known = warm(D(2031, 2, 1), [10.0] * 60, D(2031, 3, 5))
        found = turns(step, Around(known, us=False))[0]
        self.assertEqual(found.begin, D(2031, 3, 10))
        self.assertIn("50 °C·d so far", found.why)

    def test_a_base_takes_its_degrees_off_each_day(self) -> None:
        """Five a day over a base of 5 °C: the twentieth makes a hundred."""
        step = when(Timing.WARMTH, D(2031, 3, 1), sum=100, base=5.0)
        self.assertEqual(turns(step, Around(warm(D(2031, 3, 1), [10.0] * 60, D(2031, 3, 5))))[0].begin, D(2031, 3, 20))

    def test_what_is_not_known_is_said(self) -> None:
        step = when(Timing.WARMTH, D(2031, 3, 1), sum=100)
        late = turns(step, Around(warm(D(2031, 3, 3), [10.0] * 60, D(2031, 3, 5))))[0]
        self.assertIsNone(late.begin)
        self.assertIn("known from 3 March on", late.why)
        self.assertIn("add a station", turns(step)[0].why)
        holes = [np.nan if 3 <= i < 7 else 10.0 for i in range(60)]
        gap = turns(step, Around(warm(D(2031, 3, 1), holes, D(2031, 3, 20))))[0]
        self.assertIsNone(gap.begin)  # four of the days that make the sum are unknown: more than a tenth
        self.assertIn("4 days could not be counted", gap.why)

    def test_by_the_years_before(self) -> None:
        step = when(Timing.WARMTH, D(2031, 3, 1), D(2031, 6, 30), sum=100)
        years = [warm(D(y, 1, 1), [t] * 200, D(y, 7, 1)) for y, t in ((2028, 20.0), (2029, 10.0), (2030, 5.0))]
        found = turns(step, Around(warm(D(2031, 2, 1), [2.0] * 32, D(2031, 3, 4)), usual=years))[0]
        # A hundred at 20, 10 and 5 a day: the 5th, 10th and 20th day of March.
        self.assertEqual((found.begin, found.about), (None, D(2031, 3, 10)))
        self.assertIn("About 10 March by 3 years before, between 5 March and 20 March.", found.why)

    def test_by_the_soil(self) -> None:
        """A pre-emergent before five days' mean soil of 12.8 °C (55 °F): extension teaching, common practice."""
        step = when(Timing.SOIL, D(2031, 3, 1), soil=12.8)
        soil = [5.0 + 0.25 * i for i in range(90)]  # the mean of five days is that of the middle one: 12.8 + 0.5 on the 34th
        found = turns(step, Around(warm(D(2031, 3, 1), soil, D(2031, 3, 20), soil)))[0]
        means = [sum(soil[i - 4 : i + 1]) / 5 for i in range(4, 90)]
        self.assertEqual(found.begin, D(2031, 3, 1) + timedelta(days=next(i for i, m in enumerate(means) if m >= 12.8) + 4))
        falling = when(Timing.SOIL, D(2031, 3, 1), soil=9.0, rising=False)
        self.assertEqual(turns(falling, Around(warm(D(2031, 2, 1), [8.0] * 60, D(2031, 3, 2))))[0].begin, D(2031, 3, 1))


class Stands(unittest.TestCase):
    def lines(self, step: int = 1, kept: dict[int, Kept] | None = None, products: tuple[int, ...] = (7,)) -> list[Line]:
        found = turns(when(Timing.EVERY, D(2031, 5, 1), D(2031, 6, 12), every=14))
        return [Line(step, t, frozenset(products), (kept or {}).get(t.number, UNTOUCHED)).moved for t in found]

    def stand(self, today: date, *done: date, kept: dict[int, Kept] | None = None) -> list[str]:
        return [s.stand.value for s in standings(self.lines(kept=kept), [Down(on, 7) for on in done], today)]

    def test_of_four_turns(self) -> None:
        self.assertEqual(self.stand(D(2031, 5, 10)), ["late", "coming", "later", "later"])
        self.assertEqual(self.stand(D(2031, 5, 3)), ["due", "coming", "later", "later"])
        self.assertEqual(self.stand(D(2031, 5, 16), D(2031, 5, 2)), ["done", "due", "coming", "later"])

    def test_an_application_counts_for_one_turn(self) -> None:
        # A day before its first it counts, and so does a late one, for the turn it is late for.
        self.assertEqual(self.stand(D(2031, 6, 20), D(2031, 4, 30), D(2031, 5, 25)), ["done", "done", "missed", "late"])
        self.assertEqual(self.stand(D(2031, 5, 16), D(2031, 3, 1)), ["missed", "due", "coming", "later"])
        self.assertEqual(self.stand(D(2031, 5, 3), D(2031, 5, 1), D(2031, 5, 1))[0], "done")

    def test_two_steps_of_one_product_take_an_application_once(self) -> None:
        two = [*self.lines(1), *self.lines(2)]
        found = standings(two, [Down(D(2031, 5, 2), 7)], D(2031, 5, 3))
        self.assertEqual(sum(s.stand is Stand.DONE for s in found), 1)
        other = standings(self.lines(products=(8, 9)), [Down(D(2031, 5, 2), 7), Down(D(2031, 5, 3), 9)], D(2031, 5, 3))
        self.assertEqual((other[0].stand, other[0].done), (Stand.DONE, D(2031, 5, 3)))

    def test_what_is_long_over_is_missed_and_no_longer_late(self) -> None:
        self.assertEqual(self.stand(D(2031, 7, 1)), ["missed", "missed", "missed", "late"])
        # The last turn ends on 19 June; 28 days after that it is late no more.
        self.assertEqual([self.stand(D(2031, 7, d))[3] for d in (17, 18)], ["late", "missed"])

    def test_skipped_and_moved(self) -> None:
        kept = {0: Kept(skipped=True, why="rain"), 1: Kept(on=D(2031, 5, 20), why="away")}
        self.assertEqual(self.stand(D(2031, 5, 16), kept=kept), ["skipped", "coming", "coming", "later"])
        self.assertEqual(self.stand(D(2031, 5, 16), D(2031, 5, 2), kept=kept)[0], "skipped")
        moved = self.lines(kept=kept)[1].turn
        self.assertEqual(moved.why, "Moved to 20 May: away. It was due from 15 May.")

    def test_one_that_waits_for_weather_is_neither_due_nor_late(self) -> None:
        waits = Turn(0, None, None, "")
        found = standings([Line(1, waits, frozenset({7}))], [Down(D(2031, 5, 1), 7)], D(2031, 5, 1))
        self.assertEqual(found[0].stand, Stand.WAITING)
        fixed = standings([Line(1, waits, frozenset({7}), Kept(on=D(2031, 5, 1))).moved], [], D(2031, 5, 1))
        self.assertEqual(fixed[0].stand, Stand.DUE)
