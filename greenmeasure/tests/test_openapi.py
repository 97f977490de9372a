"""The document, the client made from it, and what the API really sends agree."""

import ast
import json
import shutil
import subprocess
import unittest
from pathlib import Path

from django.conf import settings
from django.test import SimpleTestCase

from greenmeasure.openapi import DOCUMENT, document
from greenmeasure.reckon.schemas import JobOut, LineOut
from greenmeasure.tests.base import ApiTest


class Document(SimpleTestCase):
    def test_the_document_in_the_tree_is_the_apis(self) -> None:
        said = "The API has changed: run `make client` and commit what it writes."
        self.assertEqual(DOCUMENT.read_text(encoding="utf-8"), document(), said)

    def test_the_typescript_client_is_made_from_it(self) -> None:
        web = Path(settings.ROOT) / "web"
        tool = web / "node_modules" / ".bin" / "openapi-typescript"
        if not tool.exists() or not shutil.which("node"):
            raise unittest.SkipTest("the front end's packages are not installed: run `make install`")
        run = subprocess.run(
            [str(tool), "src/api/openapi.json", "-o", "src/api/schema.d.ts", "--check"], cwd=web, capture_output=True, text=True
        )
        self.assertEqual(run.returncode, 0, run.stdout + run.stderr)

    def test_no_two_shapes_have_one_name(self) -> None:
        """In the document a name stands for one shape: a second of the same name would silently take its place."""
        names: dict[str, set[str]] = {}
        for path in (Path(settings.ROOT) / "greenmeasure").rglob("*.py"):
            for node in ast.parse(path.read_text(encoding="utf-8")).body:
                if isinstance(node, ast.ClassDef) and node.name.endswith(("In", "Out")) and "tests" not in path.parts:
                    names.setdefault(node.name, set()).add(
                        path.name if path.parts[-2] == "greenmeasure" else f"{path.parts[-2]}/{path.name}"
                    )
        self.assertEqual({name: where for name, where in names.items() if len(where) > 1}, {})

    def test_every_door_tells_of_the_one_error_shape(self) -> None:
        for path, operations in json.loads(document())["paths"].items():
            for method, operation in operations.items():
                self.assertIn("default", operation["responses"], f"{method} {path}")


class ReadyAnswers(ApiTest):
    def test_what_is_sent_past_ninja_is_of_the_type_it_declares(self) -> None:
        JobOut.model_validate(self.ask("POST", "reckon/job", self.job()), strict=False)
        LineOut.model_validate(self.ask("POST", "reckon/line", {"line": "0.6 fl oz/M of Test SC on North green"}))
