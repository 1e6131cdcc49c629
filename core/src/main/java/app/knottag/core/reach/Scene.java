package app.knottag.core.reach;

import java.util.function.Consumer;

/**
 * An endpoint with everything between it and its service, as it stands: socket, cable, port, segment, registry, address,
 * gateway, resolver, service, partner, line, and the place one looks from. Immutable; a fault is a pure change of it.
 */
public final class Scene {

    /** Where something is in the network. */
    enum Where {
        OWN,
        OTHER
    }

    /** What stands in the registry. */
    enum Entry {
        RIGHT,
        NONE,
        SIBLING,
        MISTYPED,
        ENDED
    }

    /** How the device has its address. */
    enum Set {
        PLANNED,
        AUTOMATIC,
        SLIP
    }

    /** Who else holds the planned address. */
    enum Holder {
        NOBODY,
        NEWER,
        OLDER
    }

    /** What the device has for a resolver. */
    enum Names {
        RIGHT,
        WRONG,
        MISSING
    }

    /** Which unit stands there. */
    public enum Unit {
        OWN,
        SWAPPED,
        VARIANT
    }

    /** How things stand; changed only on a copy. */
    static final class State implements Cloneable {
        boolean power = true;
        boolean deviceEnd = true;
        boolean wallEnd = true;
        boolean outletPatched = true;
        boolean portOn = true;
        Where segment = Where.OWN;
        boolean wanSocket;
        boolean onWireless;
        boolean registryAsked;
        Entry entry = Entry.RIGHT;
        boolean joined = true;
        Set address = Set.PLANNED;
        boolean saved = true;
        Holder holder = Holder.NOBODY;
        boolean mask = true;
        boolean gateway = true;
        Names resolver = Names.RIGHT;
        boolean gatewayUp = true;
        boolean resolverUp = true;
        boolean dhcpUp = true;
        boolean serviceOn = true;
        boolean portRight = true;
        boolean firewall;
        boolean allowed = true;
        Unit unit = Unit.OWN;
        boolean siblingMac;
        boolean hasPartner;
        boolean partnerUp = true;
        boolean partnerAddress = true;
        boolean partnerPort = true;
        boolean crossed;
        boolean toPartner = true;
        boolean partnerFirewall;
        boolean hasLine = true;
        boolean hasService = true;
        boolean serverUp = true;
        boolean clock = true;
        boolean certificate = true;
        boolean signIn = true;
        boolean uplink = true;
        boolean providerLetsThrough = true;
        Where vantage = Where.OWN;

        State copy() {
            try {
                return (State) clone();
            } catch (CloneNotSupportedException e) {
                throw new IllegalStateException(e);
            }
        }
    }

    private final State state;

    private Scene(State state) {
        this.state = state;
    }

    /**
     * What is meant to be: everything in order.
     *
     * @param registered whether the site registers MACs
     * @param partnered whether it has a partner
     * @param speaks whether its service answers with its serial
     * @param callsOut whether it reaches something outside by itself
     */
    public record Traits(boolean registered, boolean partnered, boolean speaks, boolean callsOut) {}

    /** Returns the intended scene, in which every look finds what is hoped for. */
    public static Scene intended(Traits traits) {
        var state = new State();
        state.registryAsked = traits.registered();
        state.hasPartner = traits.partnered();
        state.hasService = traits.speaks();
        state.hasLine = traits.callsOut();
        return new Scene(state);
    }

    Scene but(Consumer<State> change) {
        var copy = state.copy();
        change.accept(copy);
        return new Scene(copy);
    }

    /** Whether a look can be made at all in this scene. */
    public boolean possible(Look look) {
        return switch (look) {
            case SERIAL -> state.hasService;
            case PARTNER_TEST, DEVICE_TEST, PAIR_NAME -> state.hasPartner;
            case REGISTRY -> state.registryAsked;
            case OUTSIDE, OTHERS_OUTSIDE, NAMES, OTHER_LINE, RESOLVER -> state.hasLine;
            default -> true;
        };
    }

    /** What a look shows when nobody can say: a stranger may answer anything. */
    public static final int ANYTHING = -1;

    private static final String UNKNOWN = "?";

    /** Returns the outcome of a look, following the packet: an index into the look's outcomes, or {@link #ANYTHING}. */
    public int observe(Look look) {
        return look.outcomes().indexOf(seen(look));
    }

    /** Where a device stands on the wire of its segment. */
    public enum Stands {
        PLANNED,
        POOL,
        NOWHERE
    }

    /** Returns where the device itself stands, whoever else may hold its address. */
    public Stands stands() {
        if (!inOwnSegment() || state.holder == Holder.OLDER) return Stands.NOWHERE;
        return switch (shown(state.address)) {
            case "planned" -> Stands.PLANNED;
            case "pool" -> Stands.POOL;
            default -> Stands.NOWHERE;
        };
    }

    /** Whether another device answers at its planned address. */
    public boolean strangerHolds() {
        return state.holder != Holder.NOBODY;
    }

