"""What the web server's database role may do: it owns nothing, and only adds to what is only added to."""

import re

from django.db import connection, transaction

_APPEND_ONLY = """
SELECT c.relname FROM pg_trigger t JOIN pg_class c ON c.oid = t.tgrelid
JOIN pg_proc p ON p.oid = t.tgfoid WHERE p.proname = 'zesty_append_only'
"""


def append_only_tables() -> list[str]:
    """The tables that are only added to."""
    with connection.cursor() as cursor:
        cursor.execute(_APPEND_ONLY)
        return sorted(row[0] for row in cursor.fetchall())


@transaction.atomic
def grant_app(role: str) -> None:
    """Give a role what the web server needs, and take away what it does not."""
    if not re.fullmatch(r"[a-z_]+", role):
        raise ValueError(role)
    with connection.cursor() as cursor:
        cursor.execute(f"""
            REVOKE ALL ON ALL TABLES IN SCHEMA public FROM {role};
            GRANT USAGE ON SCHEMA public TO {role};
            GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO {role};
            GRANT USAGE ON ALL SEQUENCES IN SCHEMA public TO {role};
            REVOKE INSERT, UPDATE, DELETE ON django_migrations FROM {role};
        """)
        for table in append_only_tables():
            cursor.execute(f"REVOKE UPDATE, DELETE ON {table} FROM {role}")
