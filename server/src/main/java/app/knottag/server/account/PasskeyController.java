package app.knottag.server.account;

import app.knottag.server.account.SessionController.Session;
import app.knottag.server.account.SignIns.What;
import app.knottag.server.web.Problem;
import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.util.List;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.Authentication;
import org.springframework.security.web.webauthn.api.AuthenticatorAssertionResponse;
import org.springframework.security.web.webauthn.api.AuthenticatorAttestationResponse;
import org.springframework.security.web.webauthn.api.AuthenticatorResponse;
import org.springframework.security.web.webauthn.api.AuthenticatorTransport;
import org.springframework.security.web.webauthn.api.Bytes;
import org.springframework.security.web.webauthn.api.PublicKeyCredential;
import org.springframework.security.web.webauthn.api.PublicKeyCredential.PublicKeyCredentialBuilder;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialCreationOptions;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialDescriptor;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialRequestOptions;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialType;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Passkeys: one's own, and coming in with one. Bytes are base64url, as in the JSON forms of Web Authentication Level 3. */
@RestController
class PasskeyController {

    private static final String BASE64URL = "[A-Za-z0-9_-]+";
    /** Set on a session of nobody, which is there to hold the question for so many seconds. */
    private static final int ASKED_FOR = 300;

    private static final String ASKED = "knot.passkey-asked";

    record PasskeyAskRequest(
            @NotNull(message = "Type the password that you have now.") @Size(max = 500)
            String current) {}

    record PasskeyRequest(
            @NotBlank(message = "Give it a name, such as the device that holds it.") @Size(max = 60)
            String label,

            @NotNull @Pattern(regexp = BASE64URL) @Size(max = 1_400)
            String id,

            @NotNull @Pattern(regexp = BASE64URL) @Size(max = 8_000)
            String clientDataJSON,

            @NotNull @Pattern(regexp = BASE64URL) @Size(max = 20_000)
            String attestationObject,

            @NotNull @Size(max = 10) List<@NotNull @Size(max = 20) String> transports) {}

    record PasskeySignedRequest(
            @NotNull @Pattern(regexp = BASE64URL) @Size(max = 1_400)
            String id,

            @NotNull @Pattern(regexp = BASE64URL) @Size(max = 8_000)
            String clientDataJSON,

            @NotNull @Pattern(regexp = BASE64URL) @Size(max = 8_000)
            String authenticatorData,

            @NotNull @Pattern(regexp = BASE64URL) @Size(max = 2_000)
            String signature) {}

    record PasskeyParty(String id, String name) {}

    record PasskeyUser(String id, String name, String displayName) {}

    record PasskeyParameter(
            @Schema(allowableValues = "public-key") String type, long alg) {}

    record PasskeyNamed(
            @Schema(allowableValues = "public-key") String type, String id) {}

    /** In the words of the standard. */
    record PasskeySelection(
            @Schema(allowableValues = "required") String residentKey,
            boolean requireResidentKey,
            @Schema(allowableValues = "required") String userVerification) {}

    /**
     * What a device is to make one of.
     *
     * @param timeout in milliseconds
     */
    record PasskeyCreation(
            PasskeyParty rp,
            PasskeyUser user,
            String challenge,
            List<PasskeyParameter> pubKeyCredParams,
            long timeout,
            List<PasskeyNamed> excludeCredentials,
            PasskeySelection authenticatorSelection) {

        static PasskeyCreation of(PublicKeyCredentialCreationOptions o) {
            return new PasskeyCreation(
                    new PasskeyParty(o.getRp().getId(), o.getRp().getName()),
                    new PasskeyUser(
                            o.getUser().getId().toBase64UrlString(),
                            o.getUser().getName(),
                            o.getUser().getDisplayName()),
                    o.getChallenge().toBase64UrlString(),
                    o.getPubKeyCredParams().stream()
                            .map(p -> new PasskeyParameter(
                                    p.getType().getValue(), p.getAlg().getValue()))
                            .toList(),
                    o.getTimeout().toMillis(),
                    named(o.getExcludeCredentials()),
                    new PasskeySelection(
                            o.getAuthenticatorSelection().getResidentKey().getValue(),
                            true,
                            o.getAuthenticatorSelection().getUserVerification().getValue()));
        }

        private static List<PasskeyNamed> named(List<PublicKeyCredentialDescriptor> all) {
            return all.stream()
                    .map(d -> new PasskeyNamed(d.getType().getValue(), d.getId().toBase64UrlString()))
                    .toList();
        }
    }

    /**
     * What a device is to sign.
     *
     * @param timeout in milliseconds
     */
    record PasskeyAsked(String challenge, long timeout, String rpId, String userVerification) {}

    private final Passkeys passkeys;
    private final OwnPassword passwords;
    private final Invitations invitations;
    private final LoginLimit limit;
    private final SignInBook book;
    private final Entrance entrance;

