"""The computing core of Zesty Spindle: wheel-end measurement, shim planning and procedure.

No Django, no files, no clock, no printing (`cli.py` apart). Lengths are in mm, torques in N·m;
the unit is in the name. Whoever stores a result stores `__version__` beside it.
"""

__version__ = "1.0.0"
