"""What goes out is packed for whoever can unpack it: answers of the API as they are made, the interface when it is built."""

import gzip
import json
from pathlib import Path
from unittest import SkipTest

from django.conf import settings

from greenmeasure.tests.base import ApiTest


class Packed(ApiTest):
    def test_answers_of_the_api_are_packed(self) -> None:
        plain = self.client.get("/api/accounts/alder/products/options")
        packed = self.client.get("/api/accounts/alder/products/options", headers={"Accept-Encoding": "gzip"})
        self.assertEqual(packed["Content-Encoding"], "gzip")
        self.assertLess(len(packed.content), len(plain.content) / 3)
        self.assertEqual(json.loads(gzip.decompress(packed.content)), json.loads(plain.content))

    def test_the_interface_is_packed_when_it_is_built(self) -> None:
        scripts = list((Path(settings.WEB_BUILD) / "assets").glob("*.js"))
        if not scripts:
            raise SkipTest("the interface is not built: run `make build`")
        large = [p for p in scripts if p.stat().st_size > 20_000]
        self.assertTrue(large)
        for script in large:
            beside = script.with_name(script.name + ".gz")
            self.assertLess(beside.stat().st_size, script.stat().st_size / 2, script.name)
