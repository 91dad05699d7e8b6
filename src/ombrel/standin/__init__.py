"""Stand-ins for devices: processes of their own, reached over the network by open protocols."""
