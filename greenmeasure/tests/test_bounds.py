"""What a request may hold is bounded at one place: no field is without a bound, and beyond it there is a clear answer."""

import json
from collections.abc import Iterator
from typing import Any

from greenmeasure.common.bounds import DEEPEST, bounded
from greenmeasure.openapi import document
from greenmeasure.tests.base import ApiTest

OPEN_ENDED = {"date", "date-time", "time", "binary"}
"""Formats whose text is short by what it is; `In` bounds the years of the first two."""


def unbounded(where: str, schema: dict[str, Any]) -> Iterator[str]:
    """The places of a schema that take text, numbers or lists without end."""
    for option in schema.get("anyOf", []):
        yield from unbounded(where, option)
    match schema.get("type"):
        case "string" if not schema.keys() & {"enum", "const", "maxLength"} and schema.get("format") not in OPEN_ENDED:
            yield where
        case "number" | "integer" if not (
            schema.keys() & {"maximum", "exclusiveMaximum"} and schema.keys() & {"minimum", "exclusiveMinimum"}
        ):
            yield where
        case "array":
            if "maxItems" not in schema:
                yield where
            yield from unbounded(f"{where}[]", schema["items"])
        case "object" if isinstance(more := schema.get("additionalProperties"), dict):
            if "maxProperties" not in schema:
                yield where
            yield from unbounded(f"{where}{{}}", more)


class EveryField(ApiTest):
    def test_every_field_that_comes_in_is_bounded(self) -> None:
        said = json.loads(document())
        shapes, found = said["components"]["schemas"], []
        left, seen = [o for path in said["paths"].values() for o in path.values()], set()
        for operation in left:
            found += [
                p
                for q in operation.get("parameters", [])
                if q["name"] != "account"
                for p in unbounded(f"{operation['operationId']} {q['name']}", q["schema"])
            ]
        names = [n for o in left for n in references(o.get("requestBody", {}))]
        while names:
            name = names.pop()
            if name not in seen:
                seen.add(name)
                names += references(shapes[name])
                found += [p for key, s in shapes[name].get("properties", {}).items() for p in unbounded(f"{name}.{key}", s)]
        self.assertGreater(len(seen), 70)
        self.assertEqual(found, [])


def references(schema: Any) -> list[str]:
    """The shapes that a part of the document names."""
    if isinstance(schema, dict):
        own = [schema["$ref"].rsplit("/", 1)[1]] if "$ref" in schema else []
        return own + [n for part in schema.values() for n in references(part)]
    return [n for part in schema for n in references(part)] if isinstance(schema, list) else []


