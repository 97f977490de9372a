"""A simulated soil probe at 5 cm: the climate's soil with the probe's own error, read by the hour."""

import numpy as np

from sims import climate


def read(times: climate.Times, place: climate.Place = climate.HERE) -> climate.Floats:
    """What the probe says of hours (datetime64[h], UTC) [°C]: 0.2 °C warm, and a tenth of noise."""
    t = ((times - climate.EPOCH) / climate.HOUR).astype(float)
    return np.asarray(climate.weather(times, place)["soil"] + 0.2 + 0.1 * climate.noise(place.seed + 90, t, 2.0))
