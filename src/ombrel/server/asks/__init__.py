"""What a screen or a route can ask for: each ask with its plan."""
