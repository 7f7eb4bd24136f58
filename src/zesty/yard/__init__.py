"""The yard: every vehicle, its open work, and where a job starts. It is the shell that shows all."""
