"""Querysets that are put into SQL once.

Django puts a queryset into SQL each time that it is asked, which takes a web server longer than PostgreSQL
takes to answer. What every page asks is put into SQL the first time, and asked again with other ids.
"""

from collections.abc import Callable
from copy import copy
from typing import Any, Generic, TypeVar

from django.db import DEFAULT_DB_ALIAS, connections
from django.db.models import QuerySet
from django.db.models.sql.compiler import SQLCompiler

Row = TypeVar("Row")

_LIKE = 7_000_000_000_000_000_001
"""Ids that stand in the SQL where those asked for will; none is ever given out."""


class Prepared(Generic[Row]):
    """A queryset whose only values that change are ids.

    `build` makes it from ids by their names; it is called once, when it is first asked.
    """

    def __init__(self, build: Callable[..., "QuerySet[Any]"], *names: str) -> None:
        self._build = build
        self._like = {name: _LIKE + number for number, name in enumerate(names)}
        self._made: tuple[QuerySet[Any], SQLCompiler, str, tuple[Any, ...]] | None = None

    def ask(self, **ids: int) -> list[Row]:
        """Its rows for these ids. Raises TypeError where one is missing, or is none of its own."""
        if ids.keys() != self._like.keys():
            raise TypeError(f"asked with {sorted(ids)}, takes {sorted(self._like)}")
        queryset, compiler, sql, params = self._made or self._make()
        asked = {self._like[name]: value for name, value in ids.items()}
        filled = tuple(asked.get(one, one) if type(one) is int else one for one in params)
        again = QuerySet(queryset.model, _Asked(compiler, sql, filled), DEFAULT_DB_ALIAS)
        again._fields = queryset._fields
        return list(queryset._iterable_class(again))

    def first(self, **ids: int) -> Row | None:
        """The first of its rows, or none."""
        return next(iter(self.ask(**ids)), None)

    def _make(self) -> tuple["QuerySet[Any]", SQLCompiler, str, tuple[Any, ...]]:
        queryset = self._build(**self._like)
        compiler = queryset.query.get_compiler(DEFAULT_DB_ALIAS)
        sql, params = compiler.as_sql()
        if not set(self._like.values()) <= {one for one in params if type(one) is int}:
            raise TypeError(f"{sorted(self._like)} do not all stand in: {sql}")
        self._made = queryset, compiler, sql, tuple(params)
        return self._made


class _Asked:
    """Stands for a query whose SQL is there already."""

    def __init__(self, compiler: SQLCompiler, sql: str, params: tuple[Any, ...]) -> None:
        self._compiler, self._sql = compiler, (sql, params)

    def get_compiler(self, using: str) -> SQLCompiler:
        """A compiler with this thread's connection, that has nothing left to do."""
        compiler = copy(self._compiler)
        compiler.connection = connections[using]
        compiler.as_sql = lambda: self._sql
        return compiler
