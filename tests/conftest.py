from hypothesis import settings

# The first draw of a random show builds its address list: a deadline would measure that.
settings.register_profile("ombrel", deadline=None)
settings.load_profile("ombrel")
