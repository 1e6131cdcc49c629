package app.knottag.core.impact;

/**
 * Something at a site that others rest on, or that rests on others.
 *
 * @param key tells it from others of its sort: the number of its record, an address, a name; empty where there is one at most
 */
public record Thing(Sort sort, String key) {

    /** What it is, in the order in which things are mended that do not wait for one another. */
    public enum Sort {
        LINE,
        ROUTER,
        GEAR,
        NETWORK,
        RULES,
        LIST,
        PERSON,
        RESOLVER,
        PARTNER,
        SERVICE,
        MAILBOX,
        DEVICE,
        LABELS
    }

    public static Thing of(Sort sort, long id) {
        return new Thing(sort, Long.toString(id));
    }

    static Thing device(long id) {
        return of(Sort.DEVICE, id);
    }
}
