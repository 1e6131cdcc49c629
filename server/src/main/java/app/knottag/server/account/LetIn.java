package app.knottag.server.account;

import app.knottag.server.web.Idempotency;
import java.security.SecureRandom;
import java.util.Base64;
import org.springframework.jdbc.core.DataClassRowMapper;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.jdbc.datasource.DriverManagerDataSource;

/**
 * For whoever has the shell of the machine, when no lead can sign in any more: a link by which a lead sets a new password. A program
 * of its own, run by the script as the owner of the database; it stands in the log.
 */
public final class LetIn {

    private final JdbcTemplate base;

    LetIn(String url, String password) {
        base = new JdbcTemplate(new DriverManagerDataSource(url, "knot_owner", password));
    }

    public static void main(String[] args) {
        var letIn = new LetIn(System.getenv("KNOT_DB_URL"), System.getenv("KNOT_DB_OWNER_PASSWORD"));
        System.out.println(letIn.run(args.length == 0 ? "" : args[0]));
    }

    /** Returns what is said: the path of a link for the lead of that name, or who the leads are. */
    String run(String name) {
        var leads = base.query(
                "select id, name, name_key as key from person where role = 'LEAD' and closed_at is null order by name",
                new DataClassRowMapper<>(Lead.class));
        String key = Names.key(name);
        return leads.stream()
                .filter(l -> l.key().equals(key))
                .findFirst()
                .map(this::link)
                .orElseGet(() -> "KNOT leads "
                        + String.join(", ", leads.stream().map(Lead::name).toList()));
    }

    record Lead(long id, String name, String key) {}

    private String link(Lead lead) {
        byte[] bytes = new byte[24];
        new SecureRandom().nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        // First the log: no link is ever good of which it does not tell.
        base.update(
                "insert into log_entry (person, action, after, reason) values ('Knot Tag', 'made password link',"
                        + " to_jsonb(?::text), 'asked for at the machine')",
                lead.name());
        base.update(
                "insert into invitation (token_hash, role, expires_at, first_lead, invited_by, person_id)"
                        + " values (?, 'LEAD', now() + interval '1 hour', false, 'whoever has the machine', ?)",
                Idempotency.sha256(token),
                lead.id());
        return "KNOT link /password/" + token;
    }
}
