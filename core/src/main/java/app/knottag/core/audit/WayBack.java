package app.knottag.core.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Segment;
import app.knottag.core.kind.Kind;
import app.knottag.core.plan.Method;
import app.knottag.core.reach.ProofBasis.Change;
import app.knottag.core.runbook.Recipe;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * What most likely happened to a device that is seen at another address than planned, what that undid, and the ways back: put
 * its own address back on it, or give the new one to everything that calls it.
 *
 * @param says from what it is told
 * @param surer what would make it sure
 * @param gone what it has most likely lost
 * @param data whether data of the client are gone with it, so that their backup is asked for
 * @param ways the better one first; at least one
 */
public record WayBack(How how, String says, String surer, List<String> gone, boolean data, List<Way> ways) {

    /** What happened, as far as sightings tell. */
    public enum How {
        /** What was typed into it is gone: a reset does that, and so does whoever sets it to automatic. */
        RESET("It was reset, or set to automatic"),
        /** Its address was never entered. */
        NOT_YET("It is not set up yet"),
        /** Nobody ever saw it where it was to be: it was not saved, or not taken with a restart. */
        NEVER_TOOK("Its address was never taken"),
        /** Its address is kept for it elsewhere, and was not given to it. */
        LIST("The list that keeps its address gave it another"),
        RETYPED("Another address was typed into it"),
        /** It hangs in another network, and has an address of that one. */
        ELSEWHERE("It is plugged in elsewhere"),
        /** It is meant to take what it is given. */
        LEASE("Its lease is another"),
        /** It asked for an address and got none (RFC 3927). */
        NO_LEASE("Nobody gave it an address");

        private final String words;

