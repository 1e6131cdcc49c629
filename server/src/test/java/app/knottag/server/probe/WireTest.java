package app.knottag.server.probe;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.parallel.ExecutionMode.CONCURRENT;

import app.knottag.core.reach.Answer;
import app.knottag.core.reach.Diagnosis;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.FaultBook;
import app.knottag.core.reach.NetworkState;
import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.Question;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.concurrent.ArrayBlockingQueue;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.LockSupport;
import java.util.stream.Collectors;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ResourceAccessMode;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

/** The product's probes and its model on real wires, with faults that are made for real. */
@Tag("wire")
@Execution(CONCURRENT)
class WireTest {

    private static final int BEDS = 2;
    private static final BlockingQueue<Place> PLACES = new ArrayBlockingQueue<>(BEDS);

    /** A bed with somebody who looks. */
    private record Place(Bed bed, Eyes here, Eyes there) {}

    @BeforeAll
    static void beds() throws IOException {
        String problem = Namespaces.problem();
        if (!problem.isEmpty()) System.out.println("NOT RUN: " + problem);
        Assumptions.assumeTrue(problem.isEmpty(), problem);
        for (int n = 0; n < BEDS; n++) {
            var bed = new Bed("" + n);
            PLACES.add(new Place(bed, new Eyes(bed, "here", ""), new Eyes(bed, "there", "")));
            bed.waitForServers();
        }
    }

    @AfterAll
    static void cleared() throws IOException {
        for (var place : PLACES) {
            place.here().close();
            place.there().close();
            place.bed().close();
        }
        if (ENDS.isEmpty()) return;
        int all = ENDS.values().stream().mapToInt(Integer::intValue).sum();
        System.out.println("| faults on the wire that end at their cause | " + ENDS + " of " + all + " |");
        assertThat(ENDS.getOrDefault("WRONG", 0)).as("found, and wrong").isZero();
        assertThat(ENDS.getOrDefault("right", 0) + ENDS.getOrDefault("near", 0))
                .as("at least 95 of 100 end at their cause")
                .isGreaterThanOrEqualTo((int) Math.ceil(0.95 * all));
    }

    private static Map<String, String> questions(List<String> said) {
        var questions = new TreeMap<String, String>();
        for (String line : said) if (line.startsWith("LOOK ")) questions.put(line.split(" ")[1], line.split(" ")[2]);
        return questions;
    }

    @DisplayName("What a machine sees on the wire is what the model says, for every fault")
    @ParameterizedTest(name = "{0}")
    @EnumSource(WireFault.class)
    @ResourceLock(value = NEIGHBOUR_TABLE, mode = ResourceAccessMode.READ)
    void heldToTheWire(WireFault fault) throws InterruptedException, IOException {
        visit(place -> {
            fault.make(place.bed());
            var differ = new ArrayList<String>();
            compare(fault, "here", place.here().ask("checks"), FromThere.INTENDED_HERE, differ);
            if (fault != WireFault.LOOKED_FROM_ELSEWHERE)
                compare(fault, "there", place.there().ask("checks"), FromThere.INTENDED_THERE, differ);
            search(fault, place.here().ask("checks"));
            assertThat(differ).isEmpty();
        });
    }

    /** The kernel keeps one for all namespaces, and a sweep of a /22 fills it. */
    private static final String NEIGHBOUR_TABLE = "neighbour table";

    /** Answers only what is asked: what a machine sees from the wire, what eyes see as the fault says it. */
    private static void search(WireFault fault, List<String> said) {
        var made = new ArrayList<Made>();
        questions(said).forEach((name, seen) -> made.add(new Made(Question.valueOf(name), Outcome.valueOf(seen))));
        int measured = made.size();
        var eyes = Arrays.stream(fault.eyes.split(" "))
                .filter(w -> !w.isEmpty())
                .map(Answer::valueOf)
                .collect(Collectors.toMap(Answer::question, Answer::outcome));
        var meant = fault == WireFault.KEPT_APART ? FromThere.INTENDED_WIRELESS : FromThere.INTENDED_HERE;
        var verdict = Diagnosis.of(meant, FaultBook.shipped(), made);
        while (verdict.next().isPresent()) {
            var question = verdict.next().get().question();
            made.add(new Made(
                    question, eyes.getOrDefault(question, question.outcomes().get(0))));
            verdict = Diagnosis.of(meant, FaultBook.shipped(), made);
        }
        var first = verdict.suspects().get(0);
        boolean right = first.faults().equals(List.of(fault.fault));
        boolean near = verdict.suspects().stream()
                .anyMatch(s -> s.group() == first.group() && s.faults().equals(List.of(fault.fault)));
        String end = right ? "right" : near ? "near" : verdict.found() ? "WRONG" : "open";
        ENDS.merge(end, 1, Integer::sum);
        System.out.printf(
                "| %-22s | %-5s | %s %.2f after %s%n",
                fault,
                end,
                first.faults(),
                first.probability(),
                made.subList(measured, made.size()).stream()
                        .map(m -> m.question() + "=" + m.outcome())
                        .collect(Collectors.joining(" ")));
    }

