"""The units of the trade, as data.

Each row: key, symbol, singular, plural, dimension, size in base units, other spellings. Sizes are exact by definition, after NIST
Handbook 44 Appendix C and NIST SP 811: the US gallon is 231 in³, the pound 453.59237 g, the foot 0.3048 m; the UK gallon is
4.54609 L. The acre is the international one, 43,560 ft² = 4046.8564224 m²; the retired survey acre is 4 ppm larger. Each is held
against pint by a test.
`M` is the trade's thousand square feet: never a million, never a metre (common practice, no source).
"""

from decimal import Decimal

MASS, VOLUME, AREA, LENGTH, RATIO = "mass", "volume", "area", "length", "ratio"
TIME, SPEED, PRESSURE = "time", "speed", "pressure"

INCH, FOOT = Decimal("0.0254"), Decimal("0.3048")
POUND, GRAVITY = Decimal("453.59237"), Decimal("9.80665")
GALLON, UK_GALLON = 231 * INCH**3 * 1000, Decimal("4.54609")
"""Lengths [m], mass [g], standard gravity [m/s²], volumes [L]."""

TRADE_UNITS: tuple[tuple[str, str, str, str, str, Decimal, tuple[str, ...]], ...] = (
    ("mg", "mg", "milligram", "milligrams", MASS, Decimal("0.001"), ()),
    ("g", "g", "gram", "grams", MASS, Decimal(1), ("gm", "gms", "gramme", "grammes")),
    ("kg", "kg", "kilogram", "kilograms", MASS, Decimal(1000), ("kgs", "kilo", "kilos")),
    ("t", "t", "tonne", "tonnes", MASS, Decimal(1_000_000), ("metric ton", "metric tons")),
    (
        "oz_wt",
        "oz wt",
        "ounce by weight",
        "ounces by weight",
        MASS,
        POUND / 16,
        (
            "wt oz",
            "oz weight",
            "oz by weight",
            "oz by wt",
            "weight oz",
            "weight ounce",
            "weight ounces",
            "dry oz",
            "dry ounce",
            "dry ounces",
            "oz dry",
            "ounces weight",
            "oz av",
            "avoirdupois ounces",
            "ozm",
        ),
    ),
    ("lb", "lb", "pound", "pounds", MASS, POUND, ("lbs", "lbm", "#")),
    ("short_ton", "short ton", "short ton", "short tons", MASS, 2000 * POUND, ("us ton", "us tons")),
    ("ml", "mL", "millilitre", "millilitres", VOLUME, Decimal("0.001"), ("cc", "milliliter", "milliliters", "mls", "cm3")),
    ("l", "L", "litre", "litres", VOLUME, Decimal(1), ("liter", "liters", "ltr", "lt")),
    ("tsp", "tsp", "teaspoon", "teaspoons", VOLUME, GALLON / 768, ()),
    ("tbsp", "tbsp", "tablespoon", "tablespoons", VOLUME, GALLON / 256, ("tbs", "tbl")),
    (
        "fl_oz",
        "fl oz",
        "fluid ounce",
        "fluid ounces",
        VOLUME,
        GALLON / 128,
        ("floz", "fl ounce", "fl ounces", "fluid oz", "oz fl", "liquid ounce", "liquid ounces", "liquid oz", "us fl oz", "ozf"),
    ),
    ("cup", "cup", "cup", "cups", VOLUME, GALLON / 16, ()),
    ("pt", "pt", "pint", "pints", VOLUME, GALLON / 8, ("pts",)),
    ("qt", "qt", "quart", "quarts", VOLUME, GALLON / 4, ("qts",)),
    ("gal", "gal", "gallon", "gallons", VOLUME, GALLON, ("gals", "us gal", "us gallon", "us gallons")),
    (
        "imp_fl_oz",
        "UK fl oz",
        "UK fluid ounce",
        "UK fluid ounces",
        VOLUME,
        UK_GALLON / 160,
        ("imp fl oz", "imperial fl oz", "imperial fluid ounce", "imperial fluid ounces"),
    ),
    (
        "imp_gal",
        "UK gal",
        "UK gallon",
        "UK gallons",
        VOLUME,
        UK_GALLON,
        ("imp gal", "imperial gal", "imperial gallon", "imperial gallons"),
    ),
    ("gal_100", "100 gal", "100 gallons", "100 gallons", VOLUME, 100 * GALLON, ()),
    (
        "acre_in",
        "acre-in",
        "acre-inch",
        "acre-inches",
        VOLUME,
        43560 * FOOT**2 * INCH * 1000,
        ("acre inch", "acre inches", "ac-in", "ac in"),
    ),
    ("l_100", "100 L", "100 litres", "100 litres", VOLUME, Decimal(100), ()),
    (
        "ft2",
        "ft²",
        "square foot",
        "square feet",
        AREA,
        FOOT**2,
        ("sq ft", "sqft", "sq feet", "sq foot", "ft^2", "sf", "square ft", "sq fts"),
    ),
    (
        "yd2",
        "yd²",
        "square yard",
        "square yards",
        AREA,
        9 * FOOT**2,
        ("sq yd", "sq yds", "sqyd", "sq yards", "yd^2", "square yd"),
    ),
    (
        "m2",
        "m²",
        "square metre",
        "square metres",
        AREA,
        Decimal(1),
        ("sq m", "sqm", "sq metres", "sq meters", "square meter", "square meters", "m^2"),
    ),
    ("m2_100", "100 m²", "100 square metres", "100 square metres", AREA, Decimal(100), ("are", "ares")),
    ("kft2", "1000 ft²", "1,000 square feet", "1,000 square feet", AREA, 1000 * FOOT**2, ("thousand", "msf")),
    ("acre", "acre", "acre", "acres", AREA, 43560 * FOOT**2, ("ac",)),
    ("ha", "ha", "hectare", "hectares", AREA, Decimal(10_000), ()),
    ("mm", "mm", "millimetre", "millimetres", LENGTH, Decimal("0.001"), ("millimeter", "millimeters")),
    ("cm", "cm", "centimetre", "centimetres", LENGTH, Decimal("0.01"), ("centimeter", "centimeters")),
    ("m", "m", "metre", "metres", LENGTH, Decimal(1), ("meter", "meters")),
    ("in", "in", "inch", "inches", LENGTH, INCH, ('"', "ins")),
    ("ft", "ft", "foot", "feet", LENGTH, FOOT, ("'",)),
    ("yd", "yd", "yard", "yards", LENGTH, 3 * FOOT, ("yds",)),
    ("s", "s", "second", "seconds", TIME, Decimal(1), ("sec", "secs")),
    ("min", "min", "minute", "minutes", TIME, Decimal(60), ("mins",)),
    ("h", "h", "hour", "hours", TIME, Decimal(3600), ("hr", "hrs")),
    ("day", "d", "day", "days", TIME, Decimal(86_400), ()),
    ("week", "wk", "week", "weeks", TIME, Decimal(604_800), ("wks",)),
    ("mph", "mph", "mile an hour", "miles an hour", SPEED, 5280 * FOOT / 3600, ("miles per hour",)),
    ("kmh", "km/h", "kilometre an hour", "kilometres an hour", SPEED, Decimal(1000) / 3600, ("kph", "kmh")),
    ("mps", "m/s", "metre a second", "metres a second", SPEED, Decimal(1), ("mps",)),
    ("kpa", "kPa", "kilopascal", "kilopascals", PRESSURE, Decimal(1), ()),
    ("bar", "bar", "bar", "bars", PRESSURE, Decimal(100), ()),
    (
        "psi",
        "psi",
        "pound per square inch",
        "pounds per square inch",
        PRESSURE,
        POUND / 1000 * GRAVITY / INCH**2 / 1000,
        ("lb/in2", "lbf/in2"),
    ),
    (
        "pct_vv",
        "% v/v",
        "percent by volume",
        "percent by volume",
        RATIO,
        Decimal("0.01"),
        ("%v/v", "% by volume", "% vol/vol", "percent v/v", "% by vol", "% (v/v)"),
    ),
)

CASE_SENSITIVE_SPELLINGS = {"M": "kft2", "A": "acre"}

AMBIGUOUS_SPELLINGS: dict[str, tuple[str, ...]] = {
    "oz": ("fl_oz", "oz_wt"),
    "ozs": ("fl_oz", "oz_wt"),
    "ounce": ("fl_oz", "oz_wt"),
    "ounces": ("fl_oz", "oz_wt"),
    "ton": ("short_ton", "t"),
    "tons": ("short_ton", "t"),
    "a": ("acre", "m2_100"),
}
