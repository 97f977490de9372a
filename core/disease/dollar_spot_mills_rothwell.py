"""Dollar spot by warm humid days: three of the last seven with a high of 25 °C and a humidity of 90 %.

Mills SG, Rothwell JD (1982) Predicting diseases: the hygrothermograph, Greenmaster 8 (page from memory), as tested by Burpee
LL, Goulty LG (1986) Can J Plant Sci 66:345-351, who found that it warns too often.
"""

from core.disease.model import Model, Series, Tier, Weather, flagged, plain, rolling_count

WARM, HUMID = 25.0, 90.0
DAYS, NEEDED = 7, 3.0


def series(weather: Weather) -> Series:
    """How many of the last seven days were warm and humid."""
    days = weather.days
    warm = flagged((days.high >= WARM) & (days.humidity_high >= HUMID), days.high, days.humidity_high)
    return plain(rolling_count(warm, DAYS))


MODEL = Model(
    "mills_rothwell",
    "dollar_spot",
    "Mills and Rothwell",
    NEEDED,
    "days of the last 7",
    Tier.MEMORY,
    "Mills and Rothwell 1982, Greenmaster 8; Burpee and Goulty 1986, Can J Plant Sci 66:345-351",
    "any",
    DAYS,
    series,
)
