package app.knottag.core.register;

import static app.knottag.core.register.RegisterSamples.NOW;
import static app.knottag.core.register.RegisterSamples.entered;
import static app.knottag.core.register.RegisterSamples.entry;
import static app.knottag.core.register.RegisterSamples.registry;
import static app.knottag.core.register.RegisterSamples.unit;
import static app.knottag.core.register.RegisterSamples.with;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind.Label.Read;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.LabelOrder;
import app.knottag.core.register.FactGraph.Place;
import app.knottag.core.register.FactGraph.Sort;
import app.knottag.core.register.LeadTimes.Item;
import app.knottag.core.register.Registry.Fact;
import app.knottag.core.register.Registry.Type;
import app.knottag.core.register.RegistryCompare.Wanted;
import app.knottag.core.register.SwapSheet.Facts;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Duration;
import java.time.LocalDate;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Who holds which fact, what is wrong there, and in which order it is mended. */
class ChainTest {

    private static Place place(String id, Sort sort, Map<Fact, String> holds, String... restsOn) {
        return new Place(id, id, sort, holds, Map.of(), Set.of(restsOn));
    }

    private static FactGraph fax(String registered, String issued, String account) {
        return new FactGraph(List.of(
                place("proof", Sort.PROOF, Map.of(Fact.SERIAL, registered), "account"),
                place("account", Sort.ACCOUNT, Map.of(Fact.ISSUED, account), "service"),
                place("service", Sort.REGISTRY, Map.of(Fact.SERIAL, registered, Fact.ISSUED, issued), "label"),
                place("label", Sort.LABEL, Map.of(Fact.SERIAL, "FA000001"))));
    }