    private static final Map<String, Integer> ENDS = new ConcurrentHashMap<>();

    private static void compare(
            WireFault fault, String from, List<String> said, NetworkState intended, List<String> differ) {
        var state = fault.fault.ways(intended).get(fault.way);
        var row = new ArrayList<String>();
        questions(said).forEach((name, seen) -> {
            var question = Question.valueOf(name);
            int shown = state.observe(question);
            String model = shown == NetworkState.ANYTHING
                    ? "?"
                    : question.outcomes().get(shown).name();
            row.add(name + "=" + seen
                    + (model.equals(seen) ? "" : model.equals("?") ? "(?)" : "(model: " + model + ")"));
            if (!model.equals(seen) && !model.equals("?"))
                differ.add(from + " " + name + ": the wire shows " + seen + ", the model says " + model);
        });
        System.out.printf("| %-22s | %-5s | %s |%n", fault, from, row.stream().collect(Collectors.joining(" ")));
        if (!differ.isEmpty())
            said.stream().filter(l -> !l.startsWith("LOOK")).forEach(l -> System.out.println("      " + l));
    }

    /** A test that has a bed to itself for a while. */
    private interface Visit {
        void to(Place place) throws IOException, InterruptedException;
    }

    private static void visit(Visit visit) throws InterruptedException, IOException {
        var place = PLACES.take();
        try {
            visit.to(place);
        } finally {
            try {
                place.bed().heal();
            } finally {
                PLACES.add(place);
            }
        }
    }

    @DisplayName("Servers are believed what they say, whatever state they are in")
    @Test
    @ResourceLock(value = NEIGHBOUR_TABLE, mode = ResourceAccessMode.READ)
    void servers() throws InterruptedException, IOException {
        visit(place -> {
            var here = place.here();
            var bed = place.bed();
            for (String row : List.of(
                    "HTTPS pay.cards.example 443 / | PASSED Its page answers (200). Its certificate is good",
                    "HTTPS pay.cards.example 443 /signin | PASSED Its page answers, and asks for a sign-in (401).",
                    "HTTPS pay.cards.example 443 /forbidden | FAILED Its page does not let this machine in (403).",
                    "HTTPS pay.cards.example 443 /broken | FAILED Its page answers with an error of its own (503).",
                    "HTTPS pay.cards.example 8441 / | FAILED Its certificate is not taken: it ended on 2021-01-01.",
                    "HTTPS pay.cards.example 8442 / | FAILED Its certificate is not taken: nobody known has signed it.",
                    "HTTPS pay.cards.example 8443 / | FAILED Its certificate is not taken: it is not for pay.cards.example.",
                    "HTTP pay.cards.example 443 / | FAILED It does not understand the question (400).",
                    "HTTPS pay.cards.example 80 / | FAILED pay.cards.example port 80 answers, but not as",
                    "HTTPS gone.cards.example 443 / | FAILED No resolver knows the name gone.cards.example.",
                    "SMTP mail.cards.example 587 | PASSED The mail server greets, upgrades to TLS and offers a sign-in.",
                    "SMTP mail.cards.example 465 | PASSED The mail server greets, upgrades to TLS and offers a sign-in.",
                    "SMTP mail.cards.example 25 | FAILED The mail server offers no upgrade to TLS.",
                    "NTP time.cards.example 123 | PASSED Its time and ours are",
                    "DNS 10.80.16.1 53 | PASSED 10.80.16.1 knows names.",
                    "DNS 10.80.16.61 53 | FAILED 10.80.16.61 port 53 refuses: nothing listens there.",
                    "IPP 10.80.16.60 631 | PASSED It is ready to print.",
                    "RAW_PRINT 10.80.16.60 9100 | PASSED It takes print data.",
                    "FILE 10.80.16.61 445 | PASSED It offers shared folders",
                    "FILE 10.80.16.99 445 | FAILED 10.80.16.99 port 445 stays silent",
                    "FILE 10.80.16.72 445 | FAILED There is no way from here to 10.80.16.72 port 445.")) {
                String[] parts = row.split(" \\| ");
                assertThat(here.ask("talk " + parts[0]).get(0))
                        .as(parts[0])
                        .startsWith(parts[1])
                        .as("all of them go by the clock of this machine")
                        .doesNotContain("Its clock is");
            }
            bed.copier("Stopped", "media-empty-error");
            assertThat(here.ask("talk IPP 10.80.16.60 631").get(0))
                    .startsWith("FAILED It has stopped:")
                    .contains("media empty error");
            bed.time("");
            Thread.sleep(800);
            assertThat(here.ask("talk NTP time.cards.example 123").get(0))
                    .startsWith("FAILED It answers, but its own clock is set by nothing");
            bed.mail("defer message = 421 busy");
            assertThat(here.ask("talk SMTP mail.cards.example 587").get(0))
                    .startsWith("FAILED The mail server puts off");
            bed.mail("deny message = not from there");
            assertThat(here.ask("talk SMTP mail.cards.example 587").get(0))
                    .startsWith("FAILED The mail server refuses for good");
            bed.net.sh("router", Bed.drop("udp dport 53"));
            assertThat(here.ask("talk DNS 10.80.16.1 53").get(0))
                    .isEqualTo("FAILED 10.80.16.1 answers over TCP only; devices ask over UDP.");
            bed.copier("Idle", "");
            bed.time(Bed.OWN_TIME);
            bed.mail("accept");
        });
    }