    /** Whether what reaches the device at its planned address gets an answer back. */
    public boolean answersBack() {
        return state.mask;
    }

    /** Which unit really stands there. */
    public Unit unit() {
        return state.unit;
    }

    /** Whether the MAC on record is that of its other interface. */
    public boolean siblingMac() {
        return state.siblingMac;
    }

    /** Whether it gives the caller an answer once its port is open. */
    public boolean letsCallersIn() {
        return state.allowed;
    }

    /** How its service port answers to somebody in its own segment, as {@link Look#PORT} names it. */
    public String portState() {
        return but(s -> s.holder = Holder.NOBODY).port(true);
    }

    /** Whether its partner is up, points at its address, at its port, and is its own. */
    public String partnerSide() {
        var s = state;
        if (!s.partnerUp || !s.partnerAddress) return "none";
        return s.crossed ? "other" : s.partnerPort ? "reaches" : "refused";
    }

    /** Whether its clock is right. */
    public boolean clockRight() {
        return state.clock;
    }

    /** Whether the gateway of its segment is up. */
    public boolean gatewayUp() {
        return state.gatewayUp;
    }

    /** Whether the resolver of its site is up. */
    public boolean resolverUp() {
        return state.resolverUp;
    }

    /** Whether the line of its site is up. */
    public boolean uplinkUp() {
        return state.uplink;
    }

    /** Whether the server of the service it calls is up. */
    public boolean serverUp() {
        return state.serverUp;
    }

    /** Whether the provider lets through what it sends. */
    public boolean providerLetsThrough() {
        return state.providerLetsThrough;
    }

    /** Whether certificates are good. */
    public boolean certificateGood() {
        return state.certificate;
    }

    /** Whether one looks from its own segment. */
    public boolean lookedAtFromWithin() {
        return state.vantage == Where.OWN;
    }

    private String seen(Look look) {
        var s = state;
        return switch (look) {
            case VANTAGE -> s.vantage == Where.OWN ? "own" : "elsewhere";
            case GATEWAY -> s.vantage == Where.OWN && s.gatewayUp ? "answers" : "silent";
            case NEIGHBOUR -> neighbour();
            // Some firewalls of devices let an echo through, others do not.
            case PING -> s.firewall && ping() && !held() ? UNKNOWN : ping() ? "answers" : "silent";
            case PORT -> held() ? UNKNOWN : port(s.vantage == Where.OWN);
            case SERIAL -> held() ? UNKNOWN : serial();
            case LEASES -> shown(s.address).equals("pool") ? "leased" : "absent";
            // Where it is not the router itself, the way to it leads over the router.
            case RESOLVER -> s.vantage == Where.OWN && s.gatewayUp && s.resolverUp ? "answers" : "silent";
            case PARTNER_TEST -> held() ? UNKNOWN : partnerTest();
            case POWER -> s.power ? "on" : "off";
            case LINK -> linked() ? "lit" : "dark";
            case CLOCK -> s.clock ? "right" : "wrong";
            case ADDRESS_SHOWN -> shown(s.address);
            case AFTER_RESTART -> afterRestart();
            case LABEL -> s.unit == Unit.SWAPPED ? "other" : "same";
            case SOCKET -> s.wanSocket ? "wan" : "lan";
            case PULL -> s.holder != Holder.NOBODY && s.vantage == Where.OWN ? "answers" : "silent";
            case MODEL -> s.unit == Unit.VARIANT ? "other" : "same";
            case OTHERS_OUTSIDE -> s.uplink && s.gatewayUp ? "yes" : "no";
            case DEVICE_TEST -> deviceTest() ? "reaches" : "fails";
            case PAIR_NAME -> s.crossed ? "other" : "own";
            case NAMES -> names() ? "found" : "not-found";
            case OUTSIDE -> outside() ? "yes" : "no";
            case REGISTRY -> entry();
            case SWITCH_LIGHT ->
                s.power && s.deviceEnd && s.wallEnd && s.outletPatched && s.portOn && !s.onWireless ? "lit" : "dark";
            case FIELDS -> fields();
            case REAL_JOB -> realJob();
            case TRY_AUTOMATIC ->
                but(n -> {
                            n.joined = true;
                            n.address = Set.AUTOMATIC;
                        })
                        .shown(Set.AUTOMATIC);
            case RESTART_PING ->
                but(n -> {
                                    n.joined = true;
                                    if (!n.saved) n.address = Set.AUTOMATIC;
                                })
                                .ping()
                        ? "answers"
                        : "silent";
            case OTHER_SOCKET -> s.power ? "lit" : "dark";
            case OTHER_LINE -> s.power && !s.providerLetsThrough && works() ? "yes" : "no";
        };
    }

    /** Whether a stranger answers in its place. */
    private boolean held() {
        return state.holder != Holder.NOBODY && state.vantage == Where.OWN;
    }

    private boolean linked() {
        var s = state;
        return s.power && s.deviceEnd && s.wallEnd && s.outletPatched && s.portOn && !s.onWireless;
    }

