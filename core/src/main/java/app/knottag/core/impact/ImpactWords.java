package app.knottag.core.impact;

import app.knottag.core.impact.Bond.Act;
import app.knottag.core.impact.Change.Subject;
import app.knottag.core.impact.ImpactSite.Device;
import app.knottag.core.impact.ImpactSite.Network;
import app.knottag.core.impact.Thing.Sort;
import app.knottag.core.impact.Walk.Done;
import app.knottag.core.impact.Walk.Pull;
import app.knottag.core.kind.Protocol;
import app.knottag.core.plan.Method;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/** What is said of a change: every sentence, and how long each thing takes. */
final class ImpactWords {

    private static final int NAMED = 4;

    private final ImpactSite site;
    private final Change change;
    private final Subject subject;
    private final Thing thing;
    private final Map<Thing, String> names = new HashMap<>();
    private final Map<Thing, Device> devices = new HashMap<>();
    private final Map<Thing, Network> networks = new HashMap<>();

    ImpactWords(ImpactSite site, Change change, Subject subject, Thing thing) {
        this.site = site;
        this.change = change;
        this.subject = subject;
        this.thing = thing;
        names.put(Ties.LINE, "the line");
        names.put(Ties.ROUTER, "the router");
        names.put(Ties.RULES, "the firewall");
        names.put(Ties.LABELS, "labels");
        for (var n : site.networks()) {
            networks.put(Thing.of(Sort.NETWORK, n.id()), n);
            names.put(Thing.of(Sort.NETWORK, n.id()), n.name());
            names.put(Ties.reservations(n.id()), "the reservations of " + n.name());
        }
        for (var d : site.devices()) {
            devices.put(Thing.device(d.id()), d);
            names.put(Thing.device(d.id()), d.name());
        }
        for (var b : site.gear()) names.put(Thing.of(b.router() ? Sort.ROUTER : Sort.GEAR, b.id()), b.name());
        site.partners().forEach(p -> names.put(Thing.of(Sort.PARTNER, p.id()), p.name()));
        site.services().forEach(s -> names.put(Thing.of(Sort.SERVICE, s.id()), s.name()));
        site.lists().forEach(l -> names.put(Thing.of(Sort.LIST, l.id()), l.name()));
        names.putIfAbsent(thing, subject.name());
    }

    String name(Thing of) {
        return names.getOrDefault(of, of.key());
    }

    /** Returns its name as it heads a line. */
    String headed(Thing of) {
        String name = name(of);
        return name.startsWith("the ") ? "T" + name.substring(1) : of.equals(Ties.LABELS) ? "Labels" : name;
    }

    String place(Thing of) {
        return Optional.ofNullable(devices.get(of)).map(Device::place).orElse("");
    }

    String title(Done done) {
        return switch (done.act()) {
            case CHANGE -> changed();
            case RENEW -> renewed(done);
            case PROVE ->
                "Prove it again: " + lower(devices.get(done.thing()).upkeep().job()) + ".";
            case MEND -> mended(done);
        };
    }

    private String changed() {
        return switch (change) {
            case ROUTER -> "Put the new one in its place, and see that it has its line.";
            case SWITCH ->
                site.gear().stream()
                                .anyMatch(b -> thing.equals(Thing.of(Sort.GEAR, b.id()))
                                        && b.networks().size() > 1)
                        ? "Put the new one in its place, each of its ports in the network that Plan, Wiring shows."
                        : "Put the new one in its place.";
            case PROVIDER -> "Have the line changed over.";
            case NETWORK -> "Give the router its new address and pool in " + name(thing) + ".";
            case GATEWAY -> "Give the router its new address in " + name(thing) + ".";
            case RESOLVER -> "See that the resolver in the place of " + name(thing) + " answers.";
            case ADDRESS ->
                device().filter(d -> !d.keyed()).isPresent()
                        ? "Change it in the plan; it is not set up yet."
                        : device().filter(d -> !d.method().onDevice()).isPresent()
                                ? "Change its address in the list that keeps it, and restart it."
                                : "Key in its new address, restart it, and read it back.";
            case MAIL_PASSWORD -> "Change the password of " + name(thing) + " where the mailbox is kept.";
            case TIME_SERVER -> "Choose another time server in the place of " + name(thing) + ".";
            case PERSON -> "End what " + subject.name() + " can sign in to.";
            case PORT -> "Plug it into its new port.";
        };
    }