    @DisplayName("Every manner of device is told: who is there, with which MAC, and how its port answers")
    @Test
    @ResourceLock(value = NEIGHBOUR_TABLE, mode = ResourceAccessMode.READ)
    void manners() throws InterruptedException, IOException {
        visit(place -> {
            for (String row : List.of(
                    "10.80.16.54 ANSWERED [00:00:5E:00:53:2B] OPEN",
                    "10.80.16.73 SILENT [00:00:5E:00:53:73] OPEN",
                    "10.80.16.71 ANSWERED [00:00:5E:00:53:71] REFUSED",
                    "10.80.16.72 UNREACHABLE [00:00:5E:00:53:72] UNREACHABLE",
                    "10.80.16.70 SILENT [00:00:5E:00:53:70] SILENT",
                    "10.80.16.99 SILENT [] SILENT",
                    "10.80.17.250 ANSWERED [] REFUSED",
                    // A router says so now and then only, so a port behind it may seem silent.
                    "10.80.18.9 UNREACHABLE [] -")) {
                String[] w = row.split(" ");
                assertThat(place.here().ask("echo " + w[0]).get(0)).as(row).isEqualTo(w[1]);
                assertThat(place.here().ask("whois " + w[0]).get(0)).as(row).contains("macs=" + w[2]);
                if (!w[3].equals("-"))
                    assertThat(place.here().ask("port " + w[0] + " 7454").get(0))
                            .as(row)
                            .isEqualTo(w[3]);
            }
        });
    }

    private static final String THERE =
            "10.80.16.1 01, 10.80.16.34 94, 10.80.16.54 2B, 10.80.16.55 55, 10.80.16.60 60, 10.80.16.61 61, 10.80.16.70 "
                    + "70, 10.80.16.71 71, 10.80.16.72 72, 10.80.16.73 73, 10.80.16.215 75";

    private static List<String> there(List<String> said) {
        return said.stream()
                .filter(l -> l.startsWith("THERE ") && !l.contains("10.80.16.250"))
                .map(l -> l.replaceAll("THERE |00:00:5E:00:53:|[\\[\\]]", ""))
                .toList();
    }

