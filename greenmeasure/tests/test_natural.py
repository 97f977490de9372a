"""Names stand in the order in which people count, at every door that lists them."""

from greenmeasure.common.natural import natural
from greenmeasure.ground.models import Area
from greenmeasure.tests.base import AREA, FUNGICIDE, SPRAYER, ApiTest

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
