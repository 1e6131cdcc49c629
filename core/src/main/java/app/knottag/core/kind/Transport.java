package app.knottag.core.kind;

/** What carries the traffic that a firewall lets through (RFC 9293, RFC 768). */
public enum Transport {
    TCP,
    UDP,
    /** Whatever it is; in a rule only. */
    ANY
}
