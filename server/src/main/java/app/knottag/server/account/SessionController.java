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
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AuthenticationManager;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.context.SecurityContextHolder;
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

    record Session(String name, Role role) {

        static Session of(Authentication known) {
            String role =
                    known.getAuthorities().iterator().next().getAuthority().replace("ROLE_", "");
            return new Session(known.getName(), Role.valueOf(role));
        }
    }

    record InvitationRequest(@NotNull Role role) {}

    record Invitation(String path, Role role) {}

    record AcceptanceRequest(
            @NotBlank @Size(max = 200) String token,

            @NotBlank(message = "Type your name.") @Size(max = 120)
            String name,

            @NotNull @Size(max = 500) String password) {}

    /**
     * What the page may know before anyone has signed in.
     *
     * @param passkeysAt the address under which it has to be open for passkeys, or null when it has none
     */
    record Welcome(
            boolean demo, List<DemoPerson> people, @Nullable String passkeysAt) {}

    private final AuthenticationManager authentication;
    private final Entrance entrance;
    private final LoginLimit limit;
    private final Invitations invitations;
    private final SignInBook book;
    private final DemoPeople demoPeople;
    private final Passkeys passkeys;

    SessionController(
            AuthenticationManager authentication,
            Entrance entrance,
            LoginLimit limit,
            Invitations invitations,
            SignInBook book,
            DemoPeople demoPeople,
            Passkeys passkeys) {
        this.authentication = authentication;
        this.entrance = entrance;
        this.limit = limit;
        this.invitations = invitations;
        this.book = book;
        this.demoPeople = demoPeople;
        this.passkeys = passkeys;
    }

    @GetMapping("/api/welcome")
    Welcome welcome() {
        return new Welcome(
                demoPeople.active(), demoPeople.all(), passkeys.page().orElse(null));
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
            authentication.authenticate(
                    UsernamePasswordAuthenticationToken.unauthenticated(body.name(), body.password()));
            limit.succeeded(key, caller);
            return entrance.enter(person.orElseThrow(), request, response);
        } catch (AuthenticationException e) {
            book.note(What.REFUSED, person, caller);
            throw Problem.of(
                    HttpStatus.UNAUTHORIZED,
                    "wrong-name-or-password",
                    "Name and password do not go together. Type them again.");
        }
    }

    @GetMapping("/api/session")
    Session current(Authentication known) {
        if (known == null || !known.isAuthenticated() || !(known instanceof UsernamePasswordAuthenticationToken))
            throw Problem.of(HttpStatus.UNAUTHORIZED, "not-signed-in", "Sign in first.");
        return Session.of(known);
    }

    @DeleteMapping("/api/session")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOut(HttpServletRequest request) {
        Optional.ofNullable(request.getUserPrincipal())
                .ifPresent(who -> book.note(What.LEFT, invitations.named(who.getName()), request.getRemoteAddr()));
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
}
