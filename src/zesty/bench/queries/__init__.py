"""Reads of the bench, shaped for its pages. A page after a POST and after a reload is made here."""
