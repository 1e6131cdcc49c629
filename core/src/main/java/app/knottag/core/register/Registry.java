package app.knottag.core.register;

import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.hardware.InterfaceChoice;
import app.knottag.core.reading.ReadingException;
import java.util.Collections;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * A place where MACs must be registered before a device may join or be served.
 *
 * @param segmentId the segment it admits to, or empty for the whole site
 * @param medium the interface it is about, or empty when it takes the one that counts
 * @param kinds ids of the kinds it is for, or none when it is for all
 */
public record Registry(
        long id,
        String name,
        Type type,
        Optional<Long> segmentId,
        Optional<Medium> medium,
        Set<String> kinds,
        Rules rules) {

    public Registry {
        kinds = Set.copyOf(kinds);
    }

    /**
     * Whether a unit has to stand here. A reservation list is for those whose address it keeps; a guest desk waits for
     * whoever comes.
     */
    public boolean wants(Unit unit) {
        return !unit.retired()
                && type != Type.GUEST_DESK
                && segmentId.filter(s -> s != unit.segmentId()).isEmpty()
                && (kinds.isEmpty() || kinds.contains(unit.kind()))
                && (type != Type.RESERVATIONS || unit.reserved());
    }

    /** Returns the entry that the facts of a unit make here, before anything is typed. */
    public RegistryEntry proposal(Unit unit, String owner, List<String> sharedWith) {
        return truth(
                unit, new RegistryEntry(unit.name(), Optional.empty(), Optional.empty(), "", "", owner, sharedWith));
    }

    /** Returns what an entry should hold by what is true of its unit now; words that people chose stay. */
    public RegistryEntry truth(Unit unit, RegistryEntry held) {
        boolean host = rules.naming() == Naming.HOST_NAME && !unit.hostName().isEmpty();
        return new RegistryEntry(
                host ? unit.hostName() : held.name(),
                InterfaceChoice.of(unit.interfaces(), medium).chosen().map(Interface::mac),
                unit.address(),
                unit.serial(),
                unit.model(),
                held.owner(),
                held.sharedWith());
    }

    /** What kind of place it is. */
    public enum Type {
        RESERVATIONS("reservation list of a DHCP server or router"),
        ACCESS_LIST("access list of a switch or wireless"),
        PORTAL("self-service portal"),
        SERVICE("outside service"),
        GUEST_DESK("guest desk");

        private final String words;

        Type(String words) {
            this.words = words;
        }

        /** Returns what people call it. */
        public String words() {
            return words;
        }

        /** Whether the device cannot get onto the network without it, rather than only not be served. */
        public boolean admits() {
            return this != SERVICE;
        }
    }

    /** Which facts of a unit it holds. */
    public enum Fact {
        MAC,
        SERIAL,
        MODEL,
        NAME,
        ADDRESS,
        /** The address or number that an outside service itself gave out. */
        ISSUED
    }

    /** How names look there. */
    public enum Naming {
        /** Letters, digits and hyphens, as a host name (RFC 1123). */
        HOST_NAME,
        /** Any words. */
        WORDS
    }

    /** With whom an entry may be shared. */
    public enum Sharing {
        /** It knows no sharing. */
        NONE,
        /** Shared devices need at least one user, personal ones may have none. */
        BY_KIND
    }

    /**
     * The rules of a registry.
     *
     * @param longestName most characters of a name, 1..120
     * @param ownerNeeded whether every entry belongs to a person
     * @param most most entries it takes, 0 for no limit
     * @param lifetime how long an entry lasts, or empty for ever
     * @param restart whether the device joins only after a restart
     * @param facts what it holds of a unit
     * @param models exact models that it takes, or none when it takes any
     * @param waitsFor who outside has to act, or empty when she enters it herself
     * @param leadDays how many days that takes, 0..365
     * @param form in what form it takes the list
     */
    public record Rules(
            Naming naming,
            int longestName,
            boolean ownerNeeded,
            Sharing sharing,
            int most,
            Optional<Lifetime> lifetime,
            boolean restart,
            Set<Fact> facts,
            List<String> models,
            String waitsFor,
            int leadDays,
            RegistryForm form) {

        /**
         * @throws IllegalArgumentException if a figure is out of range
         */
        public Rules {
            facts = facts.isEmpty() ? EnumSet.of(Fact.MAC) : Collections.unmodifiableSet(EnumSet.copyOf(facts));
            models = List.copyOf(models);
            if (longestName < 1 || longestName > 120)
                throw new ReadingException("a name has 1..120 characters, was " + longestName);
            if (most < 0 || most > 100_000)
                throw new ReadingException("a registry takes 0..100000 entries, was " + most);
            if (leadDays < 0 || leadDays > 365) throw new ReadingException("it takes 0..365 days, was " + leadDays);
        }

        /** Returns the rules that such a place usually has, to start from. */
        public static Rules usual(Type type) {
            var facts = switch (type) {
                case RESERVATIONS -> EnumSet.of(Fact.MAC, Fact.NAME, Fact.ADDRESS);
                case SERVICE -> EnumSet.of(Fact.MAC, Fact.SERIAL, Fact.MODEL);
                default -> EnumSet.of(Fact.MAC, Fact.NAME);
            };
            boolean people = type == Type.PORTAL || type == Type.GUEST_DESK;
            return new Rules(
                    type == Type.RESERVATIONS ? Naming.HOST_NAME : Naming.WORDS,
                    type == Type.RESERVATIONS ? 15 : 40,
                    people,
                    type == Type.PORTAL ? Sharing.BY_KIND : Sharing.NONE,
                    0,
                    switch (type) {
                        case PORTAL -> Optional.of(new Lifetime(Lifetime.Unit.DAYS, 365));
                        case GUEST_DESK -> Optional.of(new Lifetime(Lifetime.Unit.HOURS, 24));
                        default -> Optional.empty();
                    },
                    type.admits(),
                    facts,
                    List.of(),
                    type == Type.SERVICE ? "the service's desk" : "",
                    type == Type.SERVICE ? 3 : 0,
                    type == Type.RESERVATIONS ? RegistryForm.HOST_BLOCKS : RegistryForm.CSV);
        }
    }
}
