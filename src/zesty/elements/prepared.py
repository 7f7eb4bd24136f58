"""Querysets that are put into SQL once.

Django puts a queryset into SQL each time that it is asked, which takes a web server longer than PostgreSQL
takes to answer. What every page asks is put into SQL the first time, and asked again with other values.
"""

from collections.abc import Callable, Mapping
from copy import copy
from dataclasses import dataclass
from datetime import datetime
from typing import Any, Generic, TypeVar

from django.db import DEFAULT_DB_ALIAS, connections
from django.db.models import QuerySet
from django.db.models.sql.compiler import SQLCompiler

Row = TypeVar("Row")

_LIKE = 7_000_000_000_000_000_001
"""Ids that stand in the SQL where those asked for will; none is ever given out."""


class Prepared(Generic[Row]):
    """A queryset of which only the values change that it is asked with.

    `build` makes it from those values by their names; it is called once, when it is first asked. They are
    `ids`, or something `like` what is given.
    """

    def __init__(
        self, build: Callable[..., "QuerySet[Any]"], *ids: str, **like: str | datetime
    ) -> None:
        self._build = build
        self._like = {name: _LIKE + number for number, name in enumerate(ids)} | like
        self._made: _Made | None = None

    def ask(self, **values: int | str | datetime) -> list[Row]:
        """Its rows for these values. Raises TypeError where one is missing, or is none of its own."""
        if values.keys() != self._like.keys():
            raise TypeError(f"asked with {sorted(values)}, takes {sorted(self._like)}")
        made = self._made or self._make()
        again = QuerySet(made.queryset.model, _Asked(made, values), DEFAULT_DB_ALIAS)
        again._fields = made.queryset._fields
        return list(made.queryset._iterable_class(again))

    def first(self, **values: int | str | datetime) -> Row | None:
        """The first of its rows, or none."""
        return next(iter(self.ask(**values)), None)

    def _make(self) -> "_Made":
        queryset = self._build(**self._like)
        compiler = queryset.query.get_compiler(DEFAULT_DB_ALIAS)
        sql, params = compiler.as_sql()
        names = tuple(self._named(one) for one in params)
        if not self._like.keys() <= set(names):
            raise TypeError(f"{sorted(self._like)} do not all stand in: {sql}")
        self._made = _Made(queryset, compiler, sql, tuple(params), names)
        return self._made

    def _named(self, param: Any) -> str | None:
        found = (n for n, like in self._like.items() if type(like) is type(param) and like == param)
        return next(found, None)


@dataclass(frozen=True)
class _Made:
    """A queryset in SQL; `names` says which of its params is asked for, and by what name."""

    queryset: "QuerySet[Any]"
    compiler: SQLCompiler
    sql: str
    params: tuple[Any, ...]
    names: tuple[str | None, ...]


class _Asked:
    """Stands for a query whose SQL is there already."""

    def __init__(self, made: _Made, values: Mapping[str, Any]) -> None:
        filled = zip(made.names, made.params, strict=True)
        params = tuple(values[name] if name else param for name, param in filled)
        self._compiler, self._sql = made.compiler, (made.sql, params)

    def get_compiler(self, using: str) -> SQLCompiler:
        """A compiler with this thread's connection, that has nothing left to do."""
        compiler = copy(self._compiler)
        compiler.connection = connections[using]
        compiler.as_sql = lambda: self._sql
        return compiler
