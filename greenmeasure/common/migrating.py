"""What data migrations share."""

from typing import Any


def settle(schema_editor: Any) -> None:
    """Let PostgreSQL check the foreign keys of rows just written, so that their tables can be altered in the same step."""
    if schema_editor.connection.vendor == "postgresql":
        schema_editor.execute("SET CONSTRAINTS ALL IMMEDIATE")
        schema_editor.execute("SET CONSTRAINTS ALL DEFERRED")
