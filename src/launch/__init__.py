"""Brings the product up on a fresh machine. Standard library only: it runs before anything is installed."""
