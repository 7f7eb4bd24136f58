"""From a spec card to what to do next: stages, cautions, the setting, claims."""
