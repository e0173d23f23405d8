"""What lies in drawers: trays that are bought, compartments between dividers that are cut."""
