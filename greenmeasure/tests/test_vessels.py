"""Own cups, syringes, spoons and scales through the API: kept, checked with water, retired, and chosen. Sums are by hand."""

from typing import Any

from greenmeasure.kit.models import Vessel
from greenmeasure.tests.base import ApiTest
from greenmeasure.tests.test_kit import q

JUG: dict[str, Any] = {"name": "Blue jug", "shape": "jug", "capacity": q(500, "ml"), "graduation": q(10, "ml")}


class Vessels(ApiTest):
    def kept(self, **more: Any) -> dict[str, Any]:
        found: dict[str, Any] = self.ask("POST", "vessels", JUG | more, 201)
        return found

    def measured(self, amount: dict[str, Any]) -> dict[str, Any]:
        found: dict[str, Any] = self.ask("POST", "reckon/measure", {"amount": amount})
        return found

    def test_kept_and_read_back(self) -> None:
        self.kept()
        found = self.ask("GET", "vessels")[0]
        self.assertEqual((found["capacity"]["text"], found["graduation"]["text"]), ("500 mL", "10 mL"))
        self.assertEqual((found["state"], found["retired"]), ("not checked with water yet", False))

    def test_every_door_measures_with_it(self) -> None:
        """4.2 fl oz over 7 gal: 2.4 fl oz (71 mL) in the first tank; to the 70 mL mark."""
        self.kept()
        self.assertEqual(self.measured(q(120, "ml"))["measure"]["vessel"]["name"], "Blue jug")
        load = self.ask("POST", "reckon/job", self.job())["loads"][0]
        self.assertEqual(load["pours"][0]["measure"]["instruction"], "70 mL")
        sheet = self.ask("POST", "rounds", self.job(), 201)["sheet"]
        self.assertEqual(sheet["loads"][0]["pours"][0]["measure"]["vessel"]["name"], "Blue jug")
        said = self.ask("POST", "reckon/line", {"line": "measure 4 fl oz"})
        self.assertIn("in the Blue jug", said["sentence"])

    def test_a_spoon_has_no_marks(self) -> None:
        found = self.kept(name="Spoon", shape="spoon", capacity=q(15, "ml"), graduation=None)
        self.assertEqual(found["graduation"]["text"], "15 mL")

    def test_a_check_with_water_is_kept_and_doses_go_by_it(self) -> None:
        """400 mL by the marks hold 431.3 g of water at 20 °C (998.2 g/L), 432 mL: 8 % over; 216 mL are at the 200 mL mark."""
        pk = self.kept()["id"]
        check = {"mark": q(400, "ml"), "weight": q(431.23, "g"), "temperature": q(20, "degC")}
        said = self.ask("POST", f"vessels/{pk}/check", check)
        self.assertIn("+8 %", said["sentence"])
        self.assertTrue(said["vessel"]["state"].startswith("they hold +8 %, doses go by that"))
        self.assertEqual(self.measured(q(216, "ml"))["measure"]["instruction"], "200 mL by the marks of Blue jug")
        # Other marks than those that were checked.
        self.ask("PUT", f"vessels/{pk}", JUG | {"graduation": q(20, "ml")})
        self.assertIsNone(Vessel.objects.get(pk=pk).off)

    def test_a_check_that_cannot_be(self) -> None:
        pk = self.kept()["id"]
        for given, field in (
            ({"mark": q(600, "ml"), "weight": q(600, "g")}, "mark"),
            ({"mark": q(400, "ml"), "weight": q(40, "g")}, "weight"),
            ({"mark": q(400, "g"), "weight": q(400, "g")}, "mark"),
        ):
            self.assertEqual(list(self.faults("POST", f"vessels/{pk}/check", given)), [field])
        scale = self.kept(name="Scale", shape="scale", capacity=q(5, "kg"), graduation=q(1, "g"))["id"]
        self.assertEqual(list(self.faults("POST", f"vessels/{scale}/check", {"mark": q(1, "l"), "weight": q(1, "kg")})), ["mark"])
        self.assertIsNone(Vessel.objects.get(pk=pk).off)

    def test_a_retired_one_measures_nothing(self) -> None:
        pk = self.kept()["id"]
        self.ask("DELETE", f"vessels/{pk}")
        self.assertNotEqual(self.measured(q(120, "ml"))["measure"]["vessel"]["name"], "Blue jug")
        self.assertTrue(self.ask("GET", "vessels")[0]["retired"])
        self.kept()
        self.assertEqual(list(self.faults("POST", f"vessels/{pk}/put-back", {})), ["name"])

    def test_every_fault_is_told_at_once_by_its_field(self) -> None:
        bad = {"name": "", "shape": "bucket", "capacity": q("", "ml"), "graduation": q(-1, "ml")}
        self.assertEqual(set(self.faults("POST", "vessels", bad)), {"name", "shape", "capacity", "graduation"})
        for given, field in (
            ({"graduation": q(600, "ml")}, "graduation"),
            ({"graduation": q(0.1, "ml")}, "graduation"),
            ({"capacity": q(5, "kg")}, "capacity"),
            ({"shape": "scale"}, "capacity"),
        ):
            self.assertIn(field, self.faults("POST", "vessels", JUG | given))
        self.assertFalse(Vessel.objects.exists())

    def test_two_who_change_it(self) -> None:
        made = self.kept()
        self.ask("PUT", f"vessels/{made['id']}", JUG | {"name": "Jug", "version": made["version"]})
        said = self.ask("PUT", f"vessels/{made['id']}", JUG | {"version": made["version"]}, 409)
        self.assertEqual(said["code"], "changed")

    def test_anothers_is_not_there(self) -> None:
        pk = self.kept()["id"]
        self.ask("POST", f"/api/accounts/birch/vessels/{pk}/check", {}, 404)