    private Optional<Device> device() {
        return Optional.ofNullable(devices.get(thing));
    }

    private String renewed(Done done) {
        var d = devices.get(done.thing());
        if (has(done, p -> p.event() == Event.READDRESSED)) return "Restart it, and see that it has its new address.";
        if (d.method() == Method.RESERVED)
            return "Restart it, and see that it comes back with "
                    + d.address().map(Object::toString).orElse("its own address") + ".";
        return "Restart it, or wait until its lease is over, and see that it is back.";
    }

    private static boolean has(Done done, Predicate<Pull> which) {
        return done.pulls().stream().anyMatch(which);
    }

    private static boolean has(Done done, Bond bond, Event event) {
        return has(done, p -> p.tie().bond() == bond && p.event() == event);
    }

    private String mended(Done done) {
        var first = done.pulls().get(0);
        String held = name(first.tie().held());
        int n = done.pulls().size();
        return switch (first.tie().bond()) {
            case SERVED_BY -> "Key it into the new router: " + figures(networks.get(done.thing())) + ".";
            case FED_BY -> "Key the sign-in of the new line into it.";
            case STAND_IN -> "Key in its " + count(site.rules(), "rule", "rules") + ", as Plan, Firewall lists them.";
            case NAME -> "Change the rules that name " + held(done) + ".";
            case KEPT_IN ->
                "Key its " + count(entries(done.thing()), "reservation", "reservations") + " into the new router.";
            case LISTS ->
                "Change its " + count(entries(done.thing(), first.tie().held()), "address", "addresses") + " in " + held
                        + ".";
            case HOLDS -> "Enter the new address of " + held(done) + ".";
            case OWNED_BY -> "Name somebody else who answers for " + owned(done.thing()) + ".";
            case CLOSED_BY -> "Name somebody else who closes what stands open: " + open(done.thing()) + ".";
            case HANDS_OUT -> "Let it hand out the new resolver.";
            case KEYED, ASKS_NAMES -> "Key in " + menu(done) + ", restart it, and read it back.";
            case PLUGGED -> "Plug it in again, into " + port(done.thing()) + ".";
            case WATCHES -> "Measure how long the new router takes to start, and key that into its worksheet.";
            case TALKS_TO -> "Key in the new address of " + held + ", its partner.";
            case POINTS_AT -> "In its set-up enter the new address of " + held(done) + ".";
            case CALLS_ADDRESS, CALLS_NAME ->
                first.event() == Event.GONE
                        ? "Key in the one in the place of " + held + "."
                        : "Key in the new address of " + held + ".";
            case SIGNS_IN -> "Key in the new password of " + held + ".";
            case SHOW -> "Print " + count(n, "label", "labels") + " anew, and hang them: " + held(done) + ".";
            default ->
                throw new IllegalStateException(
                        "nothing is mended by " + first.tie().bond());
        };
    }

    private String held(Done done) {
        return listed(done.pulls().stream().map(p -> name(p.tie().held())).distinct());
    }

    private static String listed(Stream<String> names) {
        var all = names.sorted(String::compareToIgnoreCase).toList();
        if (all.size() > NAMED)
            return String.join(", ", all.subList(0, NAMED - 1)) + " and " + (all.size() - NAMED + 1) + " more";
        return all.size() < 2
                ? String.join("", all)
                : String.join(", ", all.subList(0, all.size() - 1)) + " and " + all.get(all.size() - 1);
    }

