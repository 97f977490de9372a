"""What is missing carries the way to where it is put right; what is only assumed says so wherever it counts."""

from typing import Any

from greenmeasure.kit.models import Machine
from greenmeasure.tests.test_kit import STRIP, KitTest, q


class Missing(KitTest):
    def bare(self, **more: Any) -> Machine:
        body = {"name": "Bare", "kind": "sprayer", "form": "knapsack", "capacity": q(4, "gal")} | more
        return Machine.objects.get(pk=self.ask("POST", "machines", body, 201)["id"])

    def assumed(self) -> Machine:
        return self.bare(output=q(1, "gal/kft2"), output_assumed=True)

    def test_a_machine_without_an_output_leads_to_its_bench(self) -> None:
        machine = self.bare()
        (fault,) = self.ask("POST", "reckon/job", self.planned(self.spray, machine), 422)["fields"]
        self.assertEqual(fault["mend"], {"act": "Measure it now (5 min)", "to": f"kit/{machine.pk}/calibrate"})

    def test_a_weight_of_a_liquid_without_its_density_leads_to_its_card(self) -> None:
        self.spray.density_value = None
        self.spray.density_unit = ""
        self.spray.save()
        rate = {"value": "0.5", "unit": "oz_wt/kft2"}
        job = self.planned(self.spray, self.bare(output=q(1, "gal/kft2")))
        job["parts"][0]["doses"][0]["rate"] = rate
        (fault,) = self.ask("POST", "reckon/job", job, 422)["fields"]
        self.assertEqual(fault["mend"], {"act": "Enter its density", "to": f"shelf/{self.spray.pk}"})

    def test_an_assumed_output_is_told_in_kit_reckon_and_on_the_sheet_until_it_is_measured(self) -> None:
        machine = self.assumed()
        card = self.ask("GET", f"machines/{machine.pk}")["machine"]
        self.assertEqual(card["state"], "assumed until measured")
        job = self.planned(self.spray, machine)
        (told,) = (f for f in self.ask("POST", "reckon/job", job)["machine_findings"] if f["key"] == "assumed-output")
        self.assertIn("is assumed to be 1 gal/1000 ft² until it is measured", told["sentence"])
        self.assertEqual(told["mend"]["to"], f"kit/{machine.pk}/calibrate")
        sheet = self.ask("POST", "rounds", job, 201)["sheet"]
        self.assertIn("1 gal/1000 ft², assumed", [f["text"] for f in sheet["setup"]])
        said = self.ask("POST", "reckon/line", {"line": "0.6 fl oz/M Test SC on North green with Bare"})
        self.assertIn("assumed to be 1 gal/1000 ft²", " ".join(said["details"]))

    def test_a_calibration_takes_the_place_of_what_was_assumed(self) -> None:
        machine = self.assumed()

        self.keep(STRIP, machine)
        self.assertFalse(Machine.objects.get(pk=machine.pk).assumed)
        found = self.ask("POST", "reckon/job", self.planned(self.spray, machine))
        self.assertNotIn("assumed-output", [f["key"] for f in found["machine_findings"]])

    def test_an_output_that_is_taken_out_is_no_longer_assumed(self) -> None:
        machine = self.assumed()
        body = {"version": 1, "name": "Bare", "kind": "sprayer", "capacity": q(4, "gal"), "output": None, "output_assumed": True}
        card = self.ask("PUT", f"machines/{machine.pk}", body)
        self.assertEqual((card["output_assumed"], card["state"]), (False, "not known yet"))

    def test_forms_say_what_they_put_down_and_usually_hold(self) -> None:
        forms = {f["key"]: f for f in self.ask("GET", "machines/options")["forms"]}
        self.assertIn(self.spray.pk, forms["knapsack"]["takes"])
        self.assertNotIn(self.spray.pk, forms["broadcast"]["takes"])
        self.assertEqual((forms["knapsack"]["capacity"]["text"], forms["broadcast"]["kind"]), ("4 gal", "spreader"))
