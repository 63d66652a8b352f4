package awlsmith.server.signin;

/** A session has ended by the wish of whoever it belongs to. */
public record SignedOut(String session) {}
