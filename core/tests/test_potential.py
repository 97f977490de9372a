"""Growth potential against the published curve's values."""

import unittest

import numpy as np
from scipy.stats import norm

from core.growth.potential import potential, shares

MONTHS = [1, 2, 6, 11, 16, 21, 24, 23, 19, 13, 7, 2]


class Potential(unittest.TestCase):
    def test_the_curve(self) -> None:
        """Gelernter & Stowell (2005), metric form: 5 to 35 °C by fives."""
        at = [5, 10, 15, 20, 25, 30, 35]
        for cool, values in (
            (True, [0.0243, 0.1915, 0.6615, 1, 0.6615, 0.1915, 0.0243]),
            (False, [0.0010, 0.0111, 0.0734, 0.2909, 0.6926, 0.9898, 0.8494]),
        ):
            np.testing.assert_allclose(potential(at, cool), values, atol=5e-5)

    def test_days_about_a_mean(self) -> None:
        """The closed form for normal days: 0.2743 at 10 °C and 0.8087 at 20 °C with 4 °C about it; scipy's sum agrees."""
        np.testing.assert_allclose(potential([10, 20], True, 4.0), [0.2743, 0.8087], atol=5e-5)
        days = np.linspace(-20, 40, 20001)
        for mean in (10.0, 20.0):
            weights = norm(mean, 4.0).pdf(days)
            self.assertAlmostEqual(
                float((potential(days, True) * weights).sum() / weights.sum()), float(potential(mean, True, 4.0)), 6
            )

    def test_shares_of_a_season(self) -> None:
        """By hand: April to October 5.06, 14.81, 18.98, 14.81, 16.62, 18.98, 8.58 %; a warm grass takes 32.32 % in July."""
        cool = shares(MONTHS, True)
        assert cool is not None
        np.testing.assert_allclose(100 * cool[3:10], [5.06, 14.81, 18.98, 14.81, 16.62, 18.98, 8.58], atol=5e-3)
        warm = shares(MONTHS, False)
        assert warm is not None
        self.assertAlmostEqual(100 * warm[6], 32.32, 2)
        self.assertAlmostEqual(float(cool.sum()), 1.0)
        self.assertIsNone(shares([-5, -3], True))
        self.assertTrue(np.isnan(potential(np.nan, True)))
