"""What PostgreSQL itself refuses: changing what was written, and reaching into another workshop.

Migration operations, so that every table says it in one line.
"""

from django.db.migrations.operations import RunSQL
from django.db.migrations.operations.base import Operation

_REFUSE = """
CREATE OR REPLACE FUNCTION zesty_append_only() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is only added to: nothing in it is changed or removed', TG_TABLE_NAME
    USING ERRCODE = 'restrict_violation';
END $$;
"""


def append_only(table: str) -> Operation:
    """Rows of a table are added, and never changed or removed."""
    trigger = f"{table}_append_only"
    return RunSQL(
        _REFUSE
        + f"CREATE TRIGGER {trigger} BEFORE UPDATE OR DELETE ON {table} "
        + "FOR EACH ROW EXECUTE FUNCTION zesty_append_only();",
        f"DROP TRIGGER {trigger} ON {table};",
    )


def in_one_workshop(table: str) -> Operation:
    """Lets other tables refer to a row together with its workshop."""
    name = f"{table}_in_workshop"
    return RunSQL(
        f"ALTER TABLE {table} ADD CONSTRAINT {name} UNIQUE (id, workshop_id);",
        f"ALTER TABLE {table} DROP CONSTRAINT {name};",
    )


def same_workshop(table: str, column: str, other: str) -> Operation:
    """A reference from one table to another stays inside one workshop."""
    name = f"{table}_{column}_same_workshop"
    return RunSQL(
        f"ALTER TABLE {table} ADD CONSTRAINT {name} FOREIGN KEY ({column}, workshop_id) "
        f"REFERENCES {other} (id, workshop_id) DEFERRABLE INITIALLY DEFERRED;",
        f"ALTER TABLE {table} DROP CONSTRAINT {name};",
    )
