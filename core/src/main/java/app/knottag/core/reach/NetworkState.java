package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import java.util.ArrayList;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;

/**
 * A site as it is, seen from one endpoint: segments with their prefixes, the router between them, who hands out addresses,
 * gear with its ports, the endpoint and those that it has to do with, each with address, mask and gateway, and what lies
 * outside. Immutable; a fault is a pure change of it, and a question is answered by following the packet through these
 * values ({@link Packets}, {@link Sights}).
 */
public final class NetworkState {

    /** Networks on which a device can stand. */
    enum Lan {
        /** The endpoint's own segment. */
        OWN,
        /** Another segment of the site, behind its router. */
        OTHER,
        /** Somewhere else, with no way to the site that is known. */
        ELSEWHERE
    }

    /** What a device is doing. */
    enum Mood {
        AWAKE,
        /** It saves power: its plug is lit, and it hears nothing. */
        ASLEEP,
        /** It hangs: its network part may go on, its service does not. */
        HUNG,
        /** Its memory is full: it takes no more jobs. */
        FULL,
        /** It hangs as a whole, its network part as well. */
        FROZEN,
        /** It starts over and over. */
        RESTARTING
    }

    /** What a rule does with a packet. */
    enum Rule {
        PASS,
        /** It vanishes. */
        DROP,
        /** It is refused by a reset, as if nothing listened there. */
        RESET,
        /** It is refused with a word (ICMP, RFC 792 type 3). */
        BAR
    }

    /** Who hands out addresses in the own segment. */
    enum Dhcp {
        UP,
        DOWN,
        /** Every address of the pool is taken. */
        FULL,
        /** A second one answers first, with addresses of its own. */
        SECOND
    }

    /** What stands in the registry. */
    enum Entry {
        RIGHT,
        NONE,
        SIBLING,
        MISTYPED,
        ENDED
    }

    /** Which unit stands there. */
    public enum Unit {
        OWN,
        SWAPPED,
        VARIANT
    }

    /** How a device is joined to the network. */
    public enum Joined {
        CABLE,
        WIRELESS,
        UNKNOWN
    }

    /** How a port of gear treats what is plugged into it. */
    enum Port {
        FINE,
        OFF,
        /** It lets in one MAC only, and that is another one. */
        LOCKED,
        /** It wants frames with a tag. */
        TAGGED,
        /** Two sides disagree on the duplex, or a pair of the lead is broken: packets are lost. */
        LOSSY,
        /** It was shut because of a ring of leads. */
        LOOPED,
        /** It has no power left for the device. */
        NO_POWER
    }

    /** How the server of the service is. */
    enum Server {
        UP,
        SILENT,
        REFUSES
    }

    /** What a name gives. */
    enum Names {
        RIGHT,
        /** The address that it had before. */
        OLD,
        SLOW
    }

    /** One device with its address as it works with it. */
    static final class Box implements Cloneable {
        Lan lan = Lan.OWN;
        boolean power = true;
        Mood mood = Mood.AWAKE;
        long mac;
        boolean automatic;
        int address;
        int length;
        int gateway;
        /** Address of the resolver that it asks, 0 for none. */
        int resolver;
        /** An address for which it keeps an old MAC, 0 for none. */
        int forgets;
        /** Whether it forgets the old MAC as soon as the device itself calls. */
        boolean learns;

