"""The computation of Green Measure: no Django, no input or output, no clock.

Inside, every quantity is a float in one stated unit: m², L, g, s, m, %. At the border a quantity is a number and a
unit, and `core.units` is the only place that converts between the two.
"""
