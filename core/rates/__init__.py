"""Label phrase → rate → dose: the sum at the heart of the job, its limits and its cost."""
