"""Made-up weather of a harbour town at 41° north, the same for the same seed at any hour, past or to come.

Every hour is a plain function of its time: seasons and days as cosines, spells as smooth noise whose knots are hashed from
the seed. Nothing is remembered but the snow, which is counted from each first of September.
"""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]
Times = NDArray[np.datetime64]
HOUR = np.timedelta64(1, "h")
EPOCH = np.datetime64("2000-01-01T00", "h")
FORECAST_HOURS = 7 * 24
WET = 1.22
"""How far the noise of wet spells must rise for rain."""

AIR_ERROR, HUMIDITY_ERROR, WIND_ERROR = (0.4, 0.017), (2.0, 0.06), (0.2, 0.009)
"""Standard error of a forecast at once and more an hour of its lead: air [°C], humidity [%], wind [m/s]."""


@dataclass(frozen=True)
class Place:
    """Where the weather is made for, and the seed of its spells."""

    seed: int = 41
    latitude: float = 41.22
    longitude: float = -72.61


HERE = Place()
FERRY = Place(53, 41.255, -72.56)
"""A field across the harbour, whose spells are its own."""
PLACES = {"": HERE, "ferry": FERRY}
"""The places that weather is served for, by the beginning of their path."""


def _knots(seed: int, at: NDArray[np.int64]) -> Floats:
    """Normal deviates hashed from a seed and whole numbers (splitmix64, then Box and Muller)."""
    with np.errstate(over="ignore"):
        x = at.astype(np.uint64) * np.uint64(0x9E3779B97F4A7C15) + np.uint64(seed * 0x2545F491 + 0x632BE59B)
        halves = []
        for _ in range(2):
            x = x + np.uint64(0x9E3779B97F4A7C15)
            z = (x ^ (x >> np.uint64(30))) * np.uint64(0xBF58476D1CE4E5B9)
            z = (z ^ (z >> np.uint64(27))) * np.uint64(0x94D049BB133111EB)
            halves.append(((z ^ (z >> np.uint64(31))) >> np.uint64(11)).astype(float) / 2**53)
    return np.asarray(np.sqrt(-2 * np.log(np.maximum(halves[0], 1e-15))) * np.cos(2 * np.pi * halves[1]))


def noise(seed: int, hours: Floats, period: float) -> Floats:
    """Smooth noise of about unit spread whose knots lie a `period` [h] apart."""
    at = hours / period
    low = np.floor(at)
    part = at - low
    ease = part * part * (3 - 2 * part)
    left, right = _knots(seed, low.astype(np.int64)), _knots(seed, low.astype(np.int64) + 1)
    return np.asarray((left * (1 - ease) + right * ease) * 1.2)


def weather(times: Times, place: Place = HERE) -> dict[str, Floats]:
    """The weather of hours (datetime64[h], UTC).

    Returns:
        `air` [°C], `humidity` [%], `rain` [mm], `wind` [m/s], `soil` [°C] at 5 cm, `snow` lying [cm], `dew` point [°C].
    """
    found = _without_snow(times, place)
    full = np.log(found["humidity"] / 100) + 17.625 * found["air"] / (243.04 + found["air"])
    found["dew"] = 243.04 * full / (17.625 - full)
    found["snow"] = _snow(times, place)
    return found


