package app.knottag.core.reach;

import app.knottag.core.reach.NetworkState.Box;
import app.knottag.core.reach.NetworkState.Dhcp;
import app.knottag.core.reach.NetworkState.Entry;
import app.knottag.core.reach.NetworkState.Lan;
import app.knottag.core.reach.NetworkState.Mood;
import app.knottag.core.reach.NetworkState.Parts;
import app.knottag.core.reach.NetworkState.Port;
import app.knottag.core.reach.NetworkState.Rule;

/** Where a packet goes, hop by hop, by the masks, gateways and rules as they are (RFC 826, RFC 1122, 3.3.1). */
final class Packets {

    /** What a device has that gave itself an address (RFC 3927). */
    static final int SELF = 169 << 24 | 254 << 16 | 77 << 8 | 9;

    /** An address of some other network (RFC 5737). */
    static final int FOREIGN = 192 << 24 | 2 << 8 | 9;

    private static final int SELF_LENGTH = 16;
    private static final int USUAL_LENGTH = 24;

    /** How a packet ends. */
    enum Way {
        ARRIVES,
        /** Nobody answers for the address on its last link. */
        NOBODY,
        /** The sender has no link, no address or no way there itself. */
        NO_WAY,
        SWALLOWED,
        /** Refused by a reset on the way. */
        RESET,
        /** Refused with a word on the way. */
        BARRED,
        /** It has left the site. */
        OUTSIDE
    }

    /**
     * A packet's way.
     *
     * @param at who got it, or null
     */
    record Trip(Way way, Box at) {}

    private static final Trip NOBODY = new Trip(Way.NOBODY, null);
    private static final Trip NO_WAY = new Trip(Way.NO_WAY, null);
    private static final Trip SWALLOWED = new Trip(Way.SWALLOWED, null);
    private static final Trip RESET = new Trip(Way.RESET, null);
    private static final Trip BARRED = new Trip(Way.BARRED, null);
    private static final Trip OUTSIDE = new Trip(Way.OUTSIDE, null);

    private final Parts p;
    private final Box[] boxes;
    private boolean asked;

    Packets(Parts parts) {
        p = parts;
        boxes = new Box[] {p.endpoint, p.partner, p.mate, p.here};
    }

    /** Whether the lead from the endpoint to its port of gear is whole, and lit. */
    boolean linked() {
        return p.endpoint.power
                && p.deviceEnd
                && p.wallEnd
                && p.outletPatched
                && p.switchOn
                && p.nearSwitchOn
                && (!p.socketBroken || p.socketLit)
                && p.port != Port.OFF
                && p.port != Port.LOOPED
                && p.port != Port.NO_POWER
                && !p.onWireless;
    }

    /** Returns the network on which a device really is, or null when it is on none. */
    Lan lan(Box box) {
        if (!box.power) return null;
        if (box != p.endpoint) {
            boolean dark = !p.switchOn || (!p.nearSwitchOn || p.nearCutOff) && box != p.here;
            return box.lan == Lan.OWN && dark ? null : box.lan;
        }
        if (p.onWireless) return Lan.ELSEWHERE;
        if (p.wirelessLeft) return null;
        if (!linked()
                || p.wanSocket
                || p.socketBroken
                || p.nearCutOff
                || p.port == Port.LOCKED
                || p.port == Port.TAGGED) return null;
        if (p.registryAsked && (p.entry != Entry.RIGHT || !p.joined)) return null;
        return p.outletLan;
    }

    /** Whether a device hears what comes in. */
    boolean hears(Box box) {
        return box.power && box.mood != Mood.ASLEEP && box.mood != Mood.FROZEN && box.mood != Mood.RESTARTING;
    }

    /** Returns the address that a device has, 0 for none: typed, handed out, or given by itself. */
    int address(Box box) {
        if (!box.power) return 0;
        if (box == p.endpoint && p.onWireless) return FOREIGN;
        if (!box.automatic) return box == p.endpoint && p.strangerFirst && lan(box) == Lan.OWN ? 0 : box.address;
        var lan = lan(box);
        // Who had an address handed out keeps it without a network, until it starts anew.
        int without = box == p.endpoint && p.layout.reserved() && !p.restarted ? p.pool : SELF;
        if (lan == null) return without;
        if (lan != Lan.OWN) return FOREIGN;
        if (p.dhcp == Dhcp.SECOND || p.routerReplaced) return FOREIGN;
        return p.dhcp == Dhcp.UP && p.routerOn ? p.pool : without;
    }