        How(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    /** What is done on a way back. */
    public enum Act {
        /** Its steps are opened again as after a reset, with what stands open on a new one. */
        REDO_RESET,
        /** The steps that enter its address are opened again. */
        REDO_ADDRESS,
        /** Its runbook goes on where it stands. */
        GO_ON,
        MEND_LIST,
        PLUG_BACK,
        /** The new address goes on record, and to everything that calls it. */
        REPOINT
    }

    /**
     * One way back.
     *
     * @param before what has to be done or known before; empty when nothing
     * @param steps what is done, in order
     * @param minutes usual minutes of hands
     * @param alone usual minutes that it then runs by itself
     */
    public record Way(Act act, String title, String before, List<String> steps, int minutes, int alone) {}

    /**
     * A device away from its address.
     *
     * @param heldUntil when it was last seen at its planned address; empty when it never was
     * @param since when it was first seen where it is now
     * @param alike names of others that left their address within a day of it
     * @param holder who answers at its planned address now; empty when nobody was seen there
     */
    public record Away(
            Ipv4Address planned,
            Ipv4Address at,
            Method method,
            Optional<Instant> heldUntil,
            Instant since,
            List<String> alike,
            String holder) {}

    /**
     * What rests on its address, as the walk over the record tells.
     *
     * @param things what is set anew or proved again, a line each
     * @param minutes usual minutes of hands
     * @param unknown what no record says and may call it as well
     */
    public record Pointing(List<String> things, int minutes, List<String> unknown) {}

    private static final int RECORD_MINUTES = 1;
    private static final int LIST_MINUTES = 5;
    private static final int LEAD_MINUTES = 10;
    private static final int NAMED = 4;

    /**
     * Works out what happened and what to do.
     *
     * @param whole the kind with all its steps
     * @param book the steps of it that apply to this device, as they stand
     */
    public static WayBack of(
            Away away, List<Segment> segments, Kind whole, Runbook book, Pointing pointing, SiteClock clock) {
        var where = Where.of(away, segments);
        var own = book.kind();
        var how = how(away, where, entered(book));
        var lost = whole.reset().filter(r -> how == How.RESET);
        var ways = new ArrayList<Way>();
        ways.add(back(how, away, where, whole, own));
        if (where == Where.POOL && how != How.NOT_YET || where == Where.BESIDE)
            ways.add(repoint(away, where, pointing));
        // An address that is handed out may go to anybody: only who is to be on automatic is better left there.
        if (how == How.LEASE || how == How.RETYPED && sooner(ways.get(1), ways.get(0), pointing))
            ways.add(0, ways.remove(1));
        return new WayBack(
                how,
                says(how, away, where, clock),
                surer(how, away),
                lost.map(r -> r.loses()).orElse(List.of()),
                lost.filter(r -> r.data()).isPresent(),
                List.copyOf(ways));
    }

    /** Telling others is only known to be quicker when it is known who they are. */
    private static boolean sooner(Way repoint, Way back, Pointing pointing) {
        return pointing.unknown().isEmpty() && repoint.minutes() < back.minutes();
    }

    /** Whether any step that enters its address is done. */
    private static boolean entered(Runbook book) {
        return addressed(book.kind()).stream().anyMatch(key -> book.record(key).done());
    }

    private static final Ipv4Prefix SELF_MADE = Ipv4Prefix.parse("169.254.0.0/16");

    /** Where it stands. */
    private enum Where {
        /** At an address of its network that is handed out. */
        POOL(", which is handed out,"),
        /** At another address of its network, that somebody must have typed. */
        BESIDE(""),
        OTHER_NETWORK(""),
        OTHER_POOL(", which is handed out,"),
        SELF(", which a device gives itself when nobody hands one out,");

        private final String words;

        Where(String words) {
            this.words = words;
        }

        static Where of(Away away, List<Segment> segments) {
            if (SELF_MADE.contains(away.at())) return SELF;
            boolean pool = segments.stream().anyMatch(s -> s.poolOf(away.at()).isPresent());
            boolean same = segments.stream()
                    .anyMatch(s ->
                            s.prefix().contains(away.planned()) && s.prefix().contains(away.at()));
            return same ? pool ? POOL : BESIDE : pool ? OTHER_POOL : OTHER_NETWORK;
        }
    }

    private static How how(Away away, Where where, boolean entered) {
        if (where == Where.OTHER_NETWORK || where == Where.OTHER_POOL) return How.ELSEWHERE;
        if (where == Where.BESIDE) return How.RETYPED;
        if (away.method().onDevice())
            return away.heldUntil().isPresent() ? How.RESET : entered ? How.NEVER_TOOK : How.NOT_YET;
        if (where == Where.SELF) return How.NO_LEASE;
        return away.method() == Method.RESERVED ? How.LIST : How.LEASE;
    }

    private static Way back(How how, Away away, Where where, Kind whole, Kind own) {
        String before = away.holder().isEmpty()
                ? ""
                : away.holder() + " answers at " + away.planned() + ": move that one away first.";
        var again = again(how, whole, own);
        return switch (how) {
            case RESET -> redo(Act.REDO_RESET, "Put " + away.planned() + " back on it", before, again, 0);
            case NOT_YET -> redo(Act.GO_ON, "Go on with its runbook", before, again, 0);
            case NEVER_TOOK -> redo(Act.REDO_ADDRESS, "Enter " + away.planned() + " once more", before, again, 0);
            case RETYPED -> redo(Act.REDO_ADDRESS, "Put " + away.planned() + " back on it", before, again, 0);
            case LIST, LEASE ->
                new Way(
                        Act.MEND_LIST,
                        how == How.LIST
                                ? "Mend its entry in the list"
                                : "Have " + away.planned() + " kept for its MAC in the list",
                        before,
                        List.of("Its entry: this MAC, " + away.planned(), "Restart it", "Prove it again"),
                        LIST_MINUTES + again.hands(),
                        again.alone());
            case NO_LEASE ->
                new Way(
                        Act.PLUG_BACK,
                        "Find out why nobody gave it one",
                        "",
                        List.of(
                                "Whether another device on automatic there is given one",
                                "Its lead, its socket and the VLAN at the port",
                                "The box that hands addresses out, and whether its pool is full",
                                "Prove it again"),
                        LEAD_MINUTES + again.hands(),
                        again.alone());
            case ELSEWHERE ->
                where == Where.OTHER_POOL && away.method().onDevice()
                        ? redo(
                                Act.REDO_ADDRESS,
                                "Plug it in where it belongs, and put " + away.planned() + " back on it",
                                before,
                                again,
                                LEAD_MINUTES)
                        : new Way(
                                Act.PLUG_BACK,
                                "Plug it in where it belongs",
                                before,
                                List.of("Its own socket, or its own VLAN at the port", "Prove it again"),
                                LEAD_MINUTES + again.hands(),
                                again.alone());
        };
    }

    private static Way redo(Act act, String title, String before, Again again, int more) {
        return new Way(act, title, before, again.titles(), again.hands() + more, again.alone());
    }

    /** Steps that are done again. */
    private record Again(List<String> titles, int hands, int alone) {}

    private static Again again(How how, Kind whole, Kind own) {
        var keys = switch (how) {
            case RESET -> whole.reset().isPresent() ? Recipe.redo(whole, own) : addressed(own);
            case NOT_YET, NEVER_TOOK, RETYPED, ELSEWHERE -> addressed(own);
            case LIST, LEASE, NO_LEASE -> Runbook.undoneBy(own, EnumSet.of(Change.RESET));
        };
        var steps = own.steps().stream().filter(s -> keys.contains(s.key())).toList();
        return new Again(
                steps.stream().map(Kind.Step::title).toList(),
                steps.stream().mapToInt(own::minutes).sum(),
                steps.stream()
                        .flatMap(s -> s.waiting().stream())
                        .mapToInt(Kind.Wait::usual)
                        .sum());
    }

    /** Returns the keys of the steps that enter an address, and prove it. */
    public static List<String> addressed(Kind own) {
        return Runbook.undoneBy(own, EnumSet.of(Change.ADDRESS, Change.SETTINGS));
    }

    private static Way repoint(Away away, Where where, Pointing pointing) {
        String lent = where == Where.POOL && away.method() != Method.AUTOMATIC
                ? away.at() + " is handed out and may go to another: have it kept for its MAC in the list first."
                : "";
        return new Way(
                Act.REPOINT,
                "Leave it at " + away.at() + ", and tell everything that calls it",
                Stream.concat(Stream.of(lent), pointing.unknown().stream())
                        .filter(t -> !t.isEmpty())
                        .collect(Collectors.joining(" ")),
                Stream.concat(Stream.of("Its new address on record"), pointing.things().stream())
                        .toList(),
                RECORD_MINUTES + pointing.minutes(),
                0);
    }

    private static String says(How how, Away away, Where where, SiteClock clock) {
        String was = away.heldUntil()
                .map(t -> "It was seen at " + away.planned() + " until " + clock.moment(t))
                .orElse("Nobody ever saw it at " + away.planned());
        String now = ", and at " + away.at() + where.words + " since " + clock.moment(away.since()) + ".";
        return was
                + now
                + switch (how) {
                    case RESET -> " Its own address stood in the device itself, so that is gone.";
                    case NOT_YET -> " Its address was not entered yet, so that is as it should be.";
                    case NEVER_TOOK -> " What was typed was not saved, or not taken with a restart.";
                    case LIST -> " Its address is kept for its MAC at the DHCP server, which gave it another.";
                    case RETYPED -> " Nobody hands that one out, so somebody typed it; nothing else need be lost.";
                    case ELSEWHERE -> " That is another network.";
                    case NO_LEASE -> " It is meant to be given one, and asked in vain.";
                    case LEASE -> " It is meant to take what it is given, so nothing is broken.";
                }
                + alike(away);
    }

    private static String alike(Away away) {
        if (away.alike().isEmpty()) return "";
        int more = away.alike().size() - NAMED;
        return " Within a day of it "
                + (away.alike().size() == 1 ? "another" : away.alike().size() + " others")
                + " left theirs: "
                + String.join(
                        ", ",
                        away.alike().subList(0, Math.min(NAMED, away.alike().size())))
                + (more > 0 ? " and " + more + " more" : "") + ".";
    }

    private static String surer(How how, Away away) {
        if (!away.alike().isEmpty())
            return "Look first for what they share: a new router, a list, a power cut, somebody who set them all.";
        return switch (how) {
            case RESET ->
                "Look at its menu: when its own password is the factory’s again too, it was a reset; when only the address is, "
                        + "somebody set it to automatic.";
            case NEVER_TOOK ->
                "Look at its menu: when " + away.planned() + " stands there, it was saved and never restarted.";
            case LIST -> "Compare its entry in the list with its label, and see which box hands addresses out there.";
            case RETYPED -> "Ask who worked at it then.";
            case ELSEWHERE -> "Follow its lead, or look for its MAC at the switch.";
            case NO_LEASE -> "See whether others there are given one: then it is this device or its lead.";
            case LEASE, NOT_YET -> "Nothing more has to be known.";
        };
    }
}
