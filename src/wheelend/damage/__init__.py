"""What killed it: what each damage looks like, its likely cause, and what it changes in the job."""

from wheelend.damage.table import Damage, damages, of_group

__all__ = ["Damage", "damages", "of_group"]
