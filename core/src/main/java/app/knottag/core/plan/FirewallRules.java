package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Protocol;
import app.knottag.core.kind.Transport;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;

/** The fewest rules that let every endpoint do its work, to hand to whoever owns the firewall. */
public final class FirewallRules {

    private FirewallRules() {}

    /** Passes traffic from a source to a destination; port 0 means any. */
    public record Rule(String from, String to, Transport protocol, int port, String why) {}

    /** An endpoint as far as its traffic goes; the partner's port is this endpoint's own, where it has one. */
    public record Talker(
            String name,
            Ipv4Address address,
            Optional<Integer> port,
            Optional<String> partner,
            Optional<Ipv4Address> partnerAddress,
            Optional<Integer> partnerPort,
            List<Kind.Talk> talks,
            List<Ipv4Address> resolvers) {}

    /** A service that the site lists: where talks to the outside of its protocol really go. */
    public record Listed(String name, Protocol protocol, String host, int port) {}

    private static final String INTERNET = "internet";
    private static final int NAMES = 53;
    private static final int TIME = 123;

    /** Returns the rules in order of their destination, the last one saying that nothing else comes in. */
    public static List<Rule> of(Collection<Talker> talkers, List<Listed> services) {
        var rules = new LinkedHashSet<Rule>();
        for (var t : talkers) {
            String self = t.name() + " " + t.address();
            t.partnerAddress()
                    .ifPresent(p -> t.port()
                            .ifPresent(port -> rules.add(new Rule(
                                    partner(t, p), self, Transport.TCP, port, "It is called by its partner."))));
            for (var talk : t.talks())
                if (talk.to() == Kind.Talk.To.INTERNET) rules.addAll(outside(self, talk, services));
                else
                    t.partnerAddress()
                            .ifPresent(p -> rules.add(new Rule(
                                    self,
                                    partner(t, p),
                                    talk.protocol(),
                                    t.partnerPort().orElse(talk.port()),
                                    talk.why())));
            boolean out = t.talks().stream().anyMatch(k -> k.to() == Kind.Talk.To.INTERNET);
            if (out) rules.addAll(ground(self, t, services));
        }
        var sorted = new ArrayList<>(rules);
        sorted.sort(Comparator.comparing((Rule r) -> r.to().equals(INTERNET))
                .thenComparing(Rule::port)
                .thenComparing(Rule::from));
        sorted.add(new Rule(INTERNET, "any", Transport.ANY, 0, "Refuse: nothing here is reached from the internet."));
        return List.copyOf(sorted);
    }

    private static String partner(Talker t, Ipv4Address address) {
        return t.partner().orElse("partner") + " " + address;
    }

    /** To the listed services of the same port, or anywhere when the site lists none. */
    private static List<Rule> outside(String self, Kind.Talk talk, List<Listed> services) {
        var to = services.stream().filter(s -> s.port() == talk.port()).toList();
        if (to.isEmpty()) return List.of(new Rule(self, INTERNET, talk.protocol(), talk.port(), talk.why()));
        return to.stream()
                .map(s -> new Rule(self, s.name() + " " + s.host(), talk.protocol(), talk.port(), talk.why()))
                .toList();
    }

    /** Whoever calls out looks names up, and compares certificates with the time. */
    private static List<Rule> ground(String self, Talker t, List<Listed> services) {
        var rules = new ArrayList<Rule>();
        for (var r : t.resolvers())
            for (var protocol : List.of(Transport.UDP, Transport.TCP))
                rules.add(new Rule(self, "resolver " + r, protocol, NAMES, "It looks names up."));
        if (t.resolvers().isEmpty())
            rules.add(new Rule(self, INTERNET, Transport.UDP, NAMES, "It looks names up; no resolver is on record."));
        var time = services.stream().filter(s -> s.protocol() == Protocol.NTP).toList();
        for (var s : time)
            rules.add(new Rule(self, s.name() + " " + s.host(), Transport.UDP, s.port(), "It keeps its clock right."));
        boolean own = t.talks().stream().anyMatch(k -> k.port() == TIME);
        if (time.isEmpty() && !own)
            rules.add(
                    new Rule(self, INTERNET, Transport.UDP, TIME, "It keeps its clock right; certificates need that."));
        return rules;
    }
}
