"""Rows that are read by the hundred."""

from collections.abc import Sequence
from typing import Any, Self

from django.db import models
from django.db.models.base import ModelState


class ReadOften(models.Model):
    """A model whose rows come from the database as they are.

    Django makes each row as if it were new: defaults, signals, every field by itself. Nothing here listens, and
    a page reads the whole log of its job.
    """

    class Meta:
        abstract = True

    @classmethod
    def from_db(cls, db: str | None, field_names: Sequence[str], values: Sequence[Any]) -> Self:
        """A row; one that is read in part is made as Django makes it."""
        if len(values) != len(cls._meta.concrete_fields):
            return super().from_db(db, field_names, values)
        row = cls.__new__(cls)
        row._state = ModelState()
        row._state.db, row._state.adding = db, False
        row.__dict__.update(zip(field_names, values, strict=True))
        return row