class Beyond(ApiTest):
    """What was sent in the break test that found 500s, each at its door."""

    def send(self, path: str, body: bytes, expect: int = 422, method: str = "POST") -> Any:
        answer = self.client.generic(method, f"/api/accounts/alder/{path}", body, content_type="application/json")
        self.assertEqual(answer.status_code, expect, answer.content[:300])
        return json.loads(answer.content)

    def test_numbers_of_thousands_of_digits(self) -> None:
        self.send("areas", b'{"name": "A", "grass": "mixed", "size": {"value": ' + b"9" * 5000 + b', "unit": "m2"}}', 400)
        typed = {"name": "A", "grass": "mixed", "size": {"value": "9" * 5000, "unit": "m2"}}
        said = self.send("areas", json.dumps(typed).encode())
        self.assertIn("size", {f["field"] for f in said["fields"]})
        self.assertIn("60 characters at the most", said["fields"][0]["remedy"])

    def test_numbers_too_near_to_nothing_and_numbers_that_are_none(self) -> None:
        cans = {"cans": [{"caught": 0.2}] * 4, "unit": "in", "minutes": 5e-324}
        path = f"areas/{self.area.pk}/water/audit"
        self.assertIn("minutes", {f["field"] for f in self.send(path, json.dumps(cans).encode())["fields"]})
        said = self.send(path, b'{"cans": [{"caught": NaN}], "unit": "in", "minutes": 9}')
        self.assertEqual((said["fields"][0]["field"], said["code"]), ("cans.0.caught", "invalid"))

    def test_nesting_without_end(self) -> None:
        deep: Any = 1
        for _ in range(DEEPEST + 2):
            deep = {"a": deep}
        self.assertIn("nested deeper", self.send("areas/measure", json.dumps({"geometry": deep}).encode())["message"])
        self.send("areas/measure", b"[" * 100_000, 400)
        self.assertEqual(bounded({"a": [1, "x", None, True]}), {"a": [1, "x", None, True]})

    def test_texts_that_are_no_text(self) -> None:
        for text in ("\ud800", "a\x00b"):
            said = self.send("reckon/line", json.dumps({"line": text}).encode())
            self.assertEqual((said["fields"][0]["field"], said["fields"][0]["remedy"]), ("line", "Type it anew."))

    def test_days_of_no_age_that_is_kept(self) -> None:
        for on in ("0001-01-01", "9999-12-31"):
            reading = {"taken_on": on, "spot": "Middle", "ph": 6}
            said = self.send(f"areas/{self.area.pk}/soil", json.dumps(reading).encode())
            self.assertEqual((said["fields"][0]["field"], said["fields"][0]["value"]), ("taken_on", on))
            self.assertIn("of these years", said["fields"][0]["remedy"])

    def test_a_window_needs_its_zone_and_a_rhythm_has_none(self) -> None:
        window = {"area_id": self.area.pk, "disease": "dollar_spot", "product_id": self.spray.pk}
        window |= {"begin": "2026-06-01T07:30:00", "end": "2026-06-01T09:00:00"}
        said = self.send("season/planned", json.dumps(window).encode())
        self.assertEqual({f["field"] for f in said["fields"]}, {"begin", "end"})
        rhythm = {"kind": "mow", "area_id": self.area.pk, "days": [0], "begin": "07:00:00+05:00", "end": "09:00"}
        self.assertEqual(self.send("sky/rhythms", json.dumps(rhythm).encode())["fields"][0]["field"], "begin")

    def test_what_django_itself_refuses_has_the_one_shape(self) -> None:
        huge = self.client.generic("POST", "/api/accounts/alder/reckon/line", b" " * 2_100_000, content_type="application/json")
        form = self.client.generic(
            "POST", "/api/accounts/alder/sky/station/keep", b"--x", content_type="multipart/form-data; boundary="
        )
        other = self.client.generic("TRACE", "/api/accounts/alder/areas")
        for answer, status in ((huge, 413), (form, 400), (other, 405)):
            self.assertEqual((answer.status_code, answer["Content-Type"]), (status, "application/json"))
            self.assertEqual(set(json.loads(answer.content)), {"code", "message", "fields"})
            self.assertEqual(answer["Cache-Control"], "no-store")

    def test_units_and_zones_that_are_none(self) -> None:
        lot = {"number": "L 1", "left": {"value": 0, "unit": "furlong"}}
        said = self.send(f"products/{self.spray.pk}/lots", json.dumps(lot).encode())
        self.assertEqual(said["fields"][0]["field"], "left")
        for zone in ("America", "../../etc", "US/../.."):
            said = self.send("sites", json.dumps({"name": "Park", "time_zone": zone}).encode())
            self.assertEqual(said["fields"][0]["field"], "time_zone")

    def test_ids_and_years_that_no_row_has(self) -> None:
        for path in (f"areas/{2**63}", "areas/-1", f"sky/schools?area_id={self.area.pk}&disease=dollar_spot&year=-1"):
            self.send(path, b"", 422, "GET")

    def test_geojson_that_is_not_what_it_seems(self) -> None:
        polygon = {"type": "Polygon", "coordinates": [[[-71.6, 41.2], [-71.59, 41.2], [-71.59, 41.21], [-71.6, 41.2]]]}
        for properties, geometry in (([1], polygon), ({"name": "A"}, "x"), ({"name": "A", "size": {}}, None)):
            feature = {"type": "Feature", "properties": properties, "geometry": geometry}
            text = json.dumps({"type": "FeatureCollection", "features": [feature]})
            said = self.ask("POST", "areas/geojson/preview", {"text": text})
            self.assertEqual(said["refused"], 1, properties)
            self.assertTrue(said["lines"][0]["problems"][0])

    def test_a_file_of_json_is_held_to_the_same_bounds_and_its_place_is_named(self) -> None:
        for text, field in (('{"products": [{"name": "A", "rates": [NaN]}]}', "products.0.rates.0"), ("[" * 90_000, "text")):
            said = self.ask("POST", "products/import/preview", {"form": "json", "text": text}, 422)
            self.assertEqual(said["fields"][0]["field"], field)

    def test_tables_with_old_line_ends_are_read_and_cells_without_end_are_told(self) -> None:
        shelf = "name,kind,formulation,rate\rOld SC,fungicide,SC,0.4 fl oz per 1000 sq ft\r"
        self.assertEqual(self.ask("POST", "products/import/preview", {"form": "csv", "text": shelf})["refused"], 0)
        huge = "name,rate\nA," + "x" * 200_000 + "\n"
        said = self.ask("POST", "products/import/preview", {"form": "csv", "text": huge}, 422)
        self.assertIn("field larger than field limit", said["message"])
