package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.kind.Protocol;
import app.knottag.core.knot.Knot;
import app.knottag.core.reach.Heard.Ending;
import app.knottag.core.reach.Probes.Call;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What services say, and what it means to somebody who stands before the device. */
class ServiceJudgeTest {

    private static final Instant NOW = Instant.parse("2026-06-01T10:00:00Z");

    private static ServiceJudge.Judgement judge(Protocol protocol, Heard heard) {
        return ServiceJudge.judge(new Call(protocol, "10.44.16.1", 587, "", List.of(), List.of()), heard, NOW);
    }

    @DisplayName("Every refusal of a mail server names one field to change, and whether to try again")
    @ParameterizedTest(name = "{0} at {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "421 | the greeting       | FRAYED | Nothing to change: try again after 5, 15 and 45 minutes, then call. | 5",
                "454 | the upgrade to TLS | FRAYED | Nothing to change: try again after 5, 15 and 45 minutes, then call. | 5",
                "530 | the sender         | FRAYED | Change security: switch the upgrade to TLS on. |",
                "535 | the sign-in        | FRAYED | Change the sign-in: user name or password, or a sign-in made for devices. |",
                "550 | the sender         | FRAYED | Change the recipient or the sender: the server does not say which of the two it means. |",
                "552 | the message        | FRAYED | Change the scan: smaller, or black and white; it is too large. |",
                "554 | the greeting       | FRAYED | Change the relay: this one does not take mail from here. |",
                "502 | the upgrade to TLS | FRAYED | Change the port: what answers there does not speak as a device needs. 587 with upgrade, or 465 secure. |",
            })
    void mail(int code, String step, Knot knot, String remedy, Integer minutes) {
        var judged = judge(Protocol.SMTP, Heard.answered(step, code, List.of(code + " no")));
        assertThat(judged.knot()).isEqualTo(knot);
        assertThat(judged.remedy()).isEqualTo(remedy);
        assertThat(judged.seen()).contains("at " + step).contains("“" + code + " no”");
        assertThat(judged.retry()).isEqualTo(Optional.ofNullable(minutes).map(Duration::ofMinutes));
    }

    @DisplayName("What else is heard is judged in plain words")
    @ParameterizedTest(name = "{0} {1} {2} {3}: {5}")
    @CsvSource(
            delimiter = '|',
            value = {
                "SMTP  | ANSWERED | 250 | 250-STARTTLS;250 AUTH PLAIN | TIGHT  | The mail server greets, upgrades to TLS and offers a sign-in.",
                "SMTP  | ANSWERED | 250 | 250 SIZE 1000               | FRAYED | The mail server offers no upgrade to TLS.",
                "HTTP  | ANSWERED | 200 | hello                       | TIGHT  | Its page answers (200).",
                "HTTP  | ANSWERED | 302 | https://elsewhere.example/  | TIGHT  | Its page sends on: “https://elsewhere.example/”, which is not followed.",
                "HTTP  | ANSWERED | 404 |                             | TIGHT  | It answers, with no page of its own at the top (404).",
                "HTTP  | ANSWERED | 400 |                             | FRAYED | It does not understand the question (400).",
                "HTTP  | ANSWERED | 403 |                             | FRAYED | Its page does not let this machine in (403).",
                "HTTP  | ANSWERED | 401 |                             | TIGHT  | Its page answers, and asks for a sign-in (401).",
                "HTTP  | ANSWERED | 503 |                             | FRAYED | Its page answers with an error of its own (503).",
                "DNS   | ANSWERED | 0   |                             | TIGHT  | 10.44.16.1 knows names.",
                "DNS   | ANSWERED | 2   |                             | FRAYED | 10.44.16.1 answers, but finds nothing: its own line may be down.",
                "DNS   | ANSWERED | 5   |                             | FRAYED | 10.44.16.1 answers, but looks nothing up: it refuses, or has nobody to ask.",
                "IPP   | ANSWERED | 1030| /ipp/print                  | FRAYED | It has no printer at that path: “/ipp/print”.",
                "IPP   | ANSWERED | 1287|                             | FRAYED | It does not tell its state (status 1287).",
                "FILE  | ANSWERED | 0   | dialect 3.1.1               | TIGHT  | It offers shared folders: “dialect 3.1.1”.",
                "RAW_PRINT | ANSWERED | 0 |                           | TIGHT  | It takes print data.",
                "SMTP  | SILENT   | 0   |                             | FRAYED | 10.44.16.1 port 587 stays silent.",
                "FILE  | REFUSED  | 0   |                             | FRAYED | 10.44.16.1 port 587 refuses: nothing listens there.",
                "FILE  | STRANGE  | 0   | x\u001b[2J<b>               | FRAYED | 10.44.16.1 port 587 answers, but not as shared folders does: “x?[2J<b>”.",
                "SMTP  | NAME_UNKNOWN | 0 |                           | FRAYED | No resolver knows the name 10.44.16.1.",
            })
    void judges(Protocol protocol, Ending ending, int code, String lines, Knot knot, String seen) {
        var said = lines == null ? List.<String>of() : List.of(lines.split(";"));
        var judged = judge(protocol, new Heard(ending, "", code, said, Optional.empty(), Optional.empty()));
        assertThat(judged.seen()).isEqualTo(seen);
        assertThat(judged.knot()).isEqualTo(knot);
        assertThat(judged.remedy().isEmpty()).isEqualTo(knot == Knot.TIGHT);
    }

    @DisplayName("A certificate that ends soon or is not taken is said so, and time is compared")
    @Test
    void certificatesAndTime() {
        var page = Heard.answered(200, List.of());
        assertThat(judge(Protocol.HTTPS, page.secured(new Heard.Certificate(NOW.plus(Duration.ofDays(90)), "")))
                        .seen())
                .isEqualTo("Its page answers (200). Its certificate is good until 30 Aug 2026.");
        assertThat(judge(Protocol.HTTPS, page.secured(new Heard.Certificate(NOW.plus(Duration.ofDays(5)), "")))
                        .seen())
                .endsWith("Its certificate ends on 6 Jun 2026: have it renewed now.");
        var refused = judge(Protocol.HTTPS, page.secured(new Heard.Certificate(NOW, "it ended on 2026-05-01")));
        assertThat(refused.seen()).isEqualTo("Its certificate is not taken: it ended on 2026-05-01.");
        assertThat(refused.remedy()).contains("never switch the check off");
    }

    @DisplayName("What a server says of itself decides, not that it answers")
    @ParameterizedTest(name = "{0} {1}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "NTP | -40 2 0               | TIGHT  | Its time and ours are -40 ms apart.",
                "NTP | 3600000 2 0           | FRAYED | Its time and ours are 3600 s apart.",
                "NTP | 0 16 3                | FRAYED | It answers, but its own clock is set by nothing (stratum 16).",
                "NTP | 0 0 3                 | FRAYED | It answers, but its own clock is set by nothing.",
                "NTP | 0 3 3                 | FRAYED | It answers, but its own clock is set by nothing (stratum 3).",
                "IPP | 3 true                | TIGHT  | It is ready to print.",
                "IPP | 4 true media-low-warning | TIGHT | It is ready to print, but warns: media low warning.",
                "IPP | 5 true media-empty-error | FRAYED | It has stopped: media empty error.",
                "IPP | 3 true door-open-error | FRAYED | It can print nothing just now: door open error.",
                "IPP | 3 true paused         | FRAYED | It can print nothing just now: paused.",
                "IPP | 3 false               | FRAYED | It takes no jobs just now.",
                "DNS | true                  | TIGHT  | 10.44.16.1 knows names.",
                "DNS | false                 | FRAYED | 10.44.16.1 answers over TCP only; devices ask over UDP.",
            })
    void ownWord(Protocol protocol, String told, Knot knot, String seen) {
        String[] w = told.split(" ");
        Heard.Detail detail = switch (protocol) {
            case NTP ->
                new Heard.Time(Duration.ofMillis(Long.parseLong(w[0])), Integer.parseInt(w[1]), Integer.parseInt(w[2]));
            case IPP ->
                new Heard.Printer(Integer.parseInt(w[0]), List.of(w).subList(2, w.length), Boolean.parseBoolean(w[1]));
            default -> new Heard.Names(Boolean.parseBoolean(w[0]));
        };
        var judged = judge(protocol, Heard.answered(0, List.of()).telling(detail));
        assertThat(judged.seen()).isEqualTo(seen);
        assertThat(judged.knot()).isEqualTo(knot);
    }

    @DisplayName(
            "A page that was asked for by its path must be there; a service that was only called may have none at the top")
    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource({"'', 404, TIGHT", "/status, 404, FRAYED", "/status, 401, TIGHT", "/, 405, TIGHT", "/, 400, FRAYED"})
    void refusedPages(String ask, int code, Knot knot) {
        var call = new Call(Protocol.HTTPS, "10.44.16.1", 443, ask, List.of(), List.of());
        assertThat(ServiceJudge.judge(call, Heard.answered(code, List.of()), NOW)
                        .knot())
                .isEqualTo(knot);
    }

    @DisplayName("A listed name may lead outside or to the site itself, and nowhere else")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "10.44.16.9, true",
        "198.51.100.7, true",
        "10.44.17.9, false",
        "192.168.1.1, false",
        "127.0.0.1, false",
        "169.254.169.254, false",
        "100.64.0.9, false",
        "224.0.0.1, false",
    })
    void onlyOurOwnGround(String found, boolean asked) {
        assertThat(Ground.problem("mail.example", Ipv4Address.parse(found), List.of(Ipv4Prefix.parse("10.44.16.0/24")))
                        .isEmpty())
                .isEqualTo(asked);
    }
}
