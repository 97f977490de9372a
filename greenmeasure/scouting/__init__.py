"""What is seen on the ground: scout reports of anything, fixed spots that are looked at again, and photographs."""
