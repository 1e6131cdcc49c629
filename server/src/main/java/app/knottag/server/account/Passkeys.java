package app.knottag.server.account;

import app.knottag.core.log.Words;
import app.knottag.server.log.Log;
import app.knottag.server.web.Problem;
import com.webauthn4j.util.exception.WebAuthnException;
import java.net.URI;
import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpStatus;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.authority.AuthorityUtils;
import org.springframework.security.web.webauthn.api.AuthenticatorAssertionResponse;
import org.springframework.security.web.webauthn.api.AuthenticatorAttestationResponse;
import org.springframework.security.web.webauthn.api.AuthenticatorSelectionCriteria;
import org.springframework.security.web.webauthn.api.CredentialRecord;
import org.springframework.security.web.webauthn.api.PublicKeyCredential;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialCreationOptions;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialRequestOptions;
import org.springframework.security.web.webauthn.api.PublicKeyCredentialRpEntity;
import org.springframework.security.web.webauthn.api.ResidentKeyRequirement;
import org.springframework.security.web.webauthn.api.UserVerificationRequirement;
import org.springframework.security.web.webauthn.management.ImmutablePublicKeyCredentialCreationOptionsRequest;
import org.springframework.security.web.webauthn.management.ImmutablePublicKeyCredentialRequestOptionsRequest;
import org.springframework.security.web.webauthn.management.ImmutableRelyingPartyRegistrationRequest;
import org.springframework.security.web.webauthn.management.JdbcPublicKeyCredentialUserEntityRepository;
import org.springframework.security.web.webauthn.management.JdbcUserCredentialRepository;
import org.springframework.security.web.webauthn.management.PublicKeyCredentialUserEntityRepository;
import org.springframework.security.web.webauthn.management.RelyingPartyAuthenticationRequest;
import org.springframework.security.web.webauthn.management.RelyingPartyPublicKey;
import org.springframework.security.web.webauthn.management.UserCredentialRepository;
import org.springframework.security.web.webauthn.management.WebAuthnRelyingPartyOperations;
import org.springframework.security.web.webauthn.management.Webauthn4JRelyingPartyOperations;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.util.function.SingletonSupplier;
import tools.jackson.core.JacksonException;

/**
 * Passkeys (Web Authentication Level 3), each good instead of the password of one person. The device has to see for itself who
 * holds it; what it signs is checked by Spring Security.
 */
@Service
class Passkeys {

    private static final Authentication NOBODY =
            new AnonymousAuthenticationToken("nobody", "nobody", AuthorityUtils.createAuthorityList("ROLE_NOBODY"));

    /** Nobody carries more devices than that. */
    static final int MOST = 20;

    private static final Logger LOG = LoggerFactory.getLogger(Passkeys.class);

    /**
     * One of a person's.
     *
     * @param id of the credential, in base64url
     */
    record Passkey(String id, String label, Instant made, Instant lastUsed) {}

    private final PublicKeyCredentialUserEntityRepository holders;
    private final UserCredentialRepository kept;
    private final Log log;
    private final Optional<String> page;
    private final Supplier<WebAuthnRelyingPartyOperations> party;

    Passkeys(JdbcOperations base, Log log, @Value("${knot.page:}") String page) {
        holders = new JdbcPublicKeyCredentialUserEntityRepository(base);
        kept = new JdbcUserCredentialRepository(base);
        this.log = log;
        this.page = Optional.of(page).filter(p -> !p.isEmpty());
        // Made when the first one is used: whoever starts the program does not wait for it.
        party = SingletonSupplier.of(this::party);
    }