    @DisplayName("A sweep finds all who are there and nobody else, two at one address, and who speaks IPv6 only")
    @Test
    @ResourceLock(value = NEIGHBOUR_TABLE, mode = ResourceAccessMode.READ)
    void sweeps() throws InterruptedException, IOException {
        visit(place -> {
            // IPv6 first makes sure that nobody else has an address (RFC 4862), for a second or two.
            Thread.sleep(2_500);
            var first = place.here().ask("sweep shop");
            assertThat(there(first)).containsExactly(THERE.split(", "));
            assertThat(first).contains("SIX [00:00:5E:00:53:76]", "HOW by the question for its MAC");
            place.bed().stranger();
            assertThat(there(place.here().ask("sweep shop"))).contains("10.80.16.54 2B, 4E");
            var routed = there(place.there().ask("sweep shop"));
            assertThat(routed).contains("10.80.16.61 ").doesNotContain("10.80.16.70 ", "10.80.16.73 ");
            try (var bare = new Eyes(place.bed(), "here", "-net_raw,-net_admin")) {
                assertThat(bare.ask("echo 10.80.16.61")).containsExactly("NOT_ALLOWED");
                assertThat(bare.ask("whois 10.80.16.61").get(0))
                        .contains("00:00:5E:00:53:61")
                        .contains("TABLE");
                var by = bare.ask("sweep shop");
                assertThat(by).contains("HOW by this machine's own table, which keeps one answerer");
                assertThat(there(by)).contains("10.80.16.1 01", "10.80.16.61 61", "10.80.16.34 94");
                assertThat(List.of(THERE.replace(" 2B", " 4E").split(", ")).containsAll(there(by))
                                || List.of(THERE.split(", ")).containsAll(there(by)))
                        .as("nobody who is not there: " + there(by))
                        .isTrue();
            }
        });
    }

    @DisplayName("What a real client is handed is what the model says of a laptop on automatic")
    @ParameterizedTest(name = "{0}")
    @CsvSource({"NOTHING", "DHCP_DOWN", "DHCP_FULL", "DHCP_SECOND"})
    @ResourceLock(value = NEIGHBOUR_TABLE, mode = ResourceAccessMode.READ)
    void leases(Fault fault) throws InterruptedException, IOException {
        visit(place -> {
            var bed = place.bed();
            switch (fault) {
                case DHCP_DOWN -> bed.net.stop("router", "dns");
                case DHCP_FULL -> {
                    bed.routerServices("10.80.16.238,10.80.16.238", " --no-ping");
                    assertThat(bed.lease("00:00:5e:00:53:a1")).isEqualTo("10.80.16.238");
                }
                case DHCP_SECOND -> {
                    // Of two, the one that answers first is taken.
                    bed.routerServices("10.80.16.200,10.80.16.239", " --no-ping --dhcp-reply-delay=2");
                    bed.secondServer();
                }
                default -> {}
            }
            String lease = bed.lease("00:00:5e:00:53:a2");
            String sort = lease.startsWith("10.80.16.") ? "POOL" : lease.equals("none") ? "SELF" : "FOREIGN";
            var state = fault.apply(FromThere.INTENDED_HERE);
            assertThat(sort)
                    .as("%s hands out %s", fault, lease)
                    .isEqualTo(Question.LAPTOP_LEASE
                            .outcomes()
                            .get(state.observe(Question.LAPTOP_LEASE))
                            .name());
        });
    }

    @DisplayName(
            "A /24 and a /22 of silence take at most one and a half times the time-out, and the kernel's table carries it")
    @Test
    @ResourceLock(NEIGHBOUR_TABLE)
    void largeSweeps() throws InterruptedException, IOException {
        visit(place -> {
            place.bed().net.ip("here", "addr add 10.90.20.2/22 dev eth0");
            for (String prefix : List.of("10.90.20.0/24", "10.90.20.0/22")) {
                place.here().ask("sweep 10.90.23.0/29");
                var said = place.here().ask("sweep " + prefix);
                assertThat(there(said))
                        .containsExactly("10.90.20.2 "
                                + place.here().ask("whois 10.90.20.2").get(0).replaceAll(".*\\[|\\].*", ""));
                System.out.printf("| sweep of %s, all silent | %s | wanted < 1650 ms |%n", prefix, said.get(0));
                Thread.sleep(4_000);
            }
        });
    }

