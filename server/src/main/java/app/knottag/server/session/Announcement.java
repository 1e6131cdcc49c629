package app.knottag.server.session;

import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Component;

/** Tells the start command that all is ready, with a one-time link while there is nobody who could sign in. */
@Component
class Announcement {

    private final Invitations invitations;
    private final DemoPeople demo;

    Announcement(Invitations invitations, DemoPeople demo) {
        this.invitations = invitations;
        this.demo = demo;
    }

    @EventListener(ApplicationReadyEvent.class)
    void ready() {
        if (!demo.active() && invitations.nobodyYet())
            System.out.println("KNOT first-lead /join/" + invitations.invite(Role.LEAD, "Knot Tag"));
        System.out.println("KNOT ready");
    }
}
