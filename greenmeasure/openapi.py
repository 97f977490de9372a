"""Write the OpenAPI document that the front end's client is generated from: `python -m greenmeasure.openapi`."""

import json
import os
from pathlib import Path

DOCUMENT = Path(__file__).resolve().parent.parent / "web" / "src" / "api" / "openapi.json"


def document() -> str:
    """The API's OpenAPI document as text. Needs Django set up."""
    from greenmeasure.api import api

    return json.dumps(api.get_openapi_schema(path_prefix="/api"), indent=1, ensure_ascii=False) + "\n"


if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "greenmeasure.settings_test")
    import django

    django.setup()
    DOCUMENT.parent.mkdir(parents=True, exist_ok=True)
    DOCUMENT.write_text(document(), encoding="utf-8")
    print(f"wrote {DOCUMENT.name}")
