package app.knottag.server.change;

/** Who changes something of a site, and from which version of its sheet. */
public record Hand(long siteId, int expected, String by) {}