    private static String figures(Network n) {
        var figures = new ArrayList<String>();
        n.segment().gateway().ifPresent(g -> figures.add("address " + g));
        figures.add("mask " + n.segment().prefix().mask());
        n.segment().pools().forEach(p -> figures.add("handed out " + p.from() + " to " + p.to()));
        if (!n.resolvers().isEmpty())
            figures.add(
                    "resolvers " + n.resolvers().stream().map(Object::toString).collect(Collectors.joining(" and ")));
        n.vlan().ifPresent(v -> figures.add("VLAN " + v));
        return String.join(", ", figures);
    }

    private String menu(Done done) {
        var fields = new ArrayList<String>();
        if (has(done, Bond.KEYED, Event.READDRESSED)) fields.addAll(List.of("address", "mask", "gateway"));
        else if (has(done, Bond.KEYED, Event.REGATED)) fields.add("gateway");
        if (has(done, p -> p.tie().bond() == Bond.ASKS_NAMES)) fields.add("resolver");
        return "its new "
                + (fields.size() == 1
                        ? fields.get(0)
                        : String.join(", ", fields.subList(0, fields.size() - 1)) + " and "
                                + fields.get(fields.size() - 1));
    }

    private String port(Thing of) {
        return devices.get(of).calls().port().map(ImpactSite.Plug::label).orElse("its port");
    }

    private int entries(Thing list) {
        return (int) listedIn(list).count();
    }

    private int entries(Thing list, Thing network) {
        return (int) listedIn(list)
                .filter(d -> Thing.of(Sort.NETWORK, d.network()).equals(network))
                .count();
    }

    private Stream<Device> listedIn(Thing list) {
        return site.lists().stream()
                .filter(l -> Thing.of(Sort.LIST, l.id()).equals(list))
                .findFirst()
                .map(l -> l.entries().stream()
                        .flatMap(e -> Optional.ofNullable(devices.get(Thing.device(e.device()))).stream()))
                .orElseGet(() -> site.devices().stream()
                        .filter(d -> d.keyed() && d.method() == Method.RESERVED)
                        .filter(d -> Ties.reservations(d.network()).equals(list)));
    }

    private String owned(Thing list) {
        return listed(site.lists().stream()
                .filter(l -> Thing.of(Sort.LIST, l.id()).equals(list))
                .flatMap(l -> l.entries().stream())
                .filter(e -> Ties.person(e.owner()).equals(thing))
                .map(ImpactSite.Entry::name));
    }

    private String open(Thing of) {
        return site.openings().stream()
                .filter(o -> Thing.device(o.device()).equals(of)
                        && Ties.person(o.owner()).equals(thing))
                .map(o -> lower(o.title()))
                .collect(Collectors.joining(", "));
    }

    private static String count(int n, String one, String many) {
        return n + " " + (n == 1 ? one : many);
    }

    private static String lower(String text) {
        return text.isEmpty() ? text : text.substring(0, 1).toLowerCase(Locale.ROOT) + text.substring(1);
    }

    /** Returns what a step comes of, in half a sentence each. */
    String why(Done done) {
        return switch (done.act()) {
            case CHANGE -> "";
            case RENEW -> "It takes its address from the network.";
            case PROVE -> proof(done);
            case MEND -> because(done.pulls().get(0));
        };
    }

    private String proof(Done done) {
        if (has(done, Bond.SELF, Event.READDRESSED)) return "Its address is another.";
        if (has(done, Bond.SELF, Event.MOVED)) return "Its port is another.";
        if (has(done, p -> p.tie().bond() == Bond.SELF)) return "Something was set on it.";
        var pull = done.pulls().get(0);
        return switch (pull.tie().bond()) {
            case THROUGH, PASSES, OUT -> "It calls out of its network.";
            default -> "It needs " + name(pull.tie().held()) + ".";
        };
    }

