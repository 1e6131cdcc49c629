package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply.Ending;
import app.knottag.core.status.Status;
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

    private static ServiceJudge.Judgement judge(Protocol protocol, ServiceReply heard) {
        return ServiceJudge.judge(new Call(protocol, "10.44.16.1", 587, "", List.of(), List.of()), heard, NOW);
    }

    @DisplayName("Every refusal of a mail server names one field to change, and whether to try again")
    @ParameterizedTest(name = "{0} at {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "421 | the greeting       | FAILED | Nothing to change: try again after 5, 15 and 45 minutes, then call. | 5",
                "454 | the upgrade to TLS | FAILED | Nothing to change: try again after 5, 15 and 45 minutes, then call. | 5",
                "530 | the sender         | FAILED | Change security: switch the upgrade to TLS on. |",
                "535 | the sign-in        | FAILED | Change the sign-in: user name or password, or a sign-in made for devices. |",
                "550 | the sender         | FAILED | Change the recipient or the sender: the server does not say which "
                        + "of the two it means. |",
                "552 | the message        | FAILED | Change the scan: smaller, or black and white; it is too large. |",
                "554 | the greeting       | FAILED | Change the relay: this one does not take mail from here. |",
                "502 | the upgrade to TLS | FAILED | Change the port: what answers there does not speak as a device "
                        + "needs. 587 with upgrade, or 465 secure. |",
            })
    void mail(int code, String step, Status status, String remedy, Integer minutes) {
        var judged = judge(Protocol.SMTP, ServiceReply.answered(step, code, List.of(code + " no")));
        assertThat(judged.status()).isEqualTo(status);
        assertThat(judged.remedy()).isEqualTo(remedy);
        assertThat(judged.seen()).contains("at " + step).contains("“" + code + " no”");
        assertThat(judged.retry()).isEqualTo(Optional.ofNullable(minutes).map(Duration::ofMinutes));
    }

    @DisplayName("What else is heard is judged in plain words")
    @ParameterizedTest(name = "{0} {1} {2} {3}: {5}")
    @CsvSource(
            delimiter = '|',
            value = {
                "SMTP  | ANSWERED | 250 | 250-STARTTLS;250 AUTH PLAIN | PASSED  | The mail server greets, upgrades to "
                        + "TLS and offers a sign-in.",
                "SMTP  | ANSWERED | 250 | 250 SIZE 1000               | FAILED | The mail server offers no upgrade to TLS.",
                "HTTP  | ANSWERED | 200 | hello                       | PASSED  | Its page answers (200).",
                "HTTP  | ANSWERED | 302 | https://elsewhere.example/  | PASSED  | Its page sends on: "
                        + "“https://elsewhere.example/”, which is not followed.",
                "HTTP  | ANSWERED | 404 |                             | PASSED  | It answers, with no page of its own at the top (404).",
                "HTTP  | ANSWERED | 400 |                             | FAILED | It does not understand the question (400).",
                "HTTP  | ANSWERED | 403 |                             | FAILED | Its page does not let this machine in (403).",
                "HTTP  | ANSWERED | 401 |                             | PASSED  | Its page answers, and asks for a sign-in (401).",
                "HTTP  | ANSWERED | 503 |                             | FAILED | Its page answers with an error of its own (503).",
                "DNS   | ANSWERED | 0   |                             | PASSED  | 10.44.16.1 knows names.",
                "DNS   | ANSWERED | 2   |                             | FAILED | 10.44.16.1 answers, but finds nothing: "
                        + "its own line may be down.",
                "DNS   | ANSWERED | 5   |                             | FAILED | 10.44.16.1 answers, but looks nothing "
                        + "up: it refuses, or has nobody to ask.",
                "IPP   | ANSWERED | 1030| /ipp/print                  | FAILED | It has no printer at that path: “/ipp/print”.",
                "IPP   | ANSWERED | 1287|                             | FAILED | It does not tell its state (status 1287).",
                "FILE  | ANSWERED | 0   | dialect 3.1.1               | PASSED  | It offers shared folders: “dialect 3.1.1”.",
                "RAW_PRINT | ANSWERED | 0 |                           | PASSED  | It takes print data.",
                "SMTP  | SILENT   | 0   |                             | FAILED | 10.44.16.1 port 587 stays silent.",
                "FILE  | REFUSED  | 0   |                             | FAILED | 10.44.16.1 port 587 refuses: nothing listens there.",
                "FILE  | STRANGE  | 0   | x\u001b[2J<b>               | FAILED | 10.44.16.1 port 587 answers, but not "
                        + "as shared folders does: “x?[2J<b>”.",
                "SMTP  | NAME_UNKNOWN | 0 |                           | FAILED | No resolver knows the name 10.44.16.1.",
            })
    void judges(Protocol protocol, Ending ending, int code, String lines, Status status, String seen) {
        var said = lines == null ? List.<String>of() : List.of(lines.split(";"));
        var judged = judge(protocol, new ServiceReply(ending, "", code, said, Optional.empty(), Optional.empty()));
        assertThat(judged.seen()).isEqualTo(seen);
        assertThat(judged.status()).isEqualTo(status);
        assertThat(judged.remedy().isEmpty()).isEqualTo(status == Status.PASSED);
    }

    @DisplayName("What a device shows of its own clock is said when it is more than a minute off")
    @ParameterizedTest(name = "{0} {1} s ahead: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "HTTP | 0        | Its page answers (200).",
                "HTTP | -60      | Its page answers (200).",
                "HTTP | -61      | Its page answers (200). Its clock is 61 s behind ours.",
                "HTTP | 3600     | Its page answers (200). Its clock is 60 min ahead of ours.",
                "FILE | -3456000 | It offers shared folders. Its clock is 40 days behind ours.",
            })
    void ownClock(Protocol protocol, int ahead, String seen) {
        var heard = ServiceReply.answered(200, List.of()).telling(new ServiceReply.OwnClock(Duration.ofSeconds(ahead)));
        assertThat(judge(protocol, heard).seen()).isEqualTo(seen);
        assertThat(judge(protocol, heard).status()).isEqualTo(Status.PASSED);
    }

    @DisplayName("A certificate that ends soon or is not taken is said so, and time is compared")
    @Test
    void certificatesAndTime() {
        var page = ServiceReply.answered(200, List.of());
        assertThat(judge(Protocol.HTTPS, page.secured(new ServiceReply.Certificate(NOW.plus(Duration.ofDays(90)), "")))
                        .seen())
                .isEqualTo("Its page answers (200). Its certificate is good until 30 Aug 2026.");
        assertThat(judge(Protocol.HTTPS, page.secured(new ServiceReply.Certificate(NOW.plus(Duration.ofDays(5)), "")))
                        .seen())
                .endsWith("Its certificate ends on 6 Jun 2026: have it renewed now.");
        var refused = judge(Protocol.HTTPS, page.secured(new ServiceReply.Certificate(NOW, "it ended on 2026-05-01")));
        assertThat(refused.seen()).isEqualTo("Its certificate is not taken: it ended on 2026-05-01.");
        assertThat(refused.remedy()).contains("never switch the check off");
    }

    @DisplayName("What a server says of itself decides, not that it answers")
    @ParameterizedTest(name = "{0} {1}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "NTP | -40 2 0               | PASSED  | Its time and ours are -40 ms apart.",
                "NTP | 3600000 2 0           | FAILED | Its time and ours are 3600 s apart.",
                "NTP | 0 16 3                | FAILED | It answers, but its own clock is set by nothing (stratum 16).",
                "NTP | 0 0 3                 | FAILED | It answers, but its own clock is set by nothing.",
                "NTP | 0 3 3                 | FAILED | It answers, but its own clock is set by nothing (stratum 3).",
                "IPP | 3 true                | PASSED  | It is ready to print.",
                "IPP | 4 true media-low-warning | PASSED | It is ready to print, but warns: media low warning.",
                "IPP | 5 true media-empty-error | FAILED | It has stopped: media empty error.",
                "IPP | 3 true door-open-error | FAILED | It can print nothing just now: door open error.",
                "IPP | 3 true paused         | FAILED | It can print nothing just now: paused.",
                "IPP | 3 false               | FAILED | It takes no jobs just now.",
                "DNS | true                  | PASSED  | 10.44.16.1 knows names.",
                "DNS | false                 | FAILED | 10.44.16.1 answers over TCP only; devices ask over UDP.",
            })
    void ownWord(Protocol protocol, String told, Status status, String seen) {
        String[] w = told.split(" ");
        ServiceReply.Detail detail = switch (protocol) {
            case NTP ->
                new ServiceReply.Time(
                        Duration.ofMillis(Long.parseLong(w[0])), Integer.parseInt(w[1]), Integer.parseInt(w[2]));
            case IPP ->
                new ServiceReply.Printer(
                        Integer.parseInt(w[0]), List.of(w).subList(2, w.length), Boolean.parseBoolean(w[1]));
            default -> new ServiceReply.Names(Boolean.parseBoolean(w[0]));
        };
        var judged = judge(protocol, ServiceReply.answered(0, List.of()).telling(detail));
        assertThat(judged.seen()).isEqualTo(seen);
        assertThat(judged.status()).isEqualTo(status);
    }

    @DisplayName(
            "A page that was asked for by its path must be there; a service that was only called may have none at the top")
    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource({"'', 404, PASSED", "/status, 404, FAILED", "/status, 401, PASSED", "/, 405, PASSED", "/, 400, FAILED"})
    void refusedPages(String ask, int code, Status status) {
        var call = new Call(Protocol.HTTPS, "10.44.16.1", 443, ask, List.of(), List.of());
        assertThat(ServiceJudge.judge(call, ServiceReply.answered(code, List.of()), NOW)
                        .status())
                .isEqualTo(status);
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
        assertThat(AllowedTargets.problem(
                                "mail.example", Ipv4Address.parse(found), List.of(Ipv4Prefix.parse("10.44.16.0/24")))
                        .isEmpty())
                .isEqualTo(asked);
    }
}
