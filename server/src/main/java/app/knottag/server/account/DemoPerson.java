package app.knottag.server.account;

/** A made-up person of the demo, with the password that everyone may know. */
public record DemoPerson(String name, String password, Role role) {}
