"""Pinakotheke: from tape measure to shopping list for closets, walls and drawers."""
