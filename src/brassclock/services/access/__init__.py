"""Who may ask over the network: the passcode, signed-in devices, guests' links."""
