"""The core, on its own: no Django, no database."""
