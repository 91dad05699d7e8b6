"""What goes over the socket, a file a subject: each message with what fills it."""
