package app.knottag.server.account;

import app.knottag.server.web.Etags;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** For leads: who works here, who was invited, who signed in. */
@RestController
class PeopleController {

    /** @param sites where they work, when that is not every site */
    record PersonRequest(
            @NotNull Role role,
            @NotNull Boolean closed,
            @NotNull Boolean everySite,
            @NotNull @Size(max = 2_000) Set<Long> sites) {}

    record PasswordLink(String path, String name) {}

    record PasswordLinkRequest(
            @NotNull @Size(max = 200) String token,
            @NotNull @Size(max = 500) String password) {}

    private final Colleagues colleagues;
    private final Invitations invitations;
    private final SignInBook book;

    PeopleController(Colleagues colleagues, Invitations invitations, SignInBook book) {
        this.colleagues = colleagues;
        this.invitations = invitations;
        this.book = book;
    }

    @GetMapping("/api/people")
    List<Colleagues.PersonListed> people() {
        return colleagues.all();
    }

    @PutMapping("/api/people/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void change(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody PersonRequest body,
            Principal by) {
        var to = new Colleagues.Standing(body.role(), body.closed(), body.everySite(), body.sites());
        colleagues.change(id, Etags.required(ifMatch), to, by.getName());
    }

    @DeleteMapping("/api/people/{id}/sessions")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void endSessions(@PathVariable long id, Principal by) {
        colleagues.endSessions(id, by.getName());
    }

    @PostMapping("/api/people/{id}/password-link")
    @ResponseStatus(HttpStatus.CREATED)
    PasswordLink link(@PathVariable long id, Principal by) {
        var person = colleagues.get(id);
        return new PasswordLink("/password/" + invitations.passwordLink(person, by.getName()), person.name());
    }

    @PostMapping("/api/password-links/acceptance")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void setPassword(@Valid @RequestBody PasswordLinkRequest body) {
        invitations.setPassword(body.token(), body.password());
    }

    @GetMapping("/api/invitations")
    List<People.OpenLink> invitations() {
        return invitations.open();
    }

    @DeleteMapping("/api/invitations/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void withdraw(@PathVariable long id, Principal by) {
        invitations.withdraw(id, by.getName());
    }

    @GetMapping("/api/sign-ins")
    List<SignIns.SignInLine> signIns(@RequestParam(defaultValue = "9223372036854775807") long below) {
        return book.lines(below);
    }
}
