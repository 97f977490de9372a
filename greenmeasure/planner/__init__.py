"""The plan that is made: a season's protection and feeding chosen within every rule of the gate, and made into steps."""
