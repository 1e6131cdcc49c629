package app.knottag.core.kind;

/**
 * Something that stands open on a device as it comes, and must be closed before it is handed over.
 *
 * @param key small letters and hyphens
 * @param title what stands open
 * @param closes how it is closed
 */
public record Opening(String key, Danger danger, String title, String closes) {

    /** What an opening lets in, the worst first. */
    public enum Danger {
        FACTORY_PASSWORD,
        NO_PASSWORD,
        ADMINISTRATOR,
        FIREWALL,
        SHARED_PASSWORD,
        ALLOW_LIST,
        MAIL_SIGN_IN,
        PLAIN_PAGE,
        PASSWORD_ON_PAPER,
        PASSWORD_SPOKEN,
        OTHER;

        /** Whether it is closed by a new secret, of which only the place is on record where it is kept. */
        public boolean secret() {
            return this == FACTORY_PASSWORD
                    || this == NO_PASSWORD
                    || this == SHARED_PASSWORD
                    || this == PASSWORD_ON_PAPER
                    || this == PASSWORD_SPOKEN;
        }
    }

    public Opening {
        if (!key.matches("[a-z][a-z-]{1,39}"))
            throw new IllegalArgumentException("an opening's key must be small letters and hyphens, was " + key);
        if (danger == null) throw new IllegalArgumentException("an opening needs its danger: " + title);
    }
}
