"""Lists: names in the order in which people count, and what was put away."""

from greenmeasure.common.natural import natural
from greenmeasure.ground.models import Area
from greenmeasure.tests.base import AREA, FUNGICIDE, SPRAYER, ApiTest, make_account

COUNTED = ["Court 1", "court 2", "Court 10", "Court 10 b", "Yard"]


class Order(ApiTest):
    def test_2_comes_before_10(self) -> None:
        for name in reversed(COUNTED):
            self.ask("POST", "areas", AREA | {"name": name}, 201)
            self.ask("POST", "products", FUNGICIDE | {"name": name}, 201)
            self.ask("POST", "machines", SPRAYER | {"name": name}, 201)
        mine = set(COUNTED)
        for found in (self.ask("GET", "areas")["areas"], self.ask("GET", "products"), self.ask("GET", "machines")):
            self.assertEqual([x["name"] for x in found if x["name"] in mine], COUNTED)

    def test_the_database_sorts_as_python_does(self) -> None:
        Area.objects.all().delete()
        named = [
            "Tee 12",
            "tee 3",
            "Tee 100",
            "Tee 3b",
            "Green 007",
            "Green 6",
            "Green 8",
            "Field 2 plot 10",
            "Field 2 plot 9",
            "Zed",
        ]
        site = self.account.sites.get()
        rows = [Area(account=self.account, site=site, name=n, size_value=1, size_unit="m2") for n in named]
        Area.objects.bulk_create(rows)
        self.assertEqual(list(Area.objects.values_list("name", flat=True)), sorted(named, key=natural))


class Away(ApiTest):
    """What was put away is listed with the door that it is put back at, for those who see it."""

    def test_everything_of_the_account_the_last_first(self) -> None:
        self.assertEqual(self.ask("GET", "away"), [])
        for kind, pk in (("areas", self.area.pk), ("products", self.spray.pk), ("machines", self.sprayer.pk)):
            self.ask("DELETE", f"{kind}/{pk}")
        found = self.ask("GET", "away")
        self.assertEqual(
            [(x["kind"], x["name"]) for x in found], [("machines", "Sprayer"), ("products", "Test SC"), ("areas", "North green")]
        )
        for x in found:
            self.ask("POST", f"{x['kind']}/{x['id']}/put-back")
        self.assertEqual(self.ask("GET", "away"), [])

    def test_another_accounts_are_not_seen(self) -> None:
        make_account("birch").areas.get().archive()
        self.assertEqual(self.ask("GET", "away"), [])
        self.sign_in("viewer")
        self.area.archive()
        self.assertEqual([x["name"] for x in self.ask("GET", "away")], ["North green"])