    private WebAuthnRelyingPartyOperations party() {
        String at = page.orElseThrow(
                () -> Problem.of(
                        HttpStatus.CONFLICT,
                        "passkeys-need-a-name",
                        "Passkeys belong to the name of this page, and none is set. Whoever runs the server starts it with --page."));
        var here = PublicKeyCredentialRpEntity.builder()
                .id(URI.create(at).getHost())
                .name("Knot Tag")
                .build();
        var operations = new Webauthn4JRelyingPartyOperations(holders, kept, here, Set.of(at));
        operations.setCustomizeCreationOptions(o -> o.authenticatorSelection(AuthenticatorSelectionCriteria.builder()
                .residentKey(ResidentKeyRequirement.REQUIRED)
                .userVerification(UserVerificationRequirement.REQUIRED)
                .build()));
        operations.setCustomizeRequestOptions(o -> o.userVerification(UserVerificationRequirement.REQUIRED));
        return operations;
    }

    /** Under which address the page is to be open for it, if that was said: a passkey belongs to a name. */
    Optional<String> page() {
        return page;
    }

    /** What a device is asked to make one. */
    @Transactional
    PublicKeyCredentialCreationOptions asked(Authentication me) {
        if (of(me.getName()).size() >= MOST)
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "passkeys-full",
                    "There are " + MOST + " passkeys. Remove one that you do not use.");
        return party.get()
                .createPublicKeyCredentialCreationOptions(new ImmutablePublicKeyCredentialCreationOptionsRequest(me));
    }

    /** Keeps what a device made of it. */
    @Transactional
    void add(
            String name,
            PublicKeyCredentialCreationOptions asked,
            PublicKeyCredential<AuthenticatorAttestationResponse> made,
            String label) {
        Words.problem(label, true).ifPresent(p -> {
            throw Problem.field("label", "bad-name", p);
        });
        checked(() -> party.get()
                        .registerCredential(new ImmutableRelyingPartyRegistrationRequest(
                                asked, new RelyingPartyPublicKey(made, label))))
                .orElseThrow(() -> Problem.of(
                        HttpStatus.BAD_REQUEST,
                        "passkey-refused",
                        "What the device made is not what was asked for. Nothing was kept; try once more."));
        log.write(Log.entry(name, "added passkey").after(label));
    }

    /** What any device that holds one is asked to sign. */
    PublicKeyCredentialRequestOptions asked() {
        return party.get()
                .createCredentialRequestOptions(new ImmutablePublicKeyCredentialRequestOptionsRequest(NOBODY));
    }

    /** Whose it is, if it is good. */
    Optional<String> holder(
            PublicKeyCredentialRequestOptions asked, PublicKeyCredential<AuthenticatorAssertionResponse> signed) {
        return checked(() -> party.get()
                .authenticate(new RelyingPartyAuthenticationRequest(asked, signed))
                .getName());
    }

    /** What a device sends is anything until it is checked; why it is not taken stands in the log of the machine. */
    private static <T> Optional<T> checked(Supplier<T> check) {
        try {
            return Optional.of(check.get());
        } catch (WebAuthnException | JacksonException | IllegalArgumentException e) {
            LOG.warn("Passkey refused: {}", e.getClass().getSimpleName());
            return Optional.empty();
        }
    }

    List<Passkey> of(String name) {
        return records(name).stream()
                .map(r -> new Passkey(
                        r.getCredentialId().toBase64UrlString(), r.getLabel(), r.getCreated(), r.getLastUsed()))
                .sorted(Comparator.comparing(Passkey::made))
                .toList();
    }

    private List<CredentialRecord> records(String name) {
        return Optional.ofNullable(holders.findByUsername(name))
                .map(h -> kept.findByUserId(h.getId()))
                .orElse(List.of());
    }

    @Transactional
    void remove(String name, String id) {
        var record = records(name).stream()
                .filter(r -> r.getCredentialId().toBase64UrlString().equals(id))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("passkey"));
        kept.delete(record.getCredentialId());
        log.write(Log.entry(name, "removed passkey").before(record.getLabel()));
    }

    /** Whoever begins anew with a link begins without any: nobody knows who has the others. */
    @Transactional
    void removeAll(String name) {
        for (var record : records(name)) kept.delete(record.getCredentialId());
    }
}
