package app.knottag.server.account;

import app.knottag.server.web.Problem;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** For everybody: where one is signed in, and one's own password. */
@RestController
class OwnController {

    record OwnPasswordRequest(
            @NotNull(message = "Type the password that you have now.") @Size(max = 500)
            String current,

            @NotNull(message = "Type a new password.") @Size(max = 500)
            String password) {}

    private final SignedIn signedIn;
    private final OwnPassword passwords;

    OwnController(SignedIn signedIn, OwnPassword passwords) {
        this.signedIn = signedIn;
        this.passwords = passwords;
    }

    @GetMapping("/api/me/sessions")
    List<SignedIn.SignedInHere> sessions(Principal me, HttpSession session) {
        return signedIn.of(me.getName(), session.getId());
    }

    @DeleteMapping("/api/me/sessions/{key}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@PathVariable String key, Principal me) {
        if (!signedIn.endOne(me.getName(), key)) throw Problem.notFound("sign-in");
    }

    /** Others who are signed in as this person are no longer; whoever changes it stays. */
    @PostMapping("/api/me/password")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void password(
            @Valid @RequestBody OwnPasswordRequest body,
            Principal me,
            HttpSession session,
            HttpServletRequest request) {
        int epoch = passwords.change(me.getName(), body.current(), body.password(), request.getRemoteAddr());
        session.setAttribute(SessionCheck.EPOCH, epoch);
        signedIn.end(me.getName(), session.getId());
    }
}
