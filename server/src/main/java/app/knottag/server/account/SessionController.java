package app.knottag.server.account;

import app.knottag.server.account.DemoPeople.DemoPerson;
import app.knottag.server.account.SignIns.What;
import app.knottag.server.web.Problem;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out, and becoming a person who can. */
@RestController
class SessionController {

    record SignInRequest(
            @NotBlank(message = "Type your name.") @Size(max = 120)
            String name,

            @NotNull(message = "Type your password.") @Size(max = 500)
            String password) {}

    record Session(String name, Role role) {}

    record InvitationRequest(@NotNull Role role) {}

    record Invitation(String path, Role role) {}

    record AcceptanceRequest(
            @NotBlank @Size(max = 200) String token,

            @NotBlank(message = "Type your name.") @Size(max = 120)
            String name,

            @NotNull @Size(max = 500) String password) {}

    /** What the page may know before anyone has signed in. */
    record Welcome(boolean demo, List<DemoPerson> people) {}

    private final AuthenticationManager authentication;
    private final SecurityContextRepository contexts;
    private final LoginLimit limit;
    private final Invitations invitations;
    private final SignInBook book;
    private final DemoPeople demoPeople;

    SessionController(
            AuthenticationManager authentication,
            SecurityContextRepository contexts,
            LoginLimit limit,
            Invitations invitations,
            SignInBook book,
            DemoPeople demoPeople) {
        this.authentication = authentication;
        this.contexts = contexts;
        this.limit = limit;
        this.invitations = invitations;
        this.book = book;
        this.demoPeople = demoPeople;
    }

    @GetMapping("/api/welcome")
    Welcome welcome() {
        return new Welcome(demoPeople.active(), demoPeople.all());
    }

    @PostMapping("/api/session")
    Session signIn(@Valid @RequestBody SignInRequest body, HttpServletRequest request, HttpServletResponse response) {
        String caller = request.getRemoteAddr(), key = Names.key(body.name());
        var person = invitations.known(key);
        var wait = limit.tryNow(key, caller);
        if (wait.isPresent()) {
            book.note(What.SLOWED, person, caller);
            response.setHeader("Retry-After", "" + LoginLimit.seconds(wait.get()));
            throw LoginLimit.tooMany(wait.get());
        }
        try {
            var known = authentication.authenticate(
                    UsernamePasswordAuthenticationToken.unauthenticated(body.name(), body.password()));
            var enters = person.orElseThrow();
            limit.succeeded(key, caller);
            book.note(enters.closed() ? What.CLOSED : What.ENTERED, person, caller);
            // Only whoever knows the password is told.
            if (enters.closed())
                throw Problem.of(
                        HttpStatus.FORBIDDEN, "account-closed", "Your account is closed. A lead can open it again.");
            return begin(known, enters, request, response);
        } catch (AuthenticationException e) {
            book.note(What.REFUSED, person, caller);
            throw Problem.of(
                    HttpStatus.UNAUTHORIZED,
                    "wrong-name-or-password",
                    "Name and password do not go together. Type them again.");
        }
    }

    private Session begin(
            Authentication known, People.Row person, HttpServletRequest request, HttpServletResponse response) {
        // A session from before ends with all it held; its time begins anew.
        var before = request.getSession(false);
        if (before != null) before.invalidate();
        var session = request.getSession();
        session.setAttribute(SessionCheck.PERSON, person.id());
        session.setAttribute(SessionCheck.EPOCH, person.epoch());
        session.setAttribute(SignedIn.CALLER, request.getRemoteAddr());
        var context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(known);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        return session(known);
    }

    @GetMapping("/api/session")
    Session current(Authentication known) {
        if (known == null || !known.isAuthenticated() || !(known instanceof UsernamePasswordAuthenticationToken))
            throw Problem.of(HttpStatus.UNAUTHORIZED, "not-signed-in", "Sign in first.");
        return session(known);
    }

    @DeleteMapping("/api/session")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOut(HttpServletRequest request) {
        Optional.ofNullable(request.getUserPrincipal())
                .ifPresent(who ->
                        book.note(What.LEFT, invitations.known(Names.key(who.getName())), request.getRemoteAddr()));
        Optional.ofNullable(request.getSession(false)).ifPresent(HttpSession::invalidate);
        SecurityContextHolder.clearContext();
    }

    @PostMapping("/api/invitations")
    @ResponseStatus(HttpStatus.CREATED)
    Invitation invite(@Valid @RequestBody InvitationRequest body, Principal by) {
        return new Invitation("/join/" + invitations.invite(body.role(), by.getName()), body.role());
    }

    @PostMapping("/api/invitations/acceptance")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void accept(@Valid @RequestBody AcceptanceRequest body) {
        invitations.accept(body.token(), body.name(), body.password());
    }

    private static Session session(Authentication known) {
        String role = known.getAuthorities().iterator().next().getAuthority().replace("ROLE_", "");
        return new Session(known.getName(), Role.valueOf(role));
    }
}