        Box copy() {
            try {
                return (Box) clone();
            } catch (CloneNotSupportedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    /** How things stand; changed only on a copy. */
    static final class Parts implements Cloneable {
        // Meant to be, never changed by a fault
        Layout layout;
        Traits traits;
        int planned;
        int prefixLength;
        int router;
        int resolver;
        int pool;
        /** An address of the segment that nobody has. */
        int slip;

        boolean registryAsked;
        boolean hasPartner;
        boolean hasLine;
        boolean hasService;
        /** Whether the machine that looks is meant to stand in the endpoint's own segment. */
        boolean hereWithin = true;

        // The endpoint and its wire
        Box endpoint = new Box();
        boolean deviceEnd = true;
        boolean wallEnd = true;
        boolean outletPatched = true;
        Port port = Port.FINE;
        boolean badLead;
        Lan outletLan = Lan.OWN;
        boolean wanSocket;
        boolean socketBroken;
        boolean socketLit;
        boolean onWireless;
        boolean apart;
        boolean weak;
        boolean wirelessLeft;
        Entry entry = Entry.RIGHT;
        boolean joined = true;
        boolean saved = true;
        boolean restarted;
        Unit unit = Unit.OWN;
        boolean siblingMac;
        boolean strangeMac;
        boolean serviceOn = true;
        boolean portRight = true;
        Rule firewall = Rule.PASS;
        boolean firewallDropsAll;
        boolean firewallDropsEcho;
        Rule callers = Rule.PASS;
        /** Whether its partner reports a line that is taken and hung up on as refused, not as unanswered. */
        boolean hangUpIsRefusal;

        boolean clock = true;
        boolean clockByAnHour;
        boolean supply = true;
        boolean signIn = true;

        // Others
        Box partner = new Box();
        boolean partnerAddress = true;
        boolean partnerPort = true;
        boolean crossed;
        boolean toPartner = true;
        boolean partnerFirewall;
        Box stranger;
        boolean strangerFirst;
        Box mate = new Box();
        Box here = new Box();
        /** Whether the machine that looks knows no way at all, and says so. */
        boolean hereLost;

        boolean rowPower = true;

        // Gear, and what lies outside
        boolean switchOn = true;
        boolean nearSwitchOn = true;
        /** Whether the lead between the two switches is out: all is lit, and nothing comes through. */
        boolean nearCutOff;

        boolean routerOn = true;
        boolean routerReplaced;
        Dhcp dhcp = Dhcp.UP;
        boolean resolverUp = true;
        boolean resolverOverTcpOnly;
        Names names = Names.RIGHT;
        boolean uplink = true;
        Rule outbound = Rule.PASS;
        Rule between = Rule.PASS;
        boolean smallPackets;
        boolean portal;
        boolean proxy;
        /** Whether somebody on the way opens secure lines and closes them again with a certificate of his own. */
        boolean opened;

        boolean provider = true;
        Server server = Server.UP;
        boolean certificate = true;
        boolean contract = true;

        Parts copy() {
            try {
                var copy = (Parts) clone();
                copy.endpoint = endpoint.copy();
                copy.partner = partner.copy();
                copy.mate = mate.copy();
                copy.here = here.copy();
                if (stranger != null) copy.stranger = stranger.copy();
                return copy;
            } catch (CloneNotSupportedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    /** What an intended state was made from; two that are meant alike are alike. */
    record Meant(Traits traits, Layout layout) {}

    final Parts parts;
    private final Sights sights;

    private NetworkState(Parts parts) {
        this.parts = parts;
        sights = new Sights(parts);
    }

    /**
     * What is meant to be: everything in order.
     *
     * @param registered whether the site registers MACs
     * @param partnered whether it has a partner
     * @param speaks whether its service answers with its serial
     * @param callsOut whether it reaches something outside by itself
     * @param joined how it is joined to the network
     */
    public record Traits(boolean registered, boolean partnered, boolean speaks, boolean callsOut, Joined joined) {

        /** One of which nobody said yet how it is joined. */
        public Traits(boolean registered, boolean partnered, boolean speaks, boolean callsOut) {
            this(registered, partnered, speaks, callsOut, Joined.UNKNOWN);
        }
    }

    /**
     * The figures of the site.
     *
     * @param gateway of the segment, empty when it has none
     * @param pools addresses that are handed out
     * @param partner address of the partner
     * @param here address of the machine that looks
     * @param reserved whether its address is handed out to it, by its MAC, and not typed
     */
    public record Layout(
            Ipv4Prefix prefix,
            Optional<Ipv4Address> gateway,
            Ipv4Address endpoint,
            List<Pool> pools,
            Optional<Ipv4Address> partner,
            Optional<Ipv4Address> resolver,
            Optional<Ipv4Address> here,
            boolean reserved) {

        /** Returns the same with an address that is handed out, or typed. */
        public Layout handedOut(boolean byLease) {
            return new Layout(prefix, gateway, endpoint, pools, partner, resolver, here, byLease);
        }

        /** A segment with usual figures, for when nothing of the site is known. */
        public static final Layout USUAL = new Layout(
                Ipv4Prefix.parse("10.44.16.0/24"),
                Optional.of(Ipv4Address.parse("10.44.16.1")),
                Ipv4Address.parse("10.44.16.54"),
                List.of(new Pool(Ipv4Address.parse("10.44.16.100"), Ipv4Address.parse("10.44.16.199"))),
                Optional.of(Ipv4Address.parse("10.44.16.34")),
                Optional.of(Ipv4Address.parse("10.44.16.1")),
                Optional.of(Ipv4Address.parse("10.44.16.250")),
                false);
    }

    /** Returns the intended state with usual figures. */
    public static NetworkState intended(Traits traits) {
        return intended(traits, Layout.USUAL);
    }

    private static final int KEPT_MOST = 512;

    /** Intended states never change, so the last ones are kept. */
    private static final Map<Meant, NetworkState> KEPT =
            Collections.synchronizedMap(new LinkedHashMap<>(KEPT_MOST, 0.75f, true) {
                @Override
                protected boolean removeEldestEntry(Map.Entry<Meant, NetworkState> eldest) {
                    return size() > KEPT_MOST;
                }
            });

    /** Returns the intended state, in which every look finds what is hoped for. */
    public static NetworkState intended(Traits traits, Layout layout) {
        return KEPT.computeIfAbsent(new Meant(traits, layout), m -> made(traits, layout));
    }

    private static NetworkState made(Traits traits, Layout layout) {
        var p = new Parts();
        p.layout = layout;
        p.traits = traits;
        p.planned = layout.endpoint().bits();
        p.prefixLength = layout.prefix().prefixLength();
        p.router = layout.gateway().map(Ipv4Address::bits).orElse(0);
        p.resolver = layout.resolver().map(Ipv4Address::bits).orElse(p.router);
        p.pool = layout.reserved()
                ? p.planned
                : layout.pools().stream()
                        .findFirst()
                        .map(Pool::from)
                        .orElse(beside(layout, 5))
                        .bits();
        p.slip = beside(layout, 6).bits();
        p.registryAsked = traits.registered();
        p.hasPartner = traits.partnered();
        p.hasService = traits.speaks();
        p.hasLine = traits.callsOut();
        set(p.endpoint, p, p.planned, MAC_ENDPOINT);
        p.endpoint.automatic = layout.reserved();
        set(p.partner, p, layout.partner().orElse(beside(layout, 2)).bits(), MAC_PARTNER);
        set(p.mate, p, beside(layout, 3).bits(), MAC_MATE);
        var here = layout.here();
        set(p.here, p, here.orElse(beside(layout, 4)).bits(), MAC_HERE);
        if (here.isPresent() && !layout.prefix().contains(here.get())) {
            p.here.lan = Lan.OTHER;
            p.hereWithin = false;
        }
        if (layout.partner().isPresent()
                && !layout.prefix().contains(layout.partner().get())) p.partner.lan = Lan.OTHER;
        return new NetworkState(p);
    }

    static final long MAC_ENDPOINT = 1, MAC_SIBLING = 2, MAC_OTHER_UNIT = 3, MAC_STRANGER = 4;
    private static final long MAC_PARTNER = 5, MAC_MATE = 6, MAC_HERE = 7;

    private static void set(Box box, Parts p, int address, long mac) {
        box.address = address;
        box.length = p.prefixLength;
        box.gateway = p.router;
        box.resolver = p.resolver;
        box.mac = mac;
    }

    /** An address of the segment that is none of those given, counted from its end. */
    private static Ipv4Address beside(Layout layout, int n) {
        var taken = new ArrayList<Ipv4Address>(List.of(layout.endpoint()));
        layout.gateway().ifPresent(taken::add);
        layout.partner().ifPresent(taken::add);
        layout.here().ifPresent(taken::add);
        var at = layout.prefix().highestUsable();
        for (int left = n; ; at = at.plus(-1)) {
            var one = at;
            boolean free = !taken.contains(at) && layout.pools().stream().noneMatch(p -> p.contains(one));
            if (free && --left == 0 || at.equals(layout.prefix().lowestUsable())) return at;
        }
    }

    Meant meant() {
        return new Meant(parts.traits, parts.layout);
    }

    NetworkState but(Consumer<Parts> change) {
        var copy = parts.copy();
        change.accept(copy);
        return new NetworkState(copy);
    }

    /** Whether a look can be made at all here. */
    public boolean possible(Question question) {
        return Sights.possible(parts, question);
    }

    /** What a look shows when nobody can say: a stranger may answer anything. */
    public static final int ANYTHING = -1;

    /** Returns the outcome of a look, following the packet: an index into the look's outcomes, or {@link #ANYTHING}. */
    public int observe(Question question) {
        return question.outcomes().indexOf(sights.seen(question));
    }

    /** Returns the address at which it answers in its own segment, whoever else may hold it; empty when it does at none. */
    public Optional<Ipv4Address> address() {
        var packets = new Packets(parts);
        var e = parts.endpoint;
        int at = packets.address(e);
        boolean there = packets.lan(e) == Lan.OWN && packets.hears(e) && !parts.apart && at != 0;
        return there && Packets.same(at, parts.layout.prefix().network().bits(), parts.prefixLength)
                ? Optional.of(new Ipv4Address(at))
                : Optional.empty();
    }

    /** Whether another device answers at its planned address. */
    public boolean strangerHolds() {
        return parts.stranger != null;
    }

    /** How its address answers echoes of somebody in its own segment, as {@link Question#PING} names it. */
    public Outcome echoState() {
        return Question.PING.outcomes().get(Math.max(0, alone().observe(Question.PING)));
    }

    /** The same without anybody else at its address, seen from its own segment. */
    private NetworkState alone() {
        return but(p -> {
            p.stranger = null;
            p.strangerFirst = false;
            if (p.here.lan != Lan.OWN) {
                p.here.lan = Lan.OWN;
                p.here.address = beside(p.layout, 4).bits();
            }
        });
    }

    /** Which unit really stands there. */
    public Unit unit() {
        return parts.unit;
    }

    /** Whether the MAC on record is that of its other interface. */
    public boolean siblingMac() {
        return parts.siblingMac;
    }

    /** What its service says to somebody in its own segment, as {@link Question#SERIAL} names it. */
    public Outcome serviceState() {
        var alone = alone().parts;
        return new Sights(alone).serial(alone.here);
    }

    /** How its service port answers to somebody in its own segment, as {@link Question#PORT} names it. */
    public Outcome portState() {
        int seen = alone().observe(Question.PORT);
        return Question.PORT.outcomes().get(Math.max(0, seen));
    }

    /** Whether its partner is up, points at its address, at its port, and is its own. */
    public Outcome partnerSide() {
        var p = parts;
        if (!p.partner.power || !p.partnerAddress || p.partner.forgets != 0) return Outcome.NONE;
        return p.crossed ? Outcome.OTHER : p.partnerPort ? Outcome.REACHES : Outcome.REFUSED;
    }

    /** Whether its clock is right. */
    public boolean clockRight() {
        return parts.clock;
    }

    /** Whether the gateway of its segment is up at its address. */
    public boolean gatewayUp() {
        return parts.routerOn && !parts.routerReplaced;
    }

    /** Whether the resolver of its site is up. */
    public boolean resolverUp() {
        return parts.resolverUp;
    }

    /** Whether the line of its site is up. */
    public boolean uplinkUp() {
        return parts.uplink;
    }

    /** Whether the server of the service it calls is up. */
    public boolean serverUp() {
        return parts.server == Server.UP;
    }

    /** Whether the provider lets through what it sends. */
    public boolean providerLetsThrough() {
        return parts.provider;
    }

    /** Whether certificates are good. */
    public boolean certificateGood() {
        return parts.certificate;
    }

    /** Whether one looks from its own segment. */
    public boolean lookedAtFromWithin() {
        return parts.here.lan == Lan.OWN;
    }
}
