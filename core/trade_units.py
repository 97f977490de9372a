"""The units of the trade, as data.

Each row: key, symbol, singular, plural, dimension, size as a pint expression, other spellings. Sizes follow NIST
Handbook 44 Appendix C and NIST SP 811: the US gallon is 231 in³, the pound 453.59237 g, the foot 0.3048 m. The acre is
the international one, 43,560 ft² = 4046.8564224 m² (pint's own `acre` is the retired survey acre, 4 ppm larger).
`M` is the trade's thousand square feet: never a million, never a metre (common practice, no source).
"""

MASS, VOLUME, AREA, LENGTH, RATIO = "mass", "volume", "area", "length", "ratio"
TIME, SPEED, PRESSURE = "time", "speed", "pressure"

TRADE_UNITS: tuple[tuple[str, str, str, str, str, str, tuple[str, ...]], ...] = (
    ("mg", "mg", "milligram", "milligrams", MASS, "milligram", ()),
    ("g", "g", "gram", "grams", MASS, "gram", ("gm", "gms", "gramme", "grammes")),
    ("kg", "kg", "kilogram", "kilograms", MASS, "kilogram", ("kgs", "kilo", "kilos")),
    ("t", "t", "tonne", "tonnes", MASS, "tonne", ("metric ton", "metric tons")),
    ("oz_wt", "oz wt", "ounce by weight", "ounces by weight", MASS, "avoirdupois_ounce",
     ("wt oz", "oz weight", "oz by weight", "oz by wt", "weight oz", "weight ounce", "weight ounces", "dry oz",
      "dry ounce", "dry ounces", "oz dry", "ounces weight", "oz av", "avoirdupois ounces", "ozm")),
    ("lb", "lb", "pound", "pounds", MASS, "avoirdupois_pound", ("lbs", "lbm", "#")),
    ("short_ton", "short ton", "short ton", "short tons", MASS, "short_ton", ("us ton", "us tons")),
    ("ml", "mL", "millilitre", "millilitres", VOLUME, "milliliter",
     ("cc", "milliliter", "milliliters", "mls", "cm3")),
    ("l", "L", "litre", "litres", VOLUME, "liter", ("liter", "liters", "ltr", "lt")),
    ("tsp", "tsp", "teaspoon", "teaspoons", VOLUME, "teaspoon", ()),
    ("tbsp", "tbsp", "tablespoon", "tablespoons", VOLUME, "tablespoon", ("tbs", "tbl")),
    ("fl_oz", "fl oz", "fluid ounce", "fluid ounces", VOLUME, "fluid_ounce",
     ("floz", "fl ounce", "fl ounces", "fluid oz", "oz fl", "liquid ounce", "liquid ounces", "liquid oz",
      "us fl oz", "ozf")),
    ("cup", "cup", "cup", "cups", VOLUME, "cup", ()),
    ("pt", "pt", "pint", "pints", VOLUME, "pint", ("pts",)),
    ("qt", "qt", "quart", "quarts", VOLUME, "quart", ("qts",)),
    ("gal", "gal", "gallon", "gallons", VOLUME, "gallon", ("gals", "us gal", "us gallon", "us gallons")),
    ("imp_fl_oz", "UK fl oz", "UK fluid ounce", "UK fluid ounces", VOLUME, "imperial_fluid_ounce",
     ("imp fl oz", "imperial fl oz", "imperial fluid ounce", "imperial fluid ounces")),
    ("imp_gal", "UK gal", "UK gallon", "UK gallons", VOLUME, "imperial_gallon",
     ("imp gal", "imperial gal", "imperial gallon", "imperial gallons")),
    ("gal_100", "100 gal", "100 gallons", "100 gallons", VOLUME, "100 * gallon", ()),
    ("l_100", "100 L", "100 litres", "100 litres", VOLUME, "100 * liter", ()),
    ("ft2", "ft²", "square foot", "square feet", AREA, "foot ** 2",
     ("sq ft", "sqft", "sq feet", "sq foot", "ft^2", "sf", "square ft", "sq fts")),
    ("yd2", "yd²", "square yard", "square yards", AREA, "yard ** 2",
     ("sq yd", "sq yds", "sqyd", "sq yards", "yd^2", "square yd")),
    ("m2", "m²", "square metre", "square metres", AREA, "meter ** 2",
     ("sq m", "sqm", "sq metres", "sq meters", "square meter", "square meters", "m^2")),
    ("m2_100", "100 m²", "100 square metres", "100 square metres", AREA, "100 * meter ** 2", ("are", "ares")),
    ("kft2", "1000 ft²", "1,000 square feet", "1,000 square feet", AREA, "1000 * foot ** 2", ("thousand", "msf")),
    ("acre", "acre", "acre", "acres", AREA, "43560 * foot ** 2", ("ac",)),
    ("ha", "ha", "hectare", "hectares", AREA, "hectare", ()),
    ("mm", "mm", "millimetre", "millimetres", LENGTH, "millimeter", ("millimeter", "millimeters")),
    ("cm", "cm", "centimetre", "centimetres", LENGTH, "centimeter", ("centimeter", "centimeters")),
    ("m", "m", "metre", "metres", LENGTH, "meter", ("meter", "meters")),
    ("in", "in", "inch", "inches", LENGTH, "inch", ('"', "ins")),
    ("ft", "ft", "foot", "feet", LENGTH, "foot", ("'",)),
    ("yd", "yd", "yard", "yards", LENGTH, "yard", ("yds",)),
    ("s", "s", "second", "seconds", TIME, "second", ("sec", "secs")),
    ("min", "min", "minute", "minutes", TIME, "minute", ("mins",)),
    ("h", "h", "hour", "hours", TIME, "hour", ("hr", "hrs")),
    ("day", "d", "day", "days", TIME, "day", ()),
    ("week", "wk", "week", "weeks", TIME, "week", ("wks",)),
    ("mph", "mph", "mile an hour", "miles an hour", SPEED, "mile / hour", ("miles per hour",)),
    ("kmh", "km/h", "kilometre an hour", "kilometres an hour", SPEED, "kilometer / hour", ("kph", "kmh")),
    ("mps", "m/s", "metre a second", "metres a second", SPEED, "meter / second", ("mps",)),
    ("kpa", "kPa", "kilopascal", "kilopascals", PRESSURE, "kilopascal", ()),
    ("bar", "bar", "bar", "bars", PRESSURE, "bar", ()),
    ("psi", "psi", "pound per square inch", "pounds per square inch", PRESSURE, "psi", ("lb/in2", "lbf/in2")),
    ("pct_vv", "% v/v", "percent by volume", "percent by volume", RATIO, "0.01",
     ("%v/v", "% by volume", "% vol/vol", "percent v/v", "% by vol", "% (v/v)")),
)  # fmt: skip

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
