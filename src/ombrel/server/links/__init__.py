"""What is connected beside screens: the stage that feeds and measures."""
