package app.knottag.core.kind;

/** How a gate is judged. */
public enum GateType {
    /** One of several things seen. */
    CHOICE("{options}"),
    /** MAC and serial on record, and this very unit in hand. */
    FACTS("MAC and serial are on record, and this very device is in the hand."),
    /** The values are entered and saved. */
    TYPE_SHEET("The values of the sheet are entered and saved."),
    /** What the device shows, compared with what was to be typed. */
    READ_BACK("What the device shows is what was to be typed."),
    /** The address that it shows after its restart. */
    ADDRESS_SHOWN("It shows its planned address."),
    /** Signed off at Confirm. */
    CONFIRMED("It is signed off at Confirm."),
    /** Everything of the kit is there. */
    KIT("Everything of the kit is there."),
    /** The exact variant, by the model on its label. */
    MODEL("The model on the label is the planned one, to its last letter."),
    /** Seals read against seals reported. */
    SEALS("The seals are those that were reported."),
    /** New seals and the case they are on. */
    NEW_SEALS("The new seals and their case are noted."),
    /** Two numbers that must be the same. */
    SAME("{first} and {second} are the same."),
    /** The name on two screens that belong together. */
    NAMES("The two screens show each other's name."),
    /** A light, an icon or a beep, by the kind's own table. */
    SIGNAL("The {part} says that it goes on."),
    /** What the device got from the DHCP server. */
    LEARNED("What it got from the DHCP server is noted."),
    /** Seconds a button was held, and beeps. */
    HOLD("How long the button was held and how often it beeped."),
    /** A size typed against the largest possible. */
    SIZE("The size is possible for this device."),
    /** The owner's release before drives are wiped. */
    RELEASE("The owner has released what is to be wiped."),
    /** A number of at least so many. */
    COUNT("It is at least {least}."),
    /** The date and time it shows. */
    CLOCK("Its date and time are right."),
    /** The sum on a worksheet, with the figures of this one. */
    WORKSHEET("“{sheet}” goes, with the figures of this one."),
    /** No opening without an owner and an end. */
    OPENINGS("No opening is left without an owner and an end.");

    private final String holds;

    GateType(String holds) {
        this.holds = holds;
    }

    /** Returns the usual minutes that somebody stands beside the device for such a gate, as long as nothing better is known. */
    int minutes() {
        return switch (this) {
            case MODEL, ADDRESS_SHOWN, SIGNAL, HOLD, SIZE, CLOCK -> 1;
            case TYPE_SHEET, NEW_SEALS, WORKSHEET -> 3;
            case CONFIRMED, OPENINGS -> 4;
            default -> 2;
        };
    }

    /** Whether it is about what is entered in a menu. */
    public boolean typed() {
        return this == TYPE_SHEET || this == READ_BACK;
    }

    /** Returns when it lets a step be done, as a sentence; what the step itself says stands in braces. */
    String holds() {
        return holds;
    }
}
