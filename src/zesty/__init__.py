"""The web application of Zesty Spindle: a skin of Django over the core in `wheelend`.

A room knows only the rooms below it: people ← fleet ← cards ← stores ← bench ← records.
"""
