package app.knottag.server.account;

import app.knottag.server.account.SessionController.Session;
import app.knottag.server.account.SignIns.What;
import app.knottag.server.web.Problem;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.authority.AuthorityUtils;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.stereotype.Component;

/** Lets in whoever has shown who they are, by whatever means. */
@Component
class Entrance {

    private final SecurityContextRepository contexts;
    private final SignInBook book;

    Entrance(SecurityContextRepository contexts, SignInBook book) {
        this.contexts = contexts;
        this.book = book;
    }

    Session enter(People.Row person, HttpServletRequest request, HttpServletResponse response) {
        book.note(person.closed() ? What.CLOSED : What.ENTERED, Optional.of(person), request.getRemoteAddr());
        // Only whoever has shown who they are is told.
        if (person.closed())
            throw Problem.of(
                    HttpStatus.FORBIDDEN, "account-closed", "Your account is closed. A lead can open it again.");
        // A session from before ends with all it held; its time begins anew.
        Optional.ofNullable(request.getSession(false)).ifPresent(HttpSession::invalidate);
        var session = request.getSession();
        session.setAttribute(SessionCheck.PERSON, person.id());
        session.setAttribute(SessionCheck.EPOCH, person.epoch());
        session.setAttribute(SignedIn.CALLER, request.getRemoteAddr());
        var known = UsernamePasswordAuthenticationToken.authenticated(
                person.name(),
                "",
                AuthorityUtils.createAuthorityList("ROLE_" + person.role().name()));
        var context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(known);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        return Session.of(known);
    }
}