    /** Whether the network lets it in: on the wire, registered, and restarted since. */
    private boolean admitted() {
        var s = state;
        if (s.onWireless) return s.power;
        return linked() && !(s.registryAsked && (s.entry != Entry.RIGHT || !s.joined));
    }

    private boolean inOwnSegment() {
        return admitted() && !state.onWireless && !state.wanSocket && state.segment == Where.OWN;
    }

    private String shown(Set set) {
        var s = state;
        if (!s.power) return "nothing";
        if (set == Set.SLIP) return "slip";
        if (set == Set.AUTOMATIC || s.onWireless) {
            if (s.onWireless || admitted() && s.segment == Where.OTHER && !s.wanSocket) return "foreign";
            return inOwnSegment() && s.dhcpUp ? "pool" : "self";
        }
        return s.holder == Holder.OLDER && inOwnSegment() ? "in-use" : "planned";
    }

    /** What was not saved is gone; what waited for a restart joins with it. */
    private String afterRestart() {
        var s = state;
        return but(n -> {
                    n.joined = true;
                    if (!s.saved) n.address = Set.AUTOMATIC;
                })
                .shown(s.saved ? s.address : Set.AUTOMATIC);
    }

    /** Whether the device itself stands at the planned address. */
    private boolean there() {
        return standing() && state.holder == Holder.NOBODY;
    }

    private boolean standing() {
        return inOwnSegment() && state.address == Set.PLANNED;
    }

    private String neighbour() {
        var s = state;
        if (s.vantage != Where.OWN) return "nobody";
        if (s.holder == Holder.OLDER || s.holder == Holder.NEWER && !standing()) return "other";
        if (s.holder == Holder.NEWER) return "two";
        if (!there()) return "nobody";
        if (s.unit == Unit.SWAPPED) return "other";
        return s.siblingMac ? "sibling" : "right";
    }

    private boolean ping() {
        // A mask that is too narrow takes the answer out by a gateway that it cannot see.
        return state.vantage == Where.OWN && (state.holder != Holder.NOBODY || there() && state.mask);
    }

    private String port(boolean from) {
        var s = state;
        if (!from) return "silent";
        if (s.holder != Holder.NOBODY) return "refused";
        if (!there() || !s.mask || s.firewall) return "silent";
        return s.serviceOn && s.portRight ? "open" : "refused";
    }

    private String serial() {
        var s = state;
        if (!port(s.vantage == Where.OWN).equals("open") || !s.allowed) return "none";
        return switch (s.unit) {
            case SWAPPED -> "other";
            case VARIANT -> "strange";
            case OWN -> "right";
        };
    }

    private String partnerTest() {
        var s = state;
        // The partner is asked from here, too.
        if (s.vantage != Where.OWN || !s.partnerUp || !s.partnerAddress) return "none";
        if (s.crossed) return "other";
        String port = port(true);
        if (port.equals("silent")) return "none";
        if (port.equals("refused") || !s.partnerPort || !s.allowed) return "refused";
        return s.unit == Unit.SWAPPED ? "other" : s.unit == Unit.VARIANT ? "refused" : "reaches";
    }

    private boolean local() {
        return there() && state.mask;
    }

    private boolean deviceTest() {
        var s = state;
        return local() && s.partnerUp && s.toPartner && !s.partnerFirewall && !s.crossed;
    }

    private boolean names() {
        var s = state;
        return line() && s.resolver == Names.RIGHT && s.resolverUp;
    }

    private boolean line() {
        var s = state;
        return local() && s.gateway && s.gatewayUp && s.uplink;
    }

    private boolean outside() {
        return line();
    }

    private String entry() {
        return switch (state.entry) {
            case RIGHT -> "right";
            case NONE -> "absent";
            case SIBLING -> "sibling";
            case MISTYPED -> "mistyped";
            case ENDED -> "ended";
        };
    }

    private String fields() {
        var s = state;
        if (!s.power) return "nothing";
        if (s.address == Set.AUTOMATIC) return "automatic";
        if (s.address == Set.SLIP) return "address";
        if (!s.mask) return "mask";
        // What it never needs is no cause of anything here.
        if (s.hasLine && !s.gateway) return "gateway";
        if (s.hasLine && s.resolver != Names.RIGHT) return s.resolver == Names.WRONG ? "resolver" : "no-resolver";
        if (!s.portRight) return "port";
        return s.toPartner || !s.hasPartner ? "nothing" : "partner";
    }

    private boolean works() {
        var s = state;
        boolean partner = !s.hasPartner || deviceTest() && partnerTest().equals("reaches");
        boolean line = !s.hasLine || names();
        return local()
                && partner
                && line
                && s.serviceOn
                && s.portRight
                && !s.firewall
                && s.allowed
                && s.unit == Unit.OWN
                && s.serverUp;
    }

    private String realJob() {
        var s = state;
        if (!works() || s.hasLine && !s.providerLetsThrough) return "fails";
        if (!s.clock || !s.certificate) return "certificate";
        return s.signIn ? "done" : "sign-in";
    }
}
