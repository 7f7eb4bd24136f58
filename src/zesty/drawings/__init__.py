"""Core results as SVG. Pure Python: no Django, no request; every text is escaped here."""
