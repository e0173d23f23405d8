"""The server through its API."""