    private String because(Pull pull) {
        String held = name(pull.tie().held());
        return switch (pull.tie().bond()) {
            case SERVED_BY, STAND_IN, KEPT_IN -> "The new one does not know it.";
            case FED_BY -> "The line asks who calls.";
            case LISTS, HOLDS, NAME, SHOW, POINTS_AT -> "It holds the old address.";
            case OWNED_BY, CLOSED_BY -> subject.name() + " is on record for it.";
            case HANDS_OUT -> "Those on automatic learn it from there.";
            case KEYED -> "It does not learn it: its figures are typed in.";
            case ASKS_NAMES -> "It asks " + held + " for names.";
            case PLUGGED -> "It is plugged into " + held + ".";
            case WATCHES -> "It restarts the router for ever when it waits too short.";
            case TALKS_TO -> "It has the old address of " + held + ".";
            case SIGNS_IN -> "It signs in there with the old one.";
            default -> (guessed(pull) ? "It is taken to call " : "It calls ") + held + ".";
        };
    }

    int minutes(Done done) {
        if (done.act() == Act.RENEW) return 1;
        if (done.act() == Act.PROVE) return devices.get(done.thing()).upkeep().proving();
        if (done.act() == Act.CHANGE)
            return switch (change) {
                case ROUTER -> 15;
                case SWITCH, PROVIDER -> 10;
                case ADDRESS ->
                    device().map(d -> d.keyed() ? d.upkeep().typing() : 1).orElse(5);
                case TIME_SERVER, PORT -> 2;
                default -> 5;
            };
        int n = done.pulls().size();
        return switch (done.pulls().get(0).tie().bond()) {
            case SERVED_BY, FED_BY, WATCHES -> 5;
            case STAND_IN -> 1 + site.rules();
            case KEPT_IN -> 1 + entries(done.thing());
            case LISTS -> 1 + entries(done.thing(), done.pulls().get(0).tie().held());
            case NAME, HOLDS -> 1 + n;
            case KEYED, ASKS_NAMES ->
                Optional.ofNullable(devices.get(done.thing()))
                        .map(d -> d.upkeep().typing())
                        .orElse(5);
            case POINTS_AT, SHOW -> 2 * n;
            case PLUGGED -> 1;
            default -> 3;
        };
    }

    /** Returns how long it then runs by itself. */
    int alone(Done done) {
        var d = Optional.ofNullable(devices.get(done.thing()));
        boolean restarts = done.act() == Act.RENEW
                || done.act() == Act.MEND && has(done, p -> p.tie().bond().menu())
                || done.act() == Act.CHANGE
                        && change == Change.ADDRESS
                        && device().filter(x -> !x.keyed()).isEmpty();
        return restarts ? d.map(x -> x.upkeep().restart()).orElse(2) : 0;
    }

    String says(List<Done> done, List<Impact.ImpactStep> steps) {
        long mend = steps.stream()
                .filter(s -> s.act() == Act.MEND || s.act() == Act.RENEW)
                .count();
        long prove = steps.stream().filter(s -> s.act() == Act.PROVE).count();
        if (mend + prove == 0) return "As far as is on record nothing rests on it.";
        int minutes = steps.stream().mapToInt(Impact.ImpactStep::minutes).sum();
        var said = new ArrayList<String>();
        if (mend > 0) said.add(count((int) mend, "thing", "things") + " to set after it");
        if (prove > 0) said.add(count((int) prove, "device", "devices") + " to prove again");
        return String.join(", and ", said) + ": about "
                + (minutes < 60
                        ? minutes + " min"
                        : String.format(Locale.ROOT, "%d h %02d min", minutes / 60, minutes % 60))
                + " of work." + meanwhile(done);
    }

    private String meanwhile(List<Done> done) {
        if (change != Change.ROUTER && change != Change.PROVIDER) return "";
        var cut = done.stream()
                .filter(d ->
                        has(d, p -> p.tie().bond() == Bond.THROUGH || p.tie().bond() == Bond.OUT))
                .map(d -> name(d.thing()))
                .toList();
        return cut.isEmpty() ? "" : " Cut off until then: " + listed(cut.stream()) + ".";
    }

