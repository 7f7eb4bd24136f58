"""Views of the bench: thin. Each parses, calls one action or query, and renders."""
