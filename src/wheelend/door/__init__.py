"""The JSON door: typed text in, plain numbers out. See `python -m wheelend --list`."""