    /** Returns what no record says and may be touched as well. */
    List<String> unknown(List<Done> done) {
        var said = new ArrayList<String>();
        switch (change) {
            case ROUTER -> {
                said.add("What only the old one knows is on no record: its sign-in at the line, names and keys of its "
                        + "wireless, forwards. Write them down before it goes.");
                if (!site.partners().isEmpty())
                    said.add(
                            "A partner whose address the old one reserved gets another one from the new one; whether there are "
                                    + "such is on no record: look at "
                                    + listed(site.partners().stream().map(ImpactSite.Partner::name)) + ".");
                if (site.gear().stream().noneMatch(ImpactSite.Box::router))
                    said.add("No router is on record; one is taken to serve every network here.");
            }
            case SWITCH ->
                said.add(
                        "Who takes power from its ports is on no record: the new one must feed them too. Nor is what hangs "
                                + "on it that is no endpoint, such as partners and access points.");
            case MAIL_PASSWORD ->
                unsaid(d -> d.calls().mails() && d.calls().mail().isEmpty(), "The mailbox of ", " is not on record.")
                        .ifPresent(said::add);
            case PERSON ->
                said.add("Who knows which password is on no record: change those that " + subject.name() + " used.");
            case PROVIDER -> {
                said.add(
                        "Whoever lets this site in by its public address must be told the new one; who does is on no record.");
                said.add(
                        "A resolver of the old provider may answer its own customers only; whose they are is on no record."
                                + outside());
            }
            case PORT -> said.add("In another network than before it needs another address too: see its new port.");
            case NETWORK, GATEWAY -> {
                if (change == Change.NETWORK)
                    unsaid(
                                    d -> d.keyed()
                                            && !d.callers().isEmpty()
                                            && thing.key().equals(Long.toString(d.network())),
                                    "Who calls ",
                                    " is on no record, such as workstations: they need the new address too.")
                            .ifPresent(said::add);
                if (!site.partners().isEmpty())
                    said.add(
                            "Whether a partner’s own address is typed in or lent is on no record; it is taken as typed in.");
            }
            case RESOLVER -> said.add("A resolver that somebody typed in by their own choice is on no record.");
            case ADDRESS ->
                device().ifPresent(d -> {
                    if (!d.keyed()) said.add("It is not set up yet: who has its address already is on no record.");
                    else if (!d.callers().isEmpty())
                        said.add("Which of them have its address is on no record. " + d.callers());
                });
            default -> {}
        }
        if (done.stream().anyMatch(d -> has(d, this::guessed)))
            said.add(
                    "Which time server a device uses is on no record, nor who tells it: all whose clock counts are taken to "
                            + "have it typed in. The site sheet can say which kinds call it.");
        unsaid(
                        d -> !d.keyed()
                                && d.calls()
                                        .port()
                                        .filter(p -> thing.key().equals(Long.toString(p.gear())))
                                        .isPresent()
                                && (change == Change.SWITCH || change == Change.ROUTER),
                        "Not set up yet, and only to be plugged in again: ",
                        ".")
                .ifPresent(said::add);
        if (change != Change.SWITCH
                && change != Change.PORT
                && change != Change.MAIL_PASSWORD
                && change != Change.PERSON
                && change != Change.ADDRESS)
            unsaid(d -> !d.keyed(), "Not set up yet, so there is nothing to change on ", ".")
                    .ifPresent(said::add);
        return said;
    }

    /** Whether it is only taken to call a time server. */
    private boolean guessed(Pull pull) {
        return site.services().stream()
                .filter(s -> Thing.of(Sort.SERVICE, s.id()).equals(pull.tie().held()))
                .anyMatch(s -> s.protocol() == Protocol.NTP && !s.said());
    }

    private String outside() {
        var outside = site.networks().stream()
                .flatMap(n -> n.resolvers().stream())
                .filter(r -> site.networks().stream()
                        .noneMatch(n -> n.segment().prefix().contains(r)))
                .map(Object::toString)
                .distinct()
                .toList();
        return outside.isEmpty() ? "" : " Outside here: " + listed(outside.stream()) + ".";
    }

    private Optional<String> unsaid(Predicate<Device> which, String before, String after) {
        var found = site.devices().stream().filter(which).map(Device::name).toList();
        return found.isEmpty() ? Optional.empty() : Optional.of(before + listed(found.stream()) + after);
    }
}
