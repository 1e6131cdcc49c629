package app.knottag.core.kind;

/** How a service is spoken with. */
public enum Protocol {
    /** One line each way over TCP, described by the kind. */
    LINE("a line"),
    /** A page (RFC 9110). */
    HTTP("web page"),
    /** A page over TLS, with a certificate that has dates (RFC 9110, RFC 5280). */
    HTTPS("secure web page"),
    /** Takes print data as it comes, usually on port 9100. */
    RAW_PRINT("raw printing"),
    /** Printing with a state that can be asked for (RFC 8011). */
    IPP("printing"),
    /** Shared folders; only the dialect is agreed upon, nobody signs in. */
    FILE("shared folders"),
    /** Mail on its way out (RFC 5321, RFC 3207, RFC 4954). */
    SMTP("mail"),
    /** Names, over UDP and TCP (RFC 1035, RFC 7766). */
    DNS("names"),
    /** Time (RFC 5905). */
    NTP("time");

    private final String words;

    Protocol(String words) {
        this.words = words;
    }

    /** Returns what it is for, in plain words. */
    public String words() {
        return words;
    }
}