    private int length(Box box) {
        if (!box.automatic) return box.length;
        int address = address(box);
        return address == SELF ? SELF_LENGTH : address == FOREIGN ? USUAL_LENGTH : p.prefixLength;
    }

    private int gateway(Box box) {
        if (!box.automatic) return box.gateway;
        return address(box) == p.pool ? p.router : 0;
    }

    int resolver(Box box) {
        if (!box.automatic) return box.resolver;
        return address(box) == p.pool ? p.resolver : 0;
    }

    static boolean same(int a, int b, int length) {
        return length == 0 || (a ^ b) >>> 32 - length == 0;
    }

    /** Whether the router has its address in the own segment. */
    private boolean routerAt(int address) {
        return address != 0 && address == p.router && p.routerOn && !p.routerReplaced;
    }

    /** Who answers for an address in the own segment; of two the one that came later. */
    Box holder(int address) {
        if (p.stranger != null && address == p.planned) return p.stranger;
        for (var box : boxes) if (lan(box) == Lan.OWN && hears(box) && address(box) == address) return box;
        return null;
    }

    /** Follows a packet to an address inside the site. */
    Trip trip(Box from, int to) {
        var lan = lan(from);
        int own = address(from);
        if (lan == Lan.ELSEWHERE) return p.hereLost ? NO_WAY : SWALLOWED;
        if (lan == null || own == 0) return NO_WAY;
        if (lan == Lan.OWN) {
            if (same(own, to, length(from))) return local(from, to);
            int gateway = gateway(from);
            if (gateway == 0 || !same(own, gateway, length(from))) return NO_WAY;
            if (!p.switchOn || !routerAt(gateway)) return holder(gateway) == null ? NOBODY : SWALLOWED;
        } else if (!p.routerOn || p.routerReplaced) return NOBODY;
        if (same(to, p.router, p.prefixLength) || same(to, p.planned, p.prefixLength)) {
            if (lan != Lan.OWN && p.between != Rule.PASS) return refused(p.between);
            return local(null, to);
        }
        for (var box : boxes)
            if (box != p.endpoint && box.lan == Lan.OTHER && box.power && box.address == to)
                return lan != Lan.OTHER && p.between != Rule.PASS ? refused(p.between) : new Trip(Way.ARRIVES, box);
        return out();
    }

    private static Trip refused(Rule rule) {
        return rule == Rule.DROP ? SWALLOWED : rule == Rule.RESET ? RESET : BARRED;
    }

    /** The last link: the sender, or the router when it is null, asks whose the address is. */
    private Trip local(Box from, int to) {
        if (routerAt(to) && (from == null || p.switchOn)) return new Trip(Way.ARRIVES, null);
        if (from != null && from.forgets == to && to != 0 && !asked) return SWALLOWED;
        var box = holder(to);
        if (box == null) return NOBODY;
        // A wireless that keeps its devices apart lets each of them to the router only.
        return p.apart && from != null && (from == p.endpoint || box == p.endpoint)
                ? NOBODY
                : new Trip(Way.ARRIVES, box);
    }

    private Trip out() {
        return p.uplink ? OUTSIDE : SWALLOWED;
    }

    /** Follows a packet from a device to the internet. */
    Trip outside(Box from) {
        var lan = lan(from);
        int own = address(from);
        if (lan == Lan.ELSEWHERE) return OUTSIDE;
        if (lan == null || own == 0) return NO_WAY;
        if (lan == Lan.OWN) {
            if (address(from) == FOREIGN) return p.routerReplaced ? out() : SWALLOWED;
            int gateway = gateway(from);
            if (gateway == 0 || !same(own, gateway, length(from))) return NO_WAY;
            if (!p.switchOn || !routerAt(gateway)) return NOBODY;
        } else if (!p.routerOn) return NOBODY;
        return out();
    }

    /** Whether a packet comes there and an answer comes back. */
    boolean bothWays(Box from, Box to) {
        var there = trip(from, address(to));
        return there.way() == Way.ARRIVES && there.at() == to && back(to, from);
    }

    /** Whether what a device sends back comes to the asker; a device without any way there stays silent. */
    boolean back(Box from, Box to) {
        // Who is asked for its address learns that of the asker from the question (RFC 826).
        asked = from.learns;
        var trip = trip(from, address(to));
        asked = false;
        return trip.way() == Way.ARRIVES && trip.at() == to;
    }
}
