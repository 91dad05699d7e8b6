"""Who may come in, before Django looks at it."""
