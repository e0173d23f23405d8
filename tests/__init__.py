"""All tests; run by Django's runner (`make test`)."""