def _without_snow(times: Times, place: Place) -> dict[str, Floats]:
    t = ((times - EPOCH) / HOUR).astype(float)
    seed = place.seed
    year = 2 * np.pi * (t / 24 - 201.5) / 365.2425
    sun = np.cos(2 * np.pi * (t + place.longitude / 15 - 15.2) / 24)
    cloud = 1 / (1 + np.exp(-1.7 * noise(seed + 1, t, 40) - 0.7 * noise(seed + 2, t, 170)))
    season = 11.2 + 12.3 * np.cos(year)
    mean = season + 3.0 * noise(seed + 3, t, 110) + 1.5 * noise(seed + 4, t, 34)
    air = mean + (5.6 - 3.6 * cloud) * sun
    spread = np.clip(6.2 - 4.0 * noise(seed + 5, t, 190) - 3.6 * (cloud - 0.5), 0.4, 16.0)
    dew = np.minimum(mean - spread + 0.6 * sun, air - 0.05)
    humidity = 100 * np.exp(17.625 * dew / (243.04 + dew) - 17.625 * air / (243.04 + air))
    wet = noise(seed + 6, t, 26) + 1.1 * (cloud - 0.5) - 0.06 * spread
    rain = np.where(wet > WET, np.exp(0.9 * noise(seed + 7, t, 3.1)) * 1.3 * np.minimum(1.0, (wet - WET) * 4), 0.0)
    rain = np.where(rain < 0.1, 0.0, rain)
    humidity = np.where(rain > 0, np.maximum(humidity, 91.0), humidity)
    wind = np.maximum(0.2, 2.3 + 1.0 * noise(seed + 8, t, 46) + 0.5 * noise(seed + 9, t, 7) + 1.15 * sun - 0.5 * np.cos(year))
    soil = 11.6 + 10.9 * np.cos(year - 0.21) + 1.7 * noise(seed + 3, t - 36, 110) + 1.1 * sun
    return {"air": air, "humidity": humidity, "rain": rain, "wind": wind, "soil": np.maximum(soil, -1.5)}


def _snow(times: Times, place: Place) -> Floats:
    years = times.astype("datetime64[Y]").astype(int) + 1970
    months = times.astype("datetime64[M]").astype(int) % 12 + 1
    winters = np.where(months >= 9, years, years - 1)
    found = np.zeros(len(times))
    for winter in np.unique(winters):
        here = winters == winter
        lies = _winter(int(winter), place)
        found[here] = lies[((times[here] - np.datetime64(f"{winter}-09-01T00", "h")) / HOUR).astype(int)]
    return found


@lru_cache(maxsize=64)
def _winter(year: int, place: Place) -> Floats:
    """Snow lying [cm] by the hour from 1 September on: what falls below half a degree, less what melts."""
    times = np.arange(np.datetime64(f"{year}-09-01T00", "h"), np.datetime64(f"{year + 1}-09-01T00", "h"))
    made = _without_snow(times, place)
    lies, found = 0.0, np.zeros(len(times))
    for i, (air, rain) in enumerate(zip(made["air"], made["rain"], strict=True)):
        lies += rain if air < 0.5 else 0.0
        lies = max(0.0, lies - max(0.0, air - 0.5) * 0.14)
        found[i] = lies
    return np.where(found < 0.3, 0.0, found)


def forecast(issued: np.datetime64, place: Place = HERE, hours: int = FORECAST_HOURS) -> tuple[Times, dict[str, Floats]]:
    """What a forecast issued at an hour says of it and the hours after: the weather with an error that grows with the lead."""
    lead = np.arange(1, hours + 1).astype(float)
    times = issued + np.arange(hours) * HOUR
    t = ((times - EPOCH) / HOUR).astype(float)
    seed = place.seed + 1000 + int((issued - EPOCH) / HOUR) * 17
    late = np.round(noise(seed + 1, t, 60) * 0.035 * lead).astype(int)  # fronts come early or late
    made = weather(times, place)
    shifted = weather(times + late * HOUR, place)

    def off(n: int, grows: tuple[float, float]) -> Floats:
        return noise(seed + n, t, 30) * (grows[0] + grows[1] * lead)

    return times, {
        "air": made["air"] + off(2, AIR_ERROR),
        "humidity": np.clip(made["humidity"] + off(3, HUMIDITY_ERROR), 5, 100),
        "rain": shifted["rain"] * np.exp(0.25 * noise(seed + 4, t, 20)),
        "wind": np.maximum(0.1, made["wind"] + off(5, WIND_ERROR)),
        "snow": made["snow"],
    }
