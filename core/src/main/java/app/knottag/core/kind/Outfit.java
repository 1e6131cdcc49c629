package app.knottag.core.kind;

import java.util.List;

/**
 * What comes in the box and how it is put together.
 *
 * @param kit what must be there
 * @param leaveInBox what comes with it and is not needed
 * @param tools what one brings
 * @param variants models that look alike
 * @param plugs what is plugged in, first to last
 * @param factory how it comes from the factory
 * @param where whether it is usually set up on the bench or in its place, and why
 */
public record Outfit(
        List<String> kit,
        List<String> leaveInBox,
        List<String> tools,
        List<Variant> variants,
        List<Plug> plugs,
        List<String> factory,
        String where) {

    static final Outfit NONE = new Outfit(null, null, null, null, null, null, null);

    public Outfit {
        kit = KindCheck.orEmpty(kit);
        leaveInBox = KindCheck.orEmpty(leaveInBox);
        tools = KindCheck.orEmpty(tools);
        variants = KindCheck.orEmpty(variants);
        plugs = KindCheck.orEmpty(plugs);
        factory = KindCheck.orEmpty(factory);
        where = KindCheck.orEmpty(where);
    }

    /**
     * A model that looks like others.
     *
     * @param fits whether it works with the service
     * @param because how to tell it, and what it is for
     */
    public record Variant(String model, boolean fits, String because) {}

    /** A plug and where it goes. */
    public record Plug(String plug, String into) {}
}