    @DisplayName("One adapter, one issued address, one account: the broken link is named")
    @ParameterizedTest(name = "{0}, {1}, {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "FA000001 | a@fax | a@fax | ''",
                "FA000009 | a@fax | a@fax | service SERIAL, proof SERIAL",
                "FA000001 | b@fax | a@fax | account ISSUED",
                "FA000009 | b@fax | a@fax | service SERIAL, account ISSUED, proof SERIAL",
            })
    void namesTheBrokenLink(String registered, String issued, String account, String broken) {
        assertThat(fax(registered, issued, account).toMend(Map.of(Fact.SERIAL, "FA000001")).stream()
                        .map(l -> l.place() + " " + l.fact()))
                .containsExactly(broken.isEmpty() ? new String[0] : broken.split(", "));
    }

    @Test
    void whatRestsOnAMendedPlaceIsShaken() {
        assertThat(fax("FA000001", "a", "a").shaken(Set.of("service"))).containsExactly("account", "proof");
        assertThat(fax("FA000001", "a", "a").shaken(Set.of("proof"))).isEmpty();
        assertThatThrownBy(() -> new FactGraph(
                        List.of(place("a", Sort.ACCOUNT, Map.of(), "b"), place("b", Sort.ACCOUNT, Map.of(), "a"))))
                .hasMessage("these places rest on one another: a, b");
    }

    @Test
    void aSwapTakesTheOldOutEverywhereBeforeTheNewGoesIn() {
        var steps = SwapSheet.of(
                "Fax",
                new Facts(Optional.of(Mac.parse("00:00:5E:00:53:10")), "FA000001", "FA-2 N"),
                new Facts(Optional.of(Mac.parse("00:00:5E:00:53:20")), "FA000002", "FA-2 N"),
                List.of(
                        new SwapSheet.Held(
                                registry(1, "Router", Type.RESERVATIONS),
                                entered(11, 1, 4, entry("fax", "00:00:5E:00:53:10"))),
                        new SwapSheet.Held(
                                registry(2, "Fax service", Type.SERVICE),
                                entered(12, 2, 4, entry("Fax", "00:00:5E:00:53:10")))),
                "the mail gateway",
                "PGB-F1-X",
                true);
        assertThat(steps.stream().map(s -> s.act() + ": " + s.title()))
                .containsExactly(
                        "UNPLUG: Unplug the old unit",
                        "TAKE_OUT: Take the old one out of Fax service",
                        "TAKE_OUT: Take the old one out of Router",
                        "PUT_IN: Put the new one into Fax service",
                        "PUT_IN: Put the new one into Router",
                        "PARTNER: Give the mail gateway the new serial",
                        "NOTES: Mend the notes of Fax",
                        "TAG: Hang the tag PGB-F1-X on the new unit",
                        "SET_UP: Plug it in and set it up",
                        "PROVE: Prove it");
        assertThat(steps.get(1).detail())
                .isEqualTo("“Fax”, 00:00:5E:00:53:10. Ask the service's desk; it takes 3 days.");
        assertThat(steps.get(3).detail()).isEqualTo("Fax: MAC 00:00:5E:00:53:20, serial FA000002, model FA-2 N.");
        assertThat(steps.get(4).detail()).isEqualTo("Fax: MAC 00:00:5E:00:53:20.");
    }

    @DisplayName("What the registry holds beside what it should hold")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "a 10 1  | AS_WANTED | As it should be.",
                "a 11 1  | DIFFERS   | 00:00:5E:00:53:11 there is another interface of the same box; 00:00:5E:00:53:10 "
                        + "is the one that joins.",
                "a 10 2  | DIFFERS   | The address is 10.0.0.2 there, 10.0.0.1 here.",
                "b 10 1  | DIFFERS   | The name is b there, a here.",
                "a 01 1  | DIFFERS   | 00:00:5E:00:53:01 stands there instead of 00:00:5E:00:53:10. Two figures swapped: 01, expected 10.",
                "a 30 1  | DIFFERS   | 00:00:5E:00:53:30 stands there instead of 00:00:5E:00:53:10. 3 typed, expected 1.",
                "a F0 9  | DIFFERS   | 00:00:5E:00:53:F0 stands there instead of 00:00:5E:00:53:10. F typed, expected "
                        + "1. The address is 10.0.0.9 there, 10.0.0.1 here.",
                "a 99 1  | DIFFERS   | 00:00:5E:00:53:99 stands there instead of 00:00:5E:00:53:10. It belongs to Old "
                        + "copier, which is retired.",
                "a 77 1  | DIFFERS   | 00:00:5E:00:53:77 stands there instead of 00:00:5E:00:53:10. Nobody knows it: an "
                        + "old unit, most likely. Take it out first.",
                "z 21 9  | STRANGER  | It is another interface of Scanner: one box, one entry. Take this one out.",
                "z 20 9  | STRANGER  | It belongs to Scanner.",
                "z 99 9  | STRANGER  | It belongs to Old copier, which is retired.",
                "z 77 9  | STRANGER  | Nobody knows it: an old unit, most likely. Take it out first.",
            })
    void compares(String held, RegistryCompare.Outcome outcome, String said) {
        String[] h = held.split(" ");
        var units = List.of(
                unit(1, "Copier", "WIRED 10*, WIRELESS 11"),
                unit(3, "Scanner", "WIRED 20*, WIRELESS 21"),
                with(unit(2, "Old copier", "WIRED 99*"), false, false, true, ""));
        var lines = new RegistryCompare(registry(1, "Router", Type.RESERVATIONS), RegistryForm.HOST_BLOCKS, units)
                .compare(
                        List.of(new Wanted(1, entry("a", "00:00:5E:00:53:10", "10.0.0.1"))),
                        List.of(new RegistryReader.Read(4, entry(h[0], "00:00:5E:00:53:" + h[1], "10.0.0." + h[2]))));
        assertThat(lines.get(0).outcome() + " " + lines.get(0).said()).isEqualTo(outcome + " " + said);
        assertThat(lines.stream().filter(l -> l.outcome() == RegistryCompare.Outcome.MISSING))
                .hasSize(outcome == RegistryCompare.Outcome.STRANGER ? 1 : 0);
    }

    @DisplayName("Entries that should not stand any more")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "living                  | -",
                "living, retired         | UNIT_RETIRED: “copier” in Portal: Copier is retired. Take it out.",
                "living, other mac       | OTHER_UNIT: “copier” in Portal holds 00:00:5E:00:53:66, which Copier no "
                        + "longer has. Old out first, then the new one in.",
                "living, owner left      | OWNER_LEFT: “copier” in Portal belongs to Ada Lind, who has left. Give it to "
                        + "somebody, or take it out.",
                "over                    | RAN_OUT: “copier” in Portal has run out. Renew it or take it out.",
                "over, away              | ENDED_WHILE_AWAY: “copier” in Portal ended while Copier is away. Register it "
                        + "again before it comes back, or it will not join.",
                "living, silent          | NOT_SEEN: “copier” in Portal: Copier was not seen for 70 days. Is it still "
                        + "there? Take it out if not.",
                "living, silent, away    | -",
                "out, retired            | -",
            })
    void cleansUp(String what, String expected) {
        var entry = new RegistryEntry(
                "copier",
                Optional.of(Mac.parse("00:00:5E:00:53:" + (what.contains("other mac") ? "66" : "10"))),
                Optional.empty(),
                "",
                "",
                what.contains("owner left") ? "Ada Lind" : "Ben",
                List.of());
        var r = entered(1, 7, 1, entry);
        var registration = new Registration(
                1,
                7,
                1,
                entry,
                r.askedAt(),
                r.enteredAt(),
                r.restartedAt(),
                what.contains("over") ? Optional.of(NOW) : Optional.empty(),
                what.contains("out,") ? Optional.of(NOW) : Optional.empty());
        var unit = with(unit(1, "Copier", "WIRED 10*"), false, what.contains("away"), what.contains("retired"), "");
        var items = CleanUp.of(
                Map.of(7L, registry(7, "Portal", Type.PORTAL)),
                List.of(registration),
                Map.of(1L, unit),
                new CleanUp.Known(
                        Set.of("ada lind"),
                        Map.of(1L, NOW.minusSeconds(86_400L * (what.contains("silent") ? 70 : 3))),
                        60),
                NOW);
        assertThat(items.stream()
                        .map(i -> i.reason() + ": " + i.message() + " " + i.wayOut())
                        .findFirst())
                .isEqualTo(Optional.ofNullable(expected));
    }

    private static final List<Item> ITEMS = List.of(
            new Item("Key file", "payment desk", 10, "", false),
            new Item("Terminal", "supplier", 5, "", false),
            new Item("Key stick", "courier", 2, "Key file", false),
            new Item("Wall point", "electrician", 7, "", false));

    @Test
    void theLongestChainDecidesTheVisit() {
        var today = LocalDate.of(2026, 11, 25);
        var plan = LeadTimes.of(ITEMS, Optional.of(LocalDate.of(2026, 12, 8)), 1, today);
        assertThat(plan.items().stream()
                        .map(o -> o.item().name() + " " + o.by().orElseThrow() + (o.late() ? " late" : "")))
                .containsExactly(
                        "Key file 2026-11-25", "Wall point 2026-11-30", "Terminal 2026-12-02", "Key stick 2026-12-05");
        assertThat(plan.chain()).containsExactly("Key file", "Key stick");
        assertThat(plan.earliest()).isEqualTo(LocalDate.of(2026, 12, 8));
        var late = LeadTimes.of(ITEMS, Optional.of(LocalDate.of(2026, 12, 1)), 1, today);
        assertThat(late.items().stream()
                        .filter(LeadTimes.OrderBy::late)
                        .map(o -> o.item().name()))
                .containsExactly("Key file", "Wall point");
        var done = List.of(new Item("Key file", "", 10, "", true), new Item("Key stick", "", 2, "Key file", false));
        assertThat(LeadTimes.of(done, Optional.empty(), 0, today).earliest()).isEqualTo(today.plusDays(2));
        assertThat(LeadTimes.of(List.of(), Optional.empty(), 0, today).earliest())
                .isEqualTo(today);
    }

    @DisplayName("Waiting in a circle, or for nothing, is said")
    @ParameterizedTest(name = "{0} after {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "a b | b a | These wait for one another:",
                "a x | b - | a waits for “x”, which is not in the list.",
            })
    void refusesCircles(String one, String two, String said) {
        var items = List.of(item(one), item(two));
        assertThatThrownBy(() -> LeadTimes.of(items, Optional.empty(), 0, LocalDate.of(2026, 11, 25)))
                .hasMessageStartingWith(said);
    }

    private static Item item(String text) {
        String[] p = text.split(" ");
        return new Item(p[0], "", 1, p[1].equals("-") ? "" : p[1], false);
    }

    @Test
    void whatIsHiddenFirstIsReadFirst() {
        var kind = Kinds.shipped().get("counter-payment-terminal");
        assertThat(LabelOrder.of(kind, Set.of(), Set.of("unpack")).stream()
                        .map(d -> d.fact() + " before “" + d.before() + "”"))
                .containsExactly(
                        "MAC before “Wire it, power last”",
                        "SERIAL before “Wire it, power last”",
                        "MODEL before “Wire it, power last”");
        assertThat(LabelOrder.of(Kinds.shipped().get("copier"), Set.of(), Set.of()))
                .as("inside its front door for good")
                .extracting(LabelOrder.ToRead::before)
                .containsExactly("", "");
        assertThat(LabelOrder.of(kind, EnumSet.of(Read.MAC), Set.of("wire")))
                .first()
                .isEqualTo(new LabelOrder.ToRead(
                        Read.SERIAL, "On the underside, beside the battery door", "Wire it, power last", true));
    }

    @Test
    void remindersSayWhatIsNext() {
        var service = registry(2, "Fax service", Type.SERVICE);
        var fax = unit(4, "Fax", "WAN 10*");
        var right = new RegistryEntry("Fax", fax.mac(), fax.address(), fax.serial(), "", "", List.of());
        var asked = new Registration(
                5,
                2,
                4,
                right,
                Optional.of(NOW),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                Optional.empty());
        var stale = entered(6, 2, 4, entry("Fax", "00:00:5E:00:53:66"));
        var list = Reminders.of(
                List.of(
                        new Reminders.Subject(service, asked, fax, right),
                        new Reminders.Subject(service, stale, fax, right)),
                List.of(new Reminders.Missing(registry(1, "Router", Type.RESERVATIONS), fax)),
                new SiteClock(NOW, LifetimeTest.BERLIN, DateStyle.WORDS));
        assertThat(list.stream().map(r -> r.key() + " " + r.at() + " " + r.title() + ": " + r.detail()))
                .containsExactly(
                        "register-1-4 2026-11-25T12:00:00Z Register Fax in Router: ",
                        "correct-6 2026-11-25T12:00:00Z Correct Fax in Fax service: It holds an old MAC and an old serial.",
                        "ask-5 2026-11-28T08:00:00Z Ask the service's desk about Fax: Handed in to Fax service; it takes 3 days.");
    }

    @DisplayName(
            "What is alike for more than a dozen units on one day is one line, so that nobody is shown it five thousand times")
    @ParameterizedTest(name = "{0} units, {1} of them a day later")
    @CsvSource(
            delimiter = '|',
            value = {
                "2 | 0 | Register Unit 1 in Router. Register Unit 2 in Router",
                "13 | 0 | Register 13 units in Router: Unit 1, Unit 2, Unit 3 and 10 more.",
                "14 | 1 | Register 13 units in Router: Unit 1, Unit 2, Unit 3 and 10 more. Register Unit 14 in Router",
                "5000 | 0 | Register 5000 units in Router: Unit 1, Unit 2, Unit 3 and 4997 more.",
            })
    void manyAlikeAreOne(int units, int later, String said) {
        var router = registry(1, "Router", Type.RESERVATIONS);
        var all = IntStream.rangeClosed(1, units)
                .mapToObj(n -> new Reminders.Reminder(
                        "register-1-" + n,
                        Reminders.What.REGISTER,
                        n > units - later ? NOW.plus(Duration.ofDays(1)) : NOW,
                        1,
                        null,
                        n,
                        "Unit " + n,
                        "Register Unit " + n + " in Router",
                        ""))
                .toList();
        var bundled = Reminders.bundled(all, Map.of(1L, router), Set.of(), LifetimeTest.BERLIN);
        assertThat(String.join(
                        " ",
                        bundled.stream()
                                .map(r -> r.title() + (r.detail().isEmpty() ? "." : ": " + r.detail()))
                                .toList()))
                .isEqualTo(said.endsWith(".") ? said : said + ".");
        assertThat(bundled.stream().map(Reminders.Reminder::key)).doesNotHaveDuplicates();
        assertThat(Reminders.bundled(
                        all.subList(0, Math.min(12, units)), Map.of(1L, router), Set.of(), LifetimeTest.BERLIN))
                .as("a dozen are read one by one")
                .hasSameSizeAs(all.subList(0, Math.min(12, units)));
        if (units > 12 && later == 0)
            assertThat(Reminders.bundled(all, Map.of(1L, router), Set.of(1L), LifetimeTest.BERLIN))
                    .extracting(r -> r.title() + ": " + r.detail())
                    .containsExactly("Register many units in Router: Unit 1, Unit 2, Unit 3 and others.");
    }
}
