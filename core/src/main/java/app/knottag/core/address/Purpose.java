package app.knottag.core.address;

/** What a typed text is meant to be. */
public enum Purpose {
    ADDRESS("address"),
    MASK("mask"),
    GATEWAY("gateway"),
    RESOLVER("resolver"),
    PREFIX("prefix");

    private final String word;

    Purpose(String word) {
        this.word = word;
    }

    /** Returns the word for it in a sentence. */
    public String word() {
        return word;
    }
}
