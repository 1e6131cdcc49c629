package app.knottag.server.account;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Tells the start command that all is ready, with a one-time link while there is nobody who could sign in. */
@Component
class Announcement {

    private final Invitations invitations;
    private final DemoPeople demo;
    private final String firstLead;

    Announcement(Invitations invitations, DemoPeople demo, @Value("${knot.first-lead-file:}") String firstLead) {
        this.invitations = invitations;
        this.demo = demo;
        this.firstLead = firstLead;
    }

    @EventListener(ApplicationReadyEvent.class)
    void ready() {
        invitations.keyNames();
        if (!firstLead.isEmpty()) announce(Path.of(firstLead));
        System.out.println("KNOT ready");
    }

    /** The link goes into a file that only its owner may read; it is in no log. */
    private void announce(Path file) {
        try {
            Files.deleteIfExists(file);
            if (demo.active() || !invitations.nobodyYet()) return;
            Files.createFile(file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
            Files.writeString(file, "/join/" + invitations.inviteFirstLead() + "\n");
        } catch (IOException e) {
            throw new UncheckedIOException("the link for the first lead cannot be written to " + file, e);
        }
    }
}
