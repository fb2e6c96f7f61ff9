"""The causes of a bread that failed: prior belief times what the model gains when one fact is set right."""