    PasskeyController(
            Passkeys passkeys,
            OwnPassword passwords,
            Invitations invitations,
            LoginLimit limit,
            SignInBook book,
            Entrance entrance) {
        this.passkeys = passkeys;
        this.passwords = passwords;
        this.invitations = invitations;
        this.limit = limit;
        this.book = book;
        this.entrance = entrance;
    }

    @GetMapping("/api/me/passkeys")
    List<Passkeys.Passkey> own(Principal me) {
        return passkeys.of(me.getName());
    }

    /** Asks for the password: whoever finds a screen unlocked makes no way in of their own. */
    @PostMapping("/api/me/passkeys/challenge")
    PasskeyCreation ask(
            @Valid @RequestBody PasskeyAskRequest body,
            Authentication me,
            HttpSession session,
            HttpServletRequest request) {
        passwords.check(me.getName(), body.current(), request.getRemoteAddr());
        var asked = passkeys.asked(me);
        session.setAttribute(ASKED, asked);
        return PasskeyCreation.of(asked);
    }

    @PostMapping("/api/me/passkeys")
    @ResponseStatus(HttpStatus.CREATED)
    void add(@Valid @RequestBody PasskeyRequest body, Principal me, HttpSession session) {
        var asked = asked(session, PublicKeyCredentialCreationOptions.class);
        var response = AuthenticatorAttestationResponse.builder()
                .clientDataJSON(bytes(body.clientDataJSON()))
                .attestationObject(bytes(body.attestationObject()))
                .transports(body.transports().stream()
                        .map(AuthenticatorTransport::valueOf)
                        .toList())
                .build();
        passkeys.add(me.getName(), asked, credential(body.id(), response), Names.tidy(body.label()));
    }

    @DeleteMapping("/api/me/passkeys/{key}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(@PathVariable String key, Principal me) {
        passkeys.remove(me.getName(), key);
    }

    /** Counts as a try, so that nobody can have any number of questions asked. */
    @PostMapping("/api/session/challenge")
    PasskeyAsked ask(HttpServletRequest request) {
        limit.tryNow(tries(request), request.getRemoteAddr()).ifPresent(wait -> {
            throw LoginLimit.tooMany(wait);
        });
        var asked = passkeys.asked();
        var session = request.getSession();
        if (session.isNew()) session.setMaxInactiveInterval(ASKED_FOR);
        session.setAttribute(ASKED, asked);
        return new PasskeyAsked(
                asked.getChallenge().toBase64UrlString(),
                asked.getTimeout().toMillis(),
                asked.getRpId(),
                asked.getUserVerification().getValue());
    }

    @PostMapping("/api/session/passkey")
    Session enter(
            @Valid @RequestBody PasskeySignedRequest body, HttpServletRequest request, HttpServletResponse response) {
        var asked = Optional.ofNullable(request.getSession(false))
                .map(s -> asked(s, PublicKeyCredentialRequestOptions.class))
                .orElseThrow(PasskeyController::notAsked);
        var signed = AuthenticatorAssertionResponse.builder()
                .clientDataJSON(bytes(body.clientDataJSON()))
                .authenticatorData(bytes(body.authenticatorData()))
                .signature(bytes(body.signature()))
                .build();
        var person = passkeys.holder(asked, credential(body.id(), signed)).flatMap(invitations::named);
        if (person.isEmpty()) {
            book.note(What.REFUSED, person, request.getRemoteAddr());
            throw Problem.of(
                    HttpStatus.UNAUTHORIZED,
                    "passkey-unknown",
                    "This passkey is not good here, or no longer. Enter with name and password; your passkeys stand behind your name.");
        }
        limit.succeeded(tries(request), request.getRemoteAddr());
        return entrance.enter(person.get(), request, response);
    }

    private static String tries(HttpServletRequest request) {
        return "a passkey from " + request.getRemoteAddr();
    }

    /** What was asked last, once: an answer to it counts one time. */
    private static <T> T asked(HttpSession session, Class<T> what) {
        var asked = session.getAttribute(ASKED);
        session.removeAttribute(ASKED);
        return Optional.ofNullable(asked)
                .filter(what::isInstance)
                .map(what::cast)
                .orElseThrow(PasskeyController::notAsked);
    }

    private static Problem notAsked() {
        return Problem.of(
                HttpStatus.CONFLICT, "passkey-not-asked", "It took too long, or was answered already. Try once more.");
    }

    private static Bytes bytes(String base64url) {
        try {
            return Bytes.fromBase64(base64url);
        } catch (IllegalArgumentException e) {
            throw Problem.of(HttpStatus.BAD_REQUEST, "bad-base64url", "These are no bytes in base64url.");
        }
    }

    private static <R extends AuthenticatorResponse> PublicKeyCredential<R> credential(String id, R response) {
        PublicKeyCredentialBuilder<R> credential = PublicKeyCredential.builder();
        credential.response(response);
        credential.id(id).rawId(bytes(id)).type(PublicKeyCredentialType.PUBLIC_KEY);
        return credential.build();
    }
}
