"""From card and log to what to do next: steps, progress, slips, locking, the next line."""
