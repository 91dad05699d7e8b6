"""What is kept, and the one door to it: values, log, live shows, hands and fades."""
