"""Routes: shows, files, lists, history and paper."""
