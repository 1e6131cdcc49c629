package app.knottag.core.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kind;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/** The fewest rules that let every endpoint do its work, to hand to whoever owns the firewall. */
public final class FirewallRules {

    private FirewallRules() {}

    /** Passes traffic from a source to a destination; port 0 means any. */
    public record Rule(String from, String to, String protocol, int port, String why) {}

    /** An endpoint as far as its traffic goes. */
    public record Talker(
            String name,
            Ipv4Address address,
            Optional<Integer> port,
            Optional<String> partner,
            Optional<Ipv4Address> partnerAddress,
            List<Kind.Talk> talks) {}

    /** Returns the rules in order of their destination, the last one saying that nothing else comes in. */
    public static List<Rule> of(Collection<Talker> talkers) {
        var rules = new ArrayList<Rule>();
        for (var t : talkers) {
            t.partnerAddress()
                    .ifPresent(p -> t.port()
                            .ifPresent(port -> rules.add(new Rule(
                                    t.partner().orElse("partner") + " " + p,
                                    t.name() + " " + t.address(),
                                    "TCP",
                                    port,
                                    "It is called by its partner."))));
            for (var talk : t.talks())
                if (talk.to() == Kind.Talk.To.INTERNET)
                    rules.add(new Rule(
                            t.name() + " " + t.address(), "internet", talk.protocol(), talk.port(), talk.why()));
                else
                    t.partnerAddress()
                            .ifPresent(p -> rules.add(new Rule(
                                    t.name() + " " + t.address(),
                                    t.partner().orElse("partner") + " " + p,
                                    talk.protocol(),
                                    talk.port(),
                                    talk.why())));
        }
        rules.sort(Comparator.comparing((Rule r) -> r.to().equals("internet"))
                .thenComparing(Rule::port)
                .thenComparing(Rule::from));
        rules.add(new Rule("internet", "any", "any", 0, "Refuse: nothing here is reached from the internet."));
        return List.copyOf(rules);
    }
}
