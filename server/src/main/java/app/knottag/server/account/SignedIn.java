package app.knottag.server.account;

import app.knottag.server.web.Idempotency;
import java.time.Instant;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Objects;
import org.springframework.session.FindByIndexNameSessionRepository;
import org.springframework.session.Session;
import org.springframework.stereotype.Component;

/** On which machines somebody is signed in. The id of a session is never given out. */
@Component
class SignedIn {

    static final String CALLER = "knot.caller";

    /**
     * One of them.
     *
     * @param key names it, and nothing can be done with it but to end it
     * @param here whether it is the one that asks
     */
    record SignedInHere(String key, String from, Instant since, Instant lastUsed, boolean here) {}

    private final FindByIndexNameSessionRepository<? extends Session> sessions;

    SignedIn(FindByIndexNameSessionRepository<? extends Session> sessions) {
        this.sessions = sessions;
    }

    List<SignedInHere> of(String name, String asking) {
        return sessions.findByPrincipalName(name).values().stream()
                .filter(s -> !s.isExpired())
                .map(s -> new SignedInHere(
                        key(s.getId()),
                        Objects.requireNonNullElse(s.getAttribute(CALLER), ""),
                        s.getCreationTime(),
                        s.getLastAccessedTime(),
                        s.getId().equals(asking)))
                .sorted(Comparator.comparing(SignedInHere::lastUsed).reversed())
                .toList();
    }

    /** Ends all but one, or all when none is to stay. */
    void end(String name, String butThis) {
        for (var id : sessions.findByPrincipalName(name).keySet()) if (!id.equals(butThis)) sessions.deleteById(id);
    }

    /** Ends the one with that key; returns whether there was one. */
    boolean endOne(String name, String key) {
        var of = sessions.findByPrincipalName(name).keySet().stream()
                .filter(id -> key(id).equals(key))
                .findFirst();
        of.ifPresent(sessions::deleteById);
        return of.isPresent();
    }

    private static String key(String id) {
        return HexFormat.of().formatHex(Idempotency.sha256(id)).substring(0, 16);
    }
}
