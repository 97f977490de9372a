"""Simulated stand-ins for outside services and devices, spoken to over real HTTP, with faults that can be switched on."""
