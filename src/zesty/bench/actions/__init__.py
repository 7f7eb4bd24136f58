"""Verbs of the bench. Each is one transaction; a job is worked on by one of them at a time.

`log` is the one writer of everything that is written at the bench; `elsewhere` brings in the log of
another installation's job, checked by the same declaration.
"""
