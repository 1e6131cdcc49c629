package app.knottag.server.demo;

import app.knottag.core.plan.Method;
import app.knottag.core.register.Registration;
import app.knottag.core.register.Registry;
import app.knottag.core.register.RegistryEntry;
import app.knottag.server.change.Consequences;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.change.Hand;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.RegistrationRow;
import app.knottag.server.record.RegistryBook;
import app.knottag.server.record.Sites;
import app.knottag.server.register.Orders;
import app.knottag.server.register.Registries;
import app.knottag.server.register.RegistryFactsForm;
import app.knottag.server.register.RegistryFactsForm.RegistryRequest;
import app.knottag.server.register.SwapForm;
import app.knottag.server.register.SwapForm.SwapRequest;
import app.knottag.server.register.Swaps;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import org.springframework.boot.autoconfigure.condition.ConditionalOnExpression;
import org.springframework.stereotype.Component;

/** The registries of the made-up garden centre's office, with entries in every state. */
@Component
@ConditionalOnExpression("!'${knot.demo.control:}'.isEmpty()")
class DemoRegister {

    private final Endpoints endpoints;
    private final EndpointWork work;
    private final EndpointForm form;
    private final Sites sites;
    private final Registries registries;
    private final RegistryFactsForm registryForm;
    private final RegistrationStore store;
    private final RegistryBook book;
    private final Consequences consequences;
    private final Swaps swaps;
    private final SwapForm swapForm;
    private final Orders orders;
    private final Clock clock;

    DemoRegister(
            Endpoints endpoints,
            EndpointWork work,
            EndpointForm form,
            Sites sites,
            Registries registries,
            RegistryFactsForm registryForm,
            RegistrationStore store,
            RegistryBook book,
            Consequences consequences,
            Swaps swaps,
            SwapForm swapForm,
            Orders orders,
            Clock clock) {
        this.endpoints = endpoints;
        this.work = work;
        this.form = form;
        this.sites = sites;
        this.registries = registries;
        this.registryForm = registryForm;
        this.store = store;
        this.book = book;
        this.consequences = consequences;
        this.swaps = swaps;
        this.swapForm = swapForm;
        this.orders = orders;
        this.clock = clock;
    }

    void fill(long site, long office, String by) {
        long scanner =
                unit(site, office, "document-scanner", "Accounts scanner", 45, "00:00:5E:00:53:E1", "NS204117", by);
        long storage =
                unit(site, office, "storage-box", "Records storage box", 42, "00:00:5E:00:53:E4", "SB7H410093", by);
        long fax = unit(site, office, "fax-adapter", "Office fax adapter", 43, "00:00:5E:00:53:B7", "FA204417", by);
        long tablet = unit(site, office, "own-device", "Ada's tablet", 44, "00:00:5E:00:53:EA", "AT-2044-17", by);
        long list = registry(site, Registry.Type.RESERVATIONS, "Router reservations", office, List.of(), by);
        long portal = registry(site, Registry.Type.PORTAL, "Staff portal", office, List.of(), by);
        long service = registry(site, Registry.Type.SERVICE, "Fax service", null, List.of("fax-adapter"), by);
        registry(site, Registry.Type.GUEST_DESK, "Guest desk", office, List.of(), by);
        entered(list, scanner, 40, "");
        entered(list, storage, 40, "");
        entered(list, tablet, 12, "");
        entered(portal, scanner, 351, "Imke Rasmund");
        entered(portal, storage, 40, "Joris Teel");
        entered(portal, tablet, 366, "Ada Lind");
        asked(service, fax, 5);
        for (long id : List.of(scanner, storage, fax, tablet)) consequences.stand(id);
        orders.visit(
                site,
                LocalDate.ofInstant(clock.instant(), ZoneId.of(sites.site(site).zone()))
                        .plusDays(16),
                1,
                by);
        orders.add(site, "Payment key file", "the payment desk", 10, "", by);
        orders.add(site, "Key stick", "a courier", 2, "Payment key file", by);
        orders.add(site, "Supply for the door reader", "the electrician", 7, "", by);
        swaps.begin(
                storage,
                endpoints.get(storage).version(),
                swapForm.read(
                        endpoints.get(storage),
                        new SwapRequest("00:00:5E:00:53:F2", "SB7H410121", null, "Its power plug is loose")),
                by);
    }

    private long unit(
            long site, long office, String kind, String name, int host, String mac, String serial, String by) {
        return work.add(
                site,
                form.read(
                        site,
                        EndpointRequest.of(office, kind, name, "10.44.17." + host, "")
                                .labelled(mac, serial)
                                .model(kind.equals("fax-adapter") ? "FA-2 N" : null)
                                .kept(Method.RESERVED)
                                .done()),
                by);
    }

    private long registry(long site, Registry.Type type, String name, Long segment, List<String> kinds, String by) {
        var facts = registryForm.read(site, RegistryRequest.usual(type, name, segment, kinds));
        return registries.keep(new Hand(site, sites.site(site).version(), by), 0, facts);
    }

    private void entered(long registryId, long endpoint, int daysAgo, String owner) {
        Instant at = clock.instant().minus(Duration.ofDays(daysAgo));
        add(registryId, endpoint, owner, at, at);
    }

    private void asked(long registryId, long endpoint, int daysAgo) {
        add(registryId, endpoint, "", clock.instant().minus(Duration.ofDays(daysAgo)), null);
    }

    private void add(long registryId, long endpoint, String owner, Instant asked, Instant entered) {
        EndpointStore.Row e = endpoints.get(endpoint);
        Registry registry = book.registry(registryId);
        boolean shared = registry.rules().sharing() == Registry.Sharing.BY_KIND
                && !e.kind().equals("own-device");
        RegistryEntry held =
                registry.proposal(book.unit(e), owner, shared ? List.of("Joris Teel", "Pia Onwald") : List.of());
        store.add(new RegistrationRow(
                0,
                registryId,
                e.siteId(),
                endpoint,
                held.name(),
                held.mac().orElse(null),
                held.address().orElse(null),
                held.serial(),
                held.model(),
                owner,
                String.join("\n", held.sharedWith()),
                "",
                "",
                asked,
                entered,
                entered == null ? null : entered.plusSeconds(600),
                entered == null
                        ? null
                        : Registration.end(
                                        registry.rules(),
                                        entered,
                                        ZoneId.of(sites.site(e.siteId()).zone()))
                                .orElse(null),
                null,
                "",
                1));
    }
}
