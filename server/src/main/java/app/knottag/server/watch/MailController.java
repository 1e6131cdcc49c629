package app.knottag.server.watch;

import app.knottag.server.probe.MailRelay.Way;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Where the report of the morning goes by mail; a lead's to say. */
@RestController
class MailController {

    /**
     * @param on whether the report goes by mail; if not the rest says nothing
     * @param recipients one a line
     * @param trouble why the last mail was not taken; empty when it was, or none was sent
     */
    record MorningMailView(
            boolean on, String host, int port, boolean secured, String sender, String recipients, String trouble) {}

    record MorningMailRequest(
            @NotNull String host,
            @NotNull Integer port,
            @NotNull Boolean secured,
            @NotNull String sender,
            @NotNull String recipients) {}

    private static final int USUAL_PORT = 25;

    private final MorningMail mails;

    MailController(MorningMail mails) {
        this.mails = mails;
    }

    @GetMapping("/api/morning-mail")
    MorningMailView mail() {
        return mails.settings()
                .map(m -> new MorningMailView(
                        true, m.host(), m.port(), m.secured(), m.sender(), m.recipients(), m.trouble()))
                .orElse(new MorningMailView(false, "", USUAL_PORT, true, "", "", ""));
    }

    @PutMapping("/api/morning-mail")
    MorningMailView put(@Valid @RequestBody MorningMailRequest b, Principal by) {
        mails.put(
                new Way(
                        b.host(),
                        b.port(),
                        b.secured(),
                        b.sender(),
                        List.of(b.recipients().split("[\\s,;]+"))),
                by.getName());
        return mail();
    }

    @DeleteMapping("/api/morning-mail")
    void end(Principal by) {
        mails.end(by.getName());
    }

    @PostMapping("/api/morning-mail/trial")
    MorningMailView trial() {
        mails.trial();
        return mail();
    }
}
