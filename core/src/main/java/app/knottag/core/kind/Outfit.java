package app.knottag.core.kind;

import java.util.List;

/**
 * What comes in the box and how it is put together.
 *
 * @param kit what must be there
 * @param leaveInBox what comes with it and is not needed
 * @param tools what one brings
 * @param usedUp what stays with each and does not come in its box
 * @param variants models that look alike
 * @param plugs what is plugged in, first to last
 * @param factory how it comes from the factory
 * @param orders what must be ordered or asked for ahead
 * @param where whether it is usually set up on the bench or in its place, and why
 */
public record Outfit(
        List<String> kit,
        List<String> leaveInBox,
        List<String> tools,
        List<Supply> usedUp,
        List<Variant> variants,
        List<Plug> plugs,
        List<String> factory,
        List<Order> orders,
        String where) {

    static final Outfit NONE =
            new Outfit(List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), List.of(), "");

    public Outfit {
        kit = KindCheck.orEmpty(kit);
        leaveInBox = KindCheck.orEmpty(leaveInBox);
        tools = KindCheck.orEmpty(tools);
        usedUp = KindCheck.orEmpty(usedUp);
        variants = KindCheck.orEmpty(variants);
        plugs = KindCheck.orEmpty(plugs);
        factory = KindCheck.orEmpty(factory);
        orders = KindCheck.orEmpty(orders);
        where = KindCheck.orEmpty(where);
    }

    /**
     * A model that looks like others.
     *
     * @param fits whether it works with the service
     * @param because how to tell it, and what it is for
     */
    public record Variant(String model, boolean fits, String because) {}

    /**
     * Something that is used up.
     *
     * @param each how many for each device, 1..99
     */
    public record Supply(String name, int each) {
        public Supply {
            if (name.isBlank() || each < 1 || each > 99)
                throw new IllegalArgumentException(
                        "What is used up has a name, and 1..99 are used for each; was “" + name + "”, " + each);
        }
    }

    /** A plug and where it goes. */
    public record Plug(String plug, String into) {}

    /**
     * Something that takes days to come.
     *
     * @param who whom to ask
     * @param days how long it usually takes, 0..365
     * @param bySerial whether it is asked for with the serial of each unit
     */
    public record Order(String name, String who, int days, boolean bySerial) {
        public Order {
            if (name.isBlank() || name.length() > 60)
                throw new IllegalArgumentException("An order has a name of 1..60 characters, was “" + name + "”");
            if (days < 0 || days > 365)
                throw new IllegalArgumentException("days of “" + name + "” must be 0..365, was " + days);
        }
    }

    /** Whether it is usually set up on the bench, and so the day before. */
    public boolean onBench() {
        return where.startsWith("On the bench");
    }
}
