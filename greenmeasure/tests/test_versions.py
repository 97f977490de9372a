"""Two editors: a change names the version it was made from, and a stale one is answered with what differs, field by field."""

from typing import Any

from greenmeasure.ground.models import Area
from greenmeasure.tests.base import AREA, FUNGICIDE, SPRAYER, ApiTest
from greenmeasure.tests.test_walls import ONES_OWN

STATION = {"name": "Mast", "url": "", "offset": 2}


class TwoEditors(ApiTest):
    def stale(self, path: str, mine: dict[str, Any], version: int) -> dict[str, Any]:
        """What a change from an old version is answered with: field by its name → yours, theirs."""
        said = self.ask("PUT", path, mine | {"version": version}, 409)
        self.assertEqual(said["code"], "changed")
        self.assertIn("while you had it open", said["message"])
        for change in said["changes"]:
            self.assertTrue(change["name"] and change["yours"] and change["theirs"], change)
        return {"version": said["version"]} | {c["field"]: (c["yours"], c["theirs"], c["value"]) for c in said["changes"]}

    def test_the_second_save_of_an_area_overwrites_nothing(self) -> None:
        path = f"areas/{self.area.pk}"
        opened = self.ask("GET", path)["area"]["version"]
        theirs = AREA | {"note": "Mind the head by the gate", "height": {"value": "1/2", "unit": "in"}}
        self.ask("PUT", path, theirs | {"version": opened})
        found = self.stale(path, AREA | {"use": "green"}, opened)
        self.assertEqual(set(found), {"version", "note", "height", "use"})
        self.assertEqual(found["note"][:2], ("—", "Mind the head by the gate"))
        self.assertEqual(found["use"][:2], ("green", "—"))
        self.assertEqual(found["height"][1], "0.5 in")
        area = Area.objects.get(pk=self.area.pk)
        self.assertEqual((area.note, area.use), ("Mind the head by the gate", ""))
        # mine of one, theirs of the others, from the version that stands
        both = AREA | {"use": "green", "note": found["note"][2], "height": found["height"][2], "version": found["version"]}
        said = self.ask("PUT", path, both)
        self.assertEqual((said["use"], said["note"], said["height"]["text"]), ("green", "Mind the head by the gate", "0.5 in"))

    def test_what_is_the_same_but_typed_otherwise_is_no_difference(self) -> None:
        path = f"areas/{self.area.pk}"
        self.ask("PUT", path, AREA | {"note": "x"})
        found = self.stale(path, AREA | {"size": {"value": "7,000", "unit": "ft2"}, "note": "x"}, 1)
        self.assertEqual(set(found), {"version"})

    def test_everything_that_is_changed_names_its_version(self) -> None:
        lot = self.ask("POST", f"products/{self.spray.pk}/lots", {"number": "L", "left": {"value": 9, "unit": "gal"}}, 201)
        member = self.ask("GET", "members")[0]
        site = self.ask("GET", "sites")[0]
        self.ask("PUT", "sky/station", STATION)
        card = FUNGICIDE | {"note": "a note"}
        watch = f"sky/areas/{self.area.pk}/watch/dollar_spot"
        count = {"number": "L", "left": {"value": 9, "unit": "gal"}, "note": "half a jug"}
        things: tuple[tuple[str, dict[str, Any], str, Any], ...] = (
            (f"products/{self.spray.pk}", card, "note", "another note"),
            (f"machines/{self.sprayer.pk}", SPRAYER | {"note": "leaks"}, "note", "mended"),
            (f"products/{self.spray.pk}/lots/{lot['lots'][0]['id']}", count, "note", "a full jug"),
            (f"members/{member['id']}", {"role": "manager", "site_ids": []}, "role", "viewer"),
            (f"sites/{site['id']}", {k: site[k] for k in ("name", "time_zone")} | {"gate": "the slip"}, "gate", "the shed"),
            ("house", {"answers": {"iron": "label"}}, "answers", {"iron": "capped"}),
            ("sky/station", STATION | {"offset": 3}, "offset", 4),
            (watch, {"on": False, "model": "smith_kerns"}, "on", True),
            (f"passes/areas/{self.area.pk}/places", {"places": []}, "", None),
        )
        for path, mine, field, other in things:
            with self.subTest(path):
                version = self.version_of(path)
                self.assertEqual(set(self.faults("PUT", path, mine | {"version": None})), {"version"})
                self.ask("PUT", path, mine | {"version": version})
                found = self.stale(path, mine | ({field: other} if field else {}), version)
                self.assertEqual(set(found) - {"version"}, {field} if field else set())
                self.assertEqual(found["version"], version + 1)

    def test_every_change_of_the_api_names_its_version(self) -> None:
        from greenmeasure.api import api

        schemas = api.get_openapi_schema(path_prefix="/api")["components"]["schemas"]
        for path, operations in api.get_openapi_schema(path_prefix="/api")["paths"].items():
            if "put" in operations and path not in ONES_OWN:  # what is one's own nobody else changes
                body = operations["put"]["requestBody"]["content"]["application/json"]["schema"]["$ref"].split("/")[-1]
                self.assertIn("version", schemas[body]["properties"], path)

    def test_what_was_put_away_meanwhile_is_not_brought_back_by_a_save(self) -> None:
        self.ask("DELETE", f"areas/{self.area.pk}")
        self.stale(f"areas/{self.area.pk}", AREA, 1)

    def test_a_lot_that_a_round_took_from_is_not_counted_as_it_was(self) -> None:
        lot = self.ask("POST", f"products/{self.spray.pk}/lots", {"number": "L", "left": {"value": 9, "unit": "gal"}}, 201)
        held = lot["lots"][0]
        pk = self.ask("POST", "rounds", self.job(), 201)["id"]
        self.ask("POST", f"rounds/{pk}/finish", {"used": [{"amount": {"value": 4.2, "unit": "fl_oz"}, "lot_id": held["id"]}]})
        mine = {"number": "L", "left": {"value": 9, "unit": "gal"}}
        found = self.stale(f"products/{self.spray.pk}/lots/{held['id']}", mine, held["version"])
        self.assertEqual(set(found), {"version", "left"})
