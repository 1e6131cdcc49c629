package app.knottag.core.register;

import static app.knottag.core.register.RegisterSamples.entered;
import static app.knottag.core.register.RegisterSamples.entry;
import static app.knottag.core.register.RegisterSamples.registry;
import static app.knottag.core.register.RegisterSamples.unit;
import static app.knottag.core.register.RegisterSamples.with;
import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.kind.VariantMatch;
import app.knottag.core.register.RegistrationJudge.Objection;
import app.knottag.core.register.Registry.Rules;
import app.knottag.core.register.Registry.Type;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RegistrationJudgeTest {

    private static final Unit COPIER = unit(1, "Copier", "WIRED 10*, WIRELESS 11");
    private static final Unit SCANNER = unit(2, "Scanner", "WIRED 20*");
    private static final Unit PHONE = with(unit(3, "Phone", "WIRELESS 30*"), true, false, false, "");
    private static final Unit FAX = with(unit(4, "Fax", "WAN 50*"), false, false, false, "FA-2 N");
    private static final Unit AWAY = with(unit(5, "Reader", "WIRED 70*"), false, true, false, "");
    private static final List<Unit> UNITS = List.of(COPIER, SCANNER, PHONE, FAX, AWAY);

    private static List<String> said(Registry registry, Unit unit, RegistryEntry entry, Registration... others) {
        return new RegistrationJudge(registry, List.of(others), UNITS, RegisterSamples.NOW)
                .judge(unit, entry).stream().map(RegistrationJudgeTest::text).toList();
    }

    private static String text(Objection o) {
        return o.code() + (o.refuses() ? "! " : "? ") + o.field() + ": " + o.message();
    }

    private static Registry portal() {
        return registry(7, "Portal", Type.PORTAL);
    }

    @DisplayName("Each MAC is judged beside those that stand there")
    @ParameterizedTest(name = "{0} beside {1}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "00:00:5E:00:53:10 | 20 | -",
                "00:00:5E:00:53:11 | 20 | OTHER_INTERFACE? mac: 00:00:5E:00:53:11 is another interface; List needs "
                        + "00:00:5E:00:53:10. Its wired interface is the one in use.",
                "02:00:5E:00:53:10 | 20 | RANDOM_MAC! mac: 02:00:5E:00:53:10 is private and changes. Switch the private "
                        + "MAC off for this network, then read the MAC again.",
                "00:00:5E:00:53:10 | 10 | MAC_REGISTERED! mac: 00:00:5E:00:53:10 stands in List for Scanner. The same "
                        + "unit, or a slip on one of the two labels?",
                "00:00:5E:00:53:10 | 13 | ONE_FIGURE_AWAY? mac: Only one figure away from 00:00:5E:00:53:13, which "
                        + "stands in List for Scanner and on no label. Look at both labels.",
                "00:00:5E:00:53:10 | 90 | ONE_FIGURE_AWAY? mac: Only one figure away from 00:00:5E:00:53:90, which "
                        + "stands in List for Scanner and on no label. Look at both labels.",
            })
    void judgesTheMac(String mac, String held, String expected) {
        var found = said(
                registry(7, "List", Type.ACCESS_LIST),
                COPIER,
                entry("copier", mac),
                entered(1, 7, 2, entry("scanner", "00:00:5E:00:53:" + held)));
        assertThat(found.stream().findFirst()).isEqualTo(Optional.ofNullable(expected));
    }

    @Test
    void bothMacsOfOneBoxAreAskedAbout() {
        var found = said(
                registry(7, "List", Type.ACCESS_LIST),
                COPIER,
                entry("copier", "00:00:5E:00:53:10"),
                entered(1, 7, 1, entry("copier-2", "00:00:5E:00:53:11")));
        assertThat(found)
                .containsExactly(
                        "SAME_BOX_TWICE? mac: Its other MAC 00:00:5E:00:53:11 stands in List already. One box, one "
                                + "entry: take that out first.");
    }

    @Test
    void whatIsTakenOutOrRunOutNoLongerStandsThere() {
        var r = entered(1, 7, 2, entry("copier", "00:00:5E:00:53:10"));
        var over = new Registration(
                1,
                7,
                2,
                r.held(),
                r.askedAt(),
                r.enteredAt(),
                r.restartedAt(),
                Optional.of(RegisterSamples.NOW),
                Optional.empty());
        var out = new Registration(
                1,
                7,
                2,
                r.held(),
                r.askedAt(),
                r.enteredAt(),
                r.restartedAt(),
                Optional.empty(),
                Optional.of(RegisterSamples.NOW));
        var list = registry(7, "List", Type.ACCESS_LIST);
        assertThat(said(list, COPIER, r.held(), r)).hasSize(2);
        assertThat(said(list, COPIER, r.held(), over, out)).isEmpty();
    }

    @DisplayName("Names keep to the rule of the registry")
    @ParameterizedTest(name = "{0} “{1}”")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "PORTAL       | Copier in the hall | -",
                "PORTAL       | ''                 | NAME_MISSING! name: An entry needs a name that people recognise.",
                "PORTAL       | scanner            | NAME_TWICE! name: “scanner” stands in Place already, for Scanner.",
                "PORTAL       | =copier            | NAME_FORM! name: It may not begin with “=”: spreadsheets would take it for a formula.",
                "PORTAL       | The copier that stands in the hall upstairs | NAME_TOO_LONG! name: “The copier that "
                        + "stands in the hall upstairs” has 43 characters; Place takes 40.",
                "RESERVATIONS | pgb-copy1          | -",
                "RESERVATIONS | Copier hall        | NAME_FORM! name: A host name has small letters, digits and "
                        + "hyphens, no hyphen at an end: “Copier hall”.",
                "RESERVATIONS | pgb-copier-hall-1  | NAME_TOO_LONG! name: “pgb-copier-hall-1” has 17 characters; Place takes 15.",
            })
    void judgesTheName(Type type, String name, String expected) {
        var entry = new RegistryEntry(name, COPIER.mac(), COPIER.address(), "", "", "Ada", List.of("Ben"));
        if (type == Type.RESERVATIONS) entry = RegistryEntry.of(name, COPIER.mac(), COPIER.address());
        assertThat(said(
                                registry(7, "Place", type),
                                COPIER,
                                entry,
                                entered(1, 7, 2, entry("Scanner", "00:00:5E:00:53:20")))
                        .stream()
                        .findFirst())
                .isEqualTo(Optional.ofNullable(expected));
    }

    @DisplayName("A shared device needs a user, a personal one has none")
    @ParameterizedTest(name = "{0}, owner {1}, shared {2}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "1 | Ada | Ben | -",
                "1 | Ada | ''  | NOT_SHARED! sharedWith: Copier is used by several people: name at least one who may use it.",
                "1 | ''  | Ben | OWNER_MISSING! owner: Say whose entry it is.",
                "3 | Ada | ''  | -",
                "3 | Ada | Ben | SHARED_PERSONAL! sharedWith: Phone is a personal device: nobody else shares it. Leave the list empty.",
            })
    void judgesThePeople(int unit, String owner, String shared, String expected) {
        var u = UNITS.get(unit - 1);
        var entry = new RegistryEntry(u.name(), u.mac(), u.address(), "", "", owner, List.of(shared));
        assertThat(said(portal(), u, entry).stream().findFirst()).isEqualTo(Optional.ofNullable(expected));
    }

    @Test
    void aRegistryThatIsFullOrKnowsNoSharingRefuses() {
        var u = Rules.usual(Type.ACCESS_LIST);
        var two = new Rules(
                u.naming(), 40, false, u.sharing(), 1, u.lifetime(), true, u.facts(), List.of(), "", 0, u.form());
        var entry = new RegistryEntry("copier", COPIER.mac(), COPIER.address(), "", "", "", List.of("Ben"));
        assertThat(said(
                        registry(7, "List", Type.ACCESS_LIST, two),
                        COPIER,
                        entry,
                        entered(1, 7, 2, entry("scanner", "00:00:5E:00:53:20"))))
                .containsExactly(
                        "NO_SHARING! sharedWith: List knows no sharing. Leave the list empty.",
                        "FULL! : List takes 1 entries, and has them. Take one out first.");
        assertThat(said(registry(7, "List", Type.ACCESS_LIST), AWAY, entry("reader", "00:00:5E:00:53:70")))
                .containsExactly("AWAY? : Reader is away. Register it when it is back, or its time runs out.");
    }

    @Test
    void anOutsideServiceWantsTheExactVariant() {
        var u = Rules.usual(Type.SERVICE);
        var rules = new Rules(
                u.naming(),
                40,
                false,
                u.sharing(),
                0,
                u.lifetime(),
                false,
                u.facts(),
                List.of("FA-2 G"),
                "the desk",
                3,
                u.form());
        var service = registry(9, "Fax service", Type.SERVICE, rules);
        assertThat(said(service, FAX, service.proposal(FAX, "", List.of())))
                .containsExactly(
                        "OTHER_MODEL! model: FA-2 N looks like FA-2 G, and is another variant: it ends in “N” instead "
                                + "of “G”. Look at the label on the underside.");
        assertThat(said(service, COPIER, service.proposal(COPIER, "", List.of())))
                .containsExactly("FACT_MISSING! model: Fax service wants its model, which is not on record.");
        assertThat(said(
                        service,
                        FAX,
                        service.proposal(FAX, "", List.of()),
                        entered(
                                1,
                                9,
                                2,
                                new RegistryEntry(
                                        "Scanner", SCANNER.mac(), Optional.empty(), FAX.serial(), "X", "", List.of()))))
                .contains(
                        "SERIAL_TWICE! serial: KX0000004 stands in Fax service for Scanner, as model X. Look at both labels.");
    }

    @DisplayName("The proposal takes the interface and the name that the registry is about")
    @ParameterizedTest(name = "{0} {1}")
    @CsvSource({
        "RESERVATIONS, WIRED, copier, 10",
        "RESERVATIONS, WIRELESS, copier, 11",
        "ACCESS_LIST, WIRELESS, Copier, 11"
    })
    void proposes(Type type, Medium medium, String name, String pair) {
        var registry =
                new Registry(7, "Place", type, Optional.empty(), Optional.of(medium), Set.of(), Rules.usual(type));
        var entry = registry.proposal(COPIER, "", List.of());
        assertThat(entry.name() + " " + entry.mac().orElseThrow()).isEqualTo(name + " 00:00:5E:00:53:" + pair);
    }

    @DisplayName("A registry wants the units that are its business")
    @ParameterizedTest(name = "{0} in segment {1} for {2}: {3}")
    @CsvSource({
        "ACCESS_LIST, 1, '', true",
        "ACCESS_LIST, 2, '', false",
        "ACCESS_LIST, 0, fax-adapter, false",
        "ACCESS_LIST, 0, copier, true",
        "RESERVATIONS, 0, '', true",
        "GUEST_DESK, 0, '', false",
    })
    void wants(Type type, long segment, String kind, boolean wanted) {
        var registry = new Registry(
                7,
                "Place",
                type,
                Optional.of(segment).filter(s -> s > 0),
                Optional.empty(),
                kind.isEmpty() ? Set.of() : Set.of(kind),
                Rules.usual(type));
        assertThat(registry.wants(COPIER)).isEqualTo(wanted);
        assertThat(registry.wants(with(COPIER, false, false, true, ""))).isFalse();
    }

    @DisplayName("Variants that look alike differ by a suffix")
    @ParameterizedTest(name = "{0} for {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "FA-2 G | FA2G         | true  | Model FA2G.",
                "fa2-g  | FA-2 G       | true  | Model FA-2 G.",
                "FA-2   | FA-2 G       | false | FA-2 looks like FA-2 G, and is another variant: it ends in “” instead "
                        + "of “G”. Look at the label on the underside.",
                "QX-9   | FA-2 G, FA-3 | false | QX-9 is not taken; FA-2 G or FA-3 is.",
            })
    void matchesVariants(String model, String taken, boolean fits, String said) {
        assertThat(VariantMatch.of(model, List.of(taken.split(", ")))).isEqualTo(new VariantMatch(fits, said));
    }
}