    @DisplayName("One's own cable goes in the middle of a run or a sweep: nobody is blamed")
    @Test
    @ResourceLock(value = NEIGHBOUR_TABLE, mode = ResourceAccessMode.READ)
    void ownLink() throws InterruptedException, IOException {
        visit(place -> {
            var bed = place.bed();
            var pulled = new Thread(() -> {
                LockSupport.parkNanos(500_000_000);
                bed.net.ip("switch", "link set " + bed.herePort + " down");
            });
            bed.net.ip("switch", "link set " + bed.terminalPort + " down");
            pulled.start();
            var checks = place.here().ask("checks");
            pulled.join();
            assertThat(checks)
                    .filteredOn(l -> l.startsWith("CHECK") && l.contains("FAILED"))
                    .isNotEmpty()
                    .allMatch(l -> l.contains("This machine's own network changed in the middle"));
        });
    }

    @DisplayName("A relay takes the report as it is written; what it refuses, and a line that is not safe, is told")
    @Test
    void relay() throws InterruptedException, IOException {
        visit(place -> {
            var here = place.here();
            assertThat(here.ask("hand 198.51.100.25 25 plain imke@cards.example,joris@cards.example"))
                    .containsExactly("");
            var mail = place.bed().box();
            assertThat(mail)
                    .contains("Envelope-to: imke@cards.example", "Envelope-to: joris@cards.example")
                    .contains("From: knot@cards.example", "The end, after a line of a period alone.")
                    .contains("Subject: =?UTF-8?Q?Knot_Tag,_1_Dec_2026:_2_new_at_Gr=C3=BCne_Scheune?=");
            for (String row : List.of(
                    "hand 198.51.100.25 25 plain nobody@cards.example | nobody reads that here",
                    "hand 198.51.100.25 25 plain imke@else.example | relay not permitted",
                    "hand 198.51.100.25 25 secured imke@cards.example | STARTTLS",
                    "hand 198.51.100.25 587 secured imke@cards.example | No subject alternative names",
                    "hand 198.51.100.25 26 plain imke@cards.example | refused")) {
                var parts = row.split(" \\| ");
                assertThat(here.ask(parts[0]).get(0))
                        .as(row)
                        .contains(" did not take the mail: ")
                        .containsIgnoringCase(parts[1]);
            }
        });
    }

    @DisplayName("A router and a switch are read: who hangs at which port, and who was near; wrong words are told")
    @Test
    @ResourceLock(value = NEIGHBOUR_TABLE, mode = ResourceAccessMode.READ)
    void gear() throws InterruptedException, IOException {
        visit(place -> {
            var bed = place.bed();
            var here = place.here();
            // An agent tells of what it looked at up to a quarter of a minute ago.
            bed.net.ip("router", "link set wan down");
            bed.net.sh("router", "for a in 54 34 99; do ping -c 1 -W 1 10.80.16.$a; done; true");
            bed.agents();
            for (String access : List.of("shopwords", "reader SHA correcthorse AES batterystaple")) {
                var router = here.ask("gear 10.80.16.1 " + access);
                assertThat(router)
                        .contains("NEAR 10.80.16.54 00:00:5E:00:53:2B", "NEAR 10.80.16.34 00:00:5E:00:53:94")
                        .noneMatch(l -> l.startsWith("NEAR 10.80.16.99"))
                        .contains("PORT shop UP FULL 10000 []", "PORT wan SWITCHED_OFF UNKNOWN 0 []");
                var wires = here.ask("gear 10.80.16.2 " + access);
                assertThat(wires)
                        .contains("PORT " + bed.terminalPort + " UP FULL 10000 [00:00:5E:00:53:2B]")
                        .contains("PORT " + bed.partnerPort + " UP FULL 10000 [00:00:5E:00:53:94]");
            }
            assertThat(here.ask("gear 10.80.16.1 otherwords").get(0))
                    .startsWith("SILENT 10.80.16.1 did not answer.")
                    .contains("is the community right?");
            assertThat(here.ask("gear 10.80.16.99 shopwords").get(0)).startsWith("SILENT 10.80.16.99 did not answer.");
            assertThat(here.ask("gear 10.80.16.1 nobody SHA correcthorse AES batterystaple"))
                    .containsExactly("SILENT 10.80.16.1 knows no such user.");
            assertThat(here.ask("gear 10.80.16.1 reader SHA wronghorse AES batterystaple")
                            .get(0))
                    .startsWith("SILENT ")
                    .contains("password");
            bed.net.stop("router", "agent");
            bed.net.stop("switch", "agent");
            bed.net.ip("switch", "addr del 10.80.16.2/24 dev shop");
        });
    }
}
