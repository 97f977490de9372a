"""Where loads run out: worked by hand, and what must hold for any loads and any ground."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from core.errors import InputError
from core.tank.falls import Fall, falls

AMOUNTS = st.floats(min_value=0.5, max_value=500)


class ByHand(TestCase):
    def test_a_tank_that_ends_within_a_ground(self) -> None:
        """Grounds of 8, 6 and 7 gal from tanks of 10, 10 and 1: 2 of 6 gal into the second, then at 20 of 21 in the third."""
        self.assertEqual(falls([10, 10, 1], [8, 6, 7]), [Fall(1, 2 / 6, 1), Fall(2, 6 / 7, 1), Fall(2, 1, 1)])

    def test_ground_that_is_left_out_moves_every_filling_after_it(self) -> None:
        """Without the second, 15 gal are needed: the second tank ends with the job at half, the third is not needed."""
        self.assertEqual(falls([10, 10, 1], [8, 0, 7]), [Fall(2, 2 / 7, 1), Fall(2, 1, 0.5), Fall(None, 0, 0)])

    def test_a_tank_that_lasts_to_the_end_of_a_ground(self) -> None:
        self.assertEqual(falls([8, 13], [8, 6, 7]), [Fall(0, 1, 1), Fall(2, 1, 1)])

    def test_nothing_is_needed_where_all_is_left_out(self) -> None:
        self.assertEqual(falls([8, 13], [0, 0]), [Fall(None, 0, 0)] * 2)

    def test_bad_input_names_its_field(self) -> None:
        for loads, grounds, field in (
            ([0.0], [1.0], "loads.0"),
            ([1.0], [1.0, -1.0], "grounds.1"),
            ([1.0], [float("nan")], "grounds.0"),
        ):
            with self.assertRaises(InputError) as caught:
                falls(loads, grounds)
            self.assertEqual(caught.exception.field, field)


class Held(TestCase):
    @given(st.lists(AMOUNTS, min_size=1, max_size=8), st.lists(AMOUNTS, min_size=1, max_size=8), st.data())
    def test_what_goes_out_is_what_the_ground_takes_as_far_as_it_lasts(
        self, loads: list[float], grounds: list[float], data: st.DataObject
    ) -> None:
        out = data.draw(st.lists(st.booleans(), min_size=len(grounds), max_size=len(grounds)))
        takes = [0.0 if x else g for g, x in zip(grounds, out, strict=True)]
        found = falls(loads, takes)
        gone = sum(f.needed * held for f, held in zip(found, loads, strict=True))
        self.assertAlmostEqual(gone, min(sum(loads), sum(takes)), places=6)
        ends = [(f.ground, f.done) for f in found if f.ground is not None]
        self.assertEqual(ends, sorted(ends), "never backwards")
        for f in found:
            self.assertTrue(f.ground is None or takes[f.ground] > 0, "never on ground that is left out")
            self.assertTrue(0 <= f.done <= 1 and 0 <= f.needed <= 1)
