"""Open formats: cards, trays and jobs as JSON, readings and trays as CSV. See docs/formats."""
