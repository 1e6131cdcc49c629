package app.knottag.core.handover;

import app.knottag.core.address.Segment;
import app.knottag.core.handover.Readiness.Known;
import app.knottag.core.hardware.Wiring;
import app.knottag.core.kind.Kind;
import app.knottag.core.plan.FirewallRules;
import app.knottag.core.plan.Method;
import app.knottag.core.reach.PaperSearch;
import app.knottag.core.runbook.Nightly;
import app.knottag.core.runbook.TypeSheet.SheetRow;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.util.List;
import java.util.Optional;

/** Everything of a site that its packs are made of. */
public record PackSite(
        Head head,
        Network network,
        List<PackDevice> devices,
        List<PackRegistry> registries,
        List<Nightly.Slot> nights,
        LogHead log) {

    /**
     * What stands on its first page.
     *
     * @param help whom the client calls, in the words that somebody gave; empty while nobody has said
     * @param by who made it
     */
    public record Head(String name, String client, String zone, String help, String by, SiteClock clock) {}

    /** @param series name and how it counts, in a sentence */
    public record Network(
            List<PackSegment> segments,
            List<String> series,
            List<PackService> services,
            List<Wiring.Cable> cables,
            List<FirewallRules.Rule> rules) {}

    /** Where the chain of the log stood when the pack was made. */
    public record LogHead(long id, String hash) {}

    public record PackSegment(String name, Segment segment, List<String> resolvers, String vlan, String notes) {}

    /** Something outside that the site lists, or a partner of its devices. */
    public record PackService(String name, String where, String what) {}

    /** @param entries MAC, name and how it stands, one row each */
    public record PackRegistry(String name, List<List<String>> entries) {}

    /** What a check or a pair of eyes found, and when. */
    public record Proof(String title, String seen, String how, Instant at, String by) {}

    /** A step that was let through with a reason. */
    public record Override(String step, String reason, String by) {}

    /**
     * A device.
     *
     * @param typed what was entered on it, menu by menu in its own order
     * @param search what its search for a cause rests on
     * @param kind empty when its kind's file is not here
     */
    public record PackDevice(
            Known known,
            TagFacts facts,
            String place,
            String kindName,
            Optional<Kind> kind,
            Method method,
            List<SheetRow> typed,
            Optional<PaperSearch.Device> search,
            List<Proof> proofs,
            List<Override> overrides) {

        String kindOf() {
            return kind.map(Kind::name).orElse(kindName);
        }
    }
}
