"""For every test: Hypothesis without deadlines, for a test must pass on a machine ten times slower."""

from hypothesis import settings

settings.register_profile("patient", deadline=None)
settings.load_profile("patient")
